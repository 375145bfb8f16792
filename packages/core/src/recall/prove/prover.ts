import type { Slot, Sound } from '../../model/rig.ts';
import type { Part } from '../../model/songbook.ts';
import type { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import type { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import type { EventTable, FreeLevel } from '../explore/event-table.ts';
import { TooManyStates } from '../explore/row.ts';
import { defaultLimits, type Limits } from '../explore/state-space.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import { NeedPin, type Pins } from '../state/values.ts';
import { isRightAtAGlance } from './at-a-glance.ts';
import { lendsTo, ProofBase } from './base.ts';
import { ProofCache } from './cache.ts';
import { caseOf } from './case.ts';
import { overContents } from './contents.ts';
import { decide } from './decide.ts';
import { SetOrder } from './in-set-order.ts';
import type { SetRun } from './set-run.ts';
import { settlingAnswers } from './settle.ts';
import {
  type Answer,
  type Judgement,
  judgementOf,
  type Level,
  type PartJudgement,
  partJudgement,
  recallsAnswer,
  type Verdict,
  worst,
} from './verdict.ts';

/** A slot with the sound that it is meant to bring up. */
interface Pair {
  readonly slot: ModelSlot;
  readonly sound: Sound;
}

/** The proof of a rig: built once a revision, asked for any slot and level. */
export class Prover {
  private readonly base: ProofBase;
  private readonly cache: ProofCache;
  private readonly setOrder: SetOrder;
  private readonly judgedParts = new Map<string, PartJudgement>();
  private slotsWithSounds: readonly Pair[] | undefined;

  /** `before`: the proof before an edit; what the edit did not touch of it is kept. */
  constructor(
    readonly model: StateModel,
    parts: readonly Part[],
    limits: Limits = defaultLimits,
    before?: Prover,
  ) {
    const kept = before && lendsTo(before.model, model) ? before : undefined;
    this.base = new ProofBase(model, limits, parts, kept?.base);
    this.cache = new ProofCache(this.base, kept?.cache);
    this.setOrder = new SetOrder(this.base, () => this.base.set);
  }

  /** Judges a slot against a sound. The same question gets the same object. */
  judge(slot: ModelSlot, sound: Sound, level: Level): Judgement {
    const known = this.cache.judgement(level, slot, sound);
    if (known) return known;
    if (level !== 1 && this.isPlain(slot, sound, level))
      return this.cache.keep(judgementOf(slot, sound, level, recallsAnswer), slot, sound, noVariables);
    const { result, dependsOn } = this.cache.tracker.track(() =>
      this.overContents((pins) =>
        level === 1 ? this.setOrder.judge(slot, sound, pins) : this.fromAnywhere(slot, sound, level, pins),
      ),
    );
    return this.cache.keep(judgementOf(slot, sound, level, result), slot, sound, dependsOn);
  }

  /**
   * Judges a part in set order that feet and hands bring up. What was found to do is right from all that may be then;
   * only where nothing was found is the set played, to tell how it goes wrong.
   */
  judgePart(part: string, sound: Sound): PartJudgement {
    let judged = this.judgedParts.get(part);
    if (!judged) {
      const times = this.set.parts.filter((other) => other.part.id === part);
      const isFound = times.length > 0 && times.every(({ failed, slot }) => failed === null && !slot);
      judged = isFound ? partJudgement(part, sound, recallsAnswer) : this.playPart(part, sound);
      this.judgedParts.set(part, judged);
    }
    return judged;
  }

  /** The same from the set itself, played as it is: its presses, hand moves and slots one after the other. */
  playPart(part: string, sound: Sound): PartJudgement {
    return partJudgement(
      part,
      sound,
      this.overContents((pins) => this.setOrder.judgePart(part, sound, pins)),
    );
  }

  /** Every (slot, sound) of the rig at a level, in document order. */
  all(level: Level): Judgement[] {
    return this.pairs().map(({ slot, sound }) => this.judge(slot, sound, level));
  }

  /** Slots with the sounds they are meant for, in document order. */
  pairs(): readonly Pair[] {
    const { sounds } = this.model.wiring.rig;
    return (this.slotsWithSounds ??= this.model.slots.flatMap((slot) => {
      const sound: Sound | undefined = slot.slot.sound === null ? undefined : sounds[slot.slot.sound];
      return sound ? [{ slot, sound }] : [];
    }));
  }

  /** Foot switches that nobody planned: what a stray foot may find. */
  get strays(): readonly { readonly device: string; readonly switch: string; readonly index: number }[] {
    return this.table.strays.flatMap(({ event, index }) =>
      event.kind === 'foot' ? [{ device: event.device.id, switch: event.footSwitch.id, index }] : [],
    );
  }

  /** Level 3 with this one stray switch alone: whether a press after it still brings the sound up right. */
  judgeAfterStray(stray: number, slot: ModelSlot, sound: Sound): Verdict {
    return this.overContents((pins) => this.fromAnywhere(slot, sound, 3, pins, stray)).verdict;
  }

  /** The set as it is played: presses, bank moves, planned feet and cues, and what feet and hands do without a slot. */
  get set(): SetRun {
    return this.base.set;
  }

  /** Parts of the set list whose slot no bank move leads to. */
  get partsOutOfReach(): readonly string[] {
    return this.base.set.outOfReach;
  }

  /** Slots that may never settle and that no part uses. */
  get excludedSlots(): readonly Slot[] {
    return this.model.slots.filter((slot) => this.base.excluded.has(slot.index)).map(({ slot }) => slot);
  }

  /** State spaces explored so far: how many states, and whether several wanted variables were followed together. */
  spaceSizes(): readonly { readonly variables: number; readonly states: number; readonly joint: boolean }[] {
    return [...this.cache.spaceSizes()];
  }

  get comparison(): SoundComparison {
    return this.base.comparison;
  }

  get threeValued(): ThreeValuedJudge {
    return this.base.threeValued;
  }

  get table(): EventTable {
    return this.base.table;
  }

  targetOf(sound: Sound): SoundTarget {
    return this.base.targetOf(sound);
  }

  private overContents(ask: (pins: Pins) => Answer): Answer {
    return overContents(this.base.limits.contents, ask);
  }

  private fromAnywhere(slot: ModelSlot, sound: Sound, level: FreeLevel, pins: Pins, stray?: number): Answer {
    const exploration = this.cache.exploration(level, pins, stray);
    return worst([
      ...this.withinLimits(() => settlingAnswers(this.base, slot, exploration)),
      ...this.withinLimits(() => [decide(caseOf(this.base, this.cache, slot, sound, exploration))]),
    ]);
  }

  /** Past the limits nothing is known, whatever was asked. */
  private withinLimits(ask: () => readonly Answer[]): readonly Answer[] {
    try {
      return ask();
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      const { states, steps } = this.base.limits;
      const gaveUp = `more than ${states} states or ${steps} steps`;
      return [{ verdict: 'cannot-be-known', length: null, sequence: null, symbols: [], gaveUp }];
    }
  }

  /** The ordinary case, told at a glance: all settles, and the press leaves all that is wanted as it is wanted. */
  private isPlain(slot: ModelSlot, sound: Sound, level: FreeLevel): boolean {
    const { base, cache } = this;
    if (base.mayNotSettle(level).length > 0 || base.excluded.has(slot.index)) return false;
    try {
      return isRightAtAGlance(base, cache, slot, base.targetOf(sound), cache.exploration(level));
    } catch (reason) {
      if (reason instanceof NeedPin || reason instanceof TooManyStates) return false;
      throw reason;
    }
  }
}

const noVariables: readonly number[] = [];
