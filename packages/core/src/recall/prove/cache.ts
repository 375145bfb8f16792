import type { Sound } from '../../model/rig.ts';
import { DependencyTracker } from '../explore/dependency-tracker.ts';
import { doesTheSame, type FreeLevel } from '../explore/event-table.ts';
import { Exploration } from '../explore/exploration.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { Pins } from '../state/values.ts';
import type { ProofBase } from './base.ts';
import { Judgements } from './judgements.ts';
import type { Judgement, Level } from './verdict.ts';

/**
 * All that a proof keeps, for further questions and over edits. What each kept thing depends on:
 * - an exploration: the model, the level, the contents assumed, the one stray switch; its state spaces and ranges after
 *   an edit, at levels 2 and 3: no rewritten slot leaves any of their variables otherwise than before;
 * - whether the line always sounds, of an exploration: the variables read, kept in `soundingBy`;
 * - a judgement: its slot, its sound, and the variables that it turned on. One made anew that comes out the same is the
 *   same object as before the edit.
 * Comparison, three-valued judge and event table are kept by the base.
 */
export class ProofCache {
  readonly tracker = new DependencyTracker();
  private readonly explorations = new Map<string, Exploration>();
  private readonly judged = new Judgements();
  private earlier: Judgements | undefined;
  private readonly sounding = new Map<Exploration, boolean>();
  private readonly soundingBy = new Set<number>();

  constructor(
    private readonly base: ProofBase,
    before?: ProofCache,
  ) {
    if (before) this.takeOver(before);
  }

  exploration(level: FreeLevel, pins: Pins = noPins, stray?: number): Exploration {
    const key = `${level}.${stray ?? ''}|${pinsKey(pins)}`;
    let exploration = this.explorations.get(key);
    if (!exploration) {
      const question = { level, pins, limits: this.base.limits, ...(stray === undefined ? {} : { stray }) };
      this.explorations.set(key, (exploration = new Exploration(this.base.table, question, this.tracker)));
    }
    return exploration;
  }

  /** State spaces explored so far. */
  *spaceSizes(): Iterable<{ readonly variables: number; readonly states: number; readonly joint: boolean }> {
    for (const exploration of this.explorations.values()) yield* exploration.sizes();
  }

  judgement(level: Level, slot: ModelSlot, sound: Sound): Judgement | undefined {
    return this.judged.get(level, slot.index, sound.id)?.judgement;
  }

  /** Keeps a judgement with what it turned on; the one of before the edit, where it is the same. */
  keep(found: Judgement, slot: ModelSlot, sound: Sound, dependsOn: readonly VariableId[]): Judgement {
    const earlier = this.earlier?.get(found.level, slot.index, sound.id)?.judgement;
    const judgement = earlier && isSame(earlier, found) ? earlier : found;
    this.judged.add({ judgement, slot, sound, dependsOn });
    return judgement;
  }

  /** Whether the line sounds in every state of an exploration, whatever the sound. */
  alwaysSounds(exploration: Exploration): boolean {
    let sounds = this.sounding.get(exploration);
    if (sounds === undefined) {
      const { result, dependsOn } = this.tracker.track(() => this.computeAlwaysSounds(exploration));
      for (const variable of dependsOn) this.soundingBy.add(variable);
      this.sounding.set(exploration, (sounds = result));
    }
    return sounds;
  }

  private computeAlwaysSounds(exploration: Exploration): boolean {
    const { threeValued } = this.base;
    if (threeValued.surelySounds(() => null)) return true;
    const cutting = new Set(threeValued.mayCut({ has: () => false }, () => null));
    return threeValued.surelySounds((variable) => (cutting.has(variable) ? exploration.reachable(variable) : null));
  }

  // ---- over an edit ----

  private takeOver(before: ProofCache): void {
    const rewritten = this.rewritten(before);
    for (const { question } of before.explorations.values())
      if (question.level !== 4) {
        const { level, pins, stray } = question;
        this.exploration(level, pins, stray).takeOver(before.exploration(level, pins, stray), rewritten);
      }
    const settles = this.base.alwaysSettles && before.base.alwaysSettles;
    if (settles && ![...before.soundingBy].some((variable) => rewritten.has(variable)))
      this.takeOverJudgements(before, rewritten);
  }

  /** Variables that some rewritten slot leaves otherwise than before. */
  private rewritten(before: ProofCache): ReadonlySet<number> {
    const variables = new Set<number>();
    for (const [index, now] of this.base.table.press) {
      const old = before.base.table.press.get(index);
      if (old === now) continue;
      for (const variable of new Set([...now.summary.written, ...(old?.summary.written ?? [])]))
        if (!doesTheSame(old, now, variable)) variables.add(variable);
    }
    return variables;
  }

  private takeOverJudgements(before: ProofCache, rewritten: ReadonlySet<VariableId>): void {
    const { slots, wiring } = this.base.model;
    this.earlier = before.judged;
    for (const known of before.judged) {
      const { slot, sound, judgement, dependsOn } = known;
      if (judgement.level !== 2 && judgement.level !== 3) continue;
      if (slots[slot.index] !== slot || wiring.rig.sounds[sound.id] !== sound) continue;
      if (!dependsOn.some((variable) => rewritten.has(variable))) this.judged.add(known);
    }
    for (const variable of before.soundingBy) this.soundingBy.add(variable);
  }
}

const noPins: Pins = new Map();

const isSame = (judgement: Judgement, other: Judgement): boolean =>
  judgement.verdict === other.verdict &&
  judgement.length === other.length &&
  JSON.stringify(judgement) === JSON.stringify(other);

export const pinsKey = (pins: Pins): string =>
  pins.size === 0 ? '' : [...pins].map(([symbol, option]) => `${symbol}=${option}`).join('&');
