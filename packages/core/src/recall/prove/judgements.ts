import type { Sound } from '../../model/rig.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { Judgement, Level } from './verdict.ts';

/** A judgement with what it was about and the variables that it turned on. */
export interface Judged {
  readonly judgement: Judgement;
  readonly slot: ModelSlot;
  readonly sound: Sound;
  readonly dependsOn: readonly VariableId[];
}

/** What has been judged of a rig: by level and slot a list, of one sound nearly always. */
export class Judgements {
  private readonly byLevel: (Judged[] | undefined)[][] = [[], [], [], [], []];

  get(level: Level, slot: number, sound: string): Judged | undefined {
    const list = this.byLevel[level][slot];
    if (list) for (let i = 0; i < list.length; i += 1) if (list[i].sound.id === sound) return list[i];
    return undefined;
  }

  add(judged: Judged): void {
    const slots = this.byLevel[judged.judgement.level];
    const list = slots[judged.slot.index];
    if (list) list.push(judged);
    else slots[judged.slot.index] = [judged];
  }

  *[Symbol.iterator](): Iterator<Judged> {
    for (const slots of this.byLevel) for (const list of slots) if (list) yield* list;
  }
}
