import { castsByPart, type Moment, slotOfCast, soundOfCast } from '../../model/casting.ts';
import type { Cast, CastAction, Sound } from '../../model/rig.ts';
import type { Part } from '../../model/songbook.ts';
import { eventOfCast, type RigEvent } from '../deliver/events.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import { type CompiledEvent, compileEvent } from '../explore/event-table.ts';
import type { Row } from '../explore/row.ts';
import { Stepper } from '../explore/stepper.ts';
import { widening } from '../explore/widening.ts';
import { type Derived, FootPlanner } from '../feet/foot-planner.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import { NeedVariable } from '../state/store.ts';
import type { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import type { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import { stepOf } from './counterexample.ts';

/** One thing that is done in set order. */
export interface SetEvent {
  readonly compiled: CompiledEvent;
  readonly step: SequenceStep;
  readonly when: Moment;
  /** Found by Yunta, and not written by hand. */
  readonly isDerived: boolean;
  /** As feet and hands are told it; null for presses of slots and bank moves. */
  readonly action: CastAction | null;
}

/** A part as the set plays it. */
export interface SetPart {
  readonly part: Part;
  readonly cast: Cast;
  readonly slot: ModelSlot | null;
  readonly sound: Sound | null;
  /** In time. */
  readonly events: readonly SetEvent[];
  /** Of a part that no slot plays: why nothing brings its sound up; null where something does. */
  readonly failed: Derived['failed'];
}

/** The set as it is played: bank moves, planned feet and cues, and what feet and hands do where there is no slot. */
export interface SetRun {
  readonly parts: readonly SetPart[];
  /** Parts whose slot no bank move leads to, in the order in which they would be played. */
  readonly outOfReach: readonly string[];
  /** What follows feet and hands; null where every part has a slot. */
  readonly planner: FootPlanner | null;
}

/** Whether any part of a rig is brought up by feet and hands alone. */
export const hasPartsByFeet = ({ wiring: { rig } }: StateModel): boolean =>
  Object.values(rig.casting).some((cast) => cast.slot === null && !slotOfCast(rig, cast));

/** What a set is played with. */
export interface SetBase {
  readonly model: StateModel;
  readonly comparison: SoundComparison;
  readonly threeValued: ThreeValuedJudge;
  readonly targetOf: (sound: Sound) => SoundTarget;
}

/** Plays the set list's parts in order, from power-up. */
export function playSet(base: SetBase, parts: readonly Part[]): SetRun {
  const { model } = base;
  const { rig } = model.wiring;
  const casts = castsByPart(rig);
  const follower = new BankFollower(model);
  const planner = hasPartsByFeet(model) ? new FootPlanner(model, base.comparison, base.threeValued) : null;
  const outOfReach: string[] = [];
  const played: SetPart[] = [];
  let count = 0;
  /** What happened in vain for a part that cannot be played. */
  let inVain: readonly SetEvent[] = [];
  let pressed: string | null = null;
  let before: { readonly part: Part; readonly sound: Sound | null } | null = null;
  for (const part of parts) {
    const cast = casts.get(part.id);
    const slot = cast && model.slot.get(slotOfCast(rig, cast)?.id ?? '');
    const sound = (cast && soundOfCast(rig, cast)) ?? null;
    if (!cast || (!slot && !sound)) {
      before = { part, sound: null };
      continue;
    }
    const events: SetEvent[] = [...inVain];
    const happen = (event: RigEvent | undefined, when: Moment, action: CastAction | null = null) => {
      if (!event) return;
      const compiled = compileEvent(model, event, (count += 1));
      events.push({ compiled, step: stepOf(model, event), when, isDerived: false, action });
      follower.follow(compiled);
      planner?.follow(compiled);
    };
    let failed: Derived['failed'] = null;
    for (const action of cast.before) happen(eventOfCast(model, action), 'before', action);
    if (slot && (slot.slot.id !== pressed || cast.again)) {
      const { banks } = model.device.get(slot.slot.controller)!.controller!.facts;
      for (let moves = 0; moves < banks && follower.bankOf(slot) !== slot.slot.bank; moves += 1)
        happen(moveTowards(model, slot, follower.bankOf(slot)), 'before');
      // Where moves that fire slots lead back each time, it cannot be pressed there.
      if (follower.bankOf(slot) !== slot.slot.bank && !follower.isLost) {
        outOfReach.push(part.id);
        inVain = events;
        continue;
      }
      happen({ kind: 'press', slot }, 'on');
    }
    if (!slot && planner) {
      const derived = planner.derive({
        target: base.targetOf(sound!).withoutCues(),
        after: cast.after.flatMap((action) => {
          const event = eventOfCast(model, action);
          return event ? [compileEvent(model, event, 0)] : [];
        }),
        soundBefore: before?.sound && before.part.song === part.song ? base.targetOf(before.sound).withoutCues() : null,
      });
      failed = derived.failed;
      for (const when of ['before', 'on'] as const)
        for (const { action, compiled } of derived[when]) {
          events.push({ compiled, step: stepOf(model, compiled.event), when, isDerived: true, action });
          follower.follow(compiled);
        }
    }
    for (const action of cast.after) happen(eventOfCast(model, action), 'after', action);
    inVain = [];
    played.push({ part, cast, slot: slot ?? null, sound, events, failed });
    pressed = slot ? slot.slot.id : null;
    before = { part, sound };
  }
  return { parts: played, outOfReach, planner };
}

/** One bank move the shorter way round, up on a tie. */
function moveTowards(model: StateModel, slot: ModelSlot, from: number): RigEvent {
  const controller = model.device.get(slot.slot.controller)!;
  const { banks } = controller.controller!.facts;
  const up = (((slot.slot.bank - from) % banks) + banks) % banks;
  return { kind: 'bank', controller, by: up <= banks - up ? 1 : -1 };
}

/** Where each controller's bank is as the set goes on: moves, presses and calls alike. */
class BankFollower {
  private readonly variables = new Set<number>();
  private readonly happened: CompiledEvent[] = [];
  private here: { readonly stepper: Stepper; readonly row: Row } | null = null;
  /** Something never fell quiet: nobody knows the banks any more. */
  isLost = false;

  constructor(private readonly model: StateModel) {
    for (const device of model.devices) if (device.controller) this.variables.add(device.controller.bank);
  }

  follow(compiled: CompiledEvent): void {
    this.happened.push(compiled);
    const { here } = this;
    if (!here) return;
    try {
      this.here = { stepper: here.stepper, row: this.stepFrom(here.stepper, here.row, compiled) };
    } catch (reason) {
      // A further variable matters: the set is followed anew with it.
      if (!(reason instanceof NeedVariable)) throw reason;
      this.variables.add(reason.variable);
      this.here = null;
    }
  }

  /** The bank that a slot's controller is in; where something never fell quiet, the one that it was given up in. */
  bankOf(slot: ModelSlot): number {
    const { stepper, row } = (this.here ??= widening(this.variables, (variables) => {
      const anew = new Stepper(this.model, variables, new Map());
      const start = anew.initial(new Set())[0].row;
      return { stepper: anew, row: this.happened.reduce((at, compiled) => this.stepFrom(anew, at, compiled), start) };
    }));
    const { bank } = this.model.device.get(slot.slot.controller)!.controller!;
    return this.model.values.number(row[stepper.place[bank]]);
  }

  private stepFrom(stepper: Stepper, row: Row, compiled: CompiledEvent): Row {
    const [{ row: next, outcome }] = stepper.step(row, compiled, new Set());
    this.isLost ||= outcome !== 'settled';
    return next;
  }
}
