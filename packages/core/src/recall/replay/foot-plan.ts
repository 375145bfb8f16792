import type { Moment } from '../../model/casting.ts';
import { controlRef } from '../../model/documents.ts';
import type { CastAction, ControlRef } from '../../model/rig.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import { mistakesIn } from '../feet/mistakes.ts';
import { resetOf } from '../feet/reset.ts';
import type { Prover } from '../prove/prover.ts';
import type { PartJudgement } from '../prove/verdict.ts';
import type { VariableId } from '../state/ids.ts';

/** One thing that is done for a part. */
export interface PlanStep {
  readonly when: Moment;
  /** Found by Yunta, and not written by hand. */
  readonly isDerived: boolean;
  /** A press or a hand move; null for presses of slots and bank moves. */
  readonly action: CastAction | null;
  readonly step: SequenceStep;
}

/** A part of the set with what is done for it. */
export interface PartPlan {
  readonly part: string;
  readonly sound: string | null;
  readonly slot: string | null;
  readonly steps: readonly PlanStep[];
  /** Of a part that feet and hands bring up: whether they do, in set order. Null where a slot plays it. */
  readonly judgement: PartJudgement | null;
  /** Where nothing brings the sound up: the controls that nothing puts where they are wanted. */
  readonly stuck: readonly ControlRef[] | null;
}

/** A press that was missed, or one too many. */
export interface MistakeReport {
  readonly kind: 'missed' | 'extra';
  /** A foot switch, or the slot whose press was missed. */
  readonly press: { readonly device: string; readonly switch: string } | { readonly slot: string };
  /** The part that it was missed for, or that it happened in. */
  readonly at: string;
  /** Parts that come up wrong then, in set order. */
  readonly wrong: readonly string[];
  /** The first part from which on all is right again; null where nothing is up to the end. */
  readonly heals: string | null;
}

/** What brings a sound up whatever came before. */
export interface ResetReport {
  readonly sound: string;
  /** Null where nothing does without looking. */
  readonly steps: readonly ({ readonly slot: string } | CastAction)[] | null;
  /** Where nothing does: the controls to look at. */
  readonly lookAt: readonly ControlRef[];
  /** Too much to try, or contents that nobody entered. */
  readonly isUnknown: boolean;
}

/** What feet and hands do tonight, what one mistake costs, and how to get back. */
export interface FootPlan {
  readonly parts: readonly PartPlan[];
  readonly mistakes: readonly MistakeReport[];
  /** Of each sound that some part plays without a slot, in set order. */
  readonly resets: readonly ResetReport[];
}

/** What is done for each part of the set; the cheap half of the foot plan. */
export function partPlans(prover: Prover): readonly PartPlan[] {
  return prover.set.parts.map(({ part, slot, sound, events, failed }) => ({
    part: part.id,
    sound: sound?.id ?? null,
    slot: slot?.slot.id ?? null,
    steps: events.map(({ when, isDerived, action, step }) => ({ when, isDerived, action, step })),
    judgement: slot || !sound ? null : prover.judgePart(part.id, sound),
    stuck: failed?.is === 'stuck' ? refsOf(prover, failed.controls) : null,
  }));
}

/** Null where every part has a slot. */
export function footPlan(prover: Prover): FootPlan | null {
  const { parts, planner } = prover.set;
  if (!planner) return null;
  const mistakes = mistakesIn(
    planner,
    parts.map(({ events, sound }) => ({
      events: events.map(({ compiled }) => compiled),
      target: sound ? prover.targetOf(sound).withoutCues() : null,
    })),
  );
  const idOf = (i: number): string => parts[i].part.id;
  const byFeet = new Set(parts.flatMap(({ slot, sound }) => (slot || !sound ? [] : [sound])));
  return {
    parts: partPlans(prover),
    mistakes: mistakes.flatMap(({ kind, compiled: { event }, at, wrong, heals }): MistakeReport[] => {
      const press =
        event.kind === 'foot'
          ? { device: event.device.id, switch: event.footSwitch.id }
          : event.kind === 'press'
            ? { slot: event.slot.slot.id }
            : null;
      return press
        ? [{ kind, press, at: idOf(at), wrong: wrong.map(idOf), heals: heals === null ? null : idOf(heals) }]
        : [];
    }),
    resets: [...byFeet].map((sound): ResetReport => {
      const reset = resetOf(planner, prover.targetOf(sound).withoutCues());
      return {
        sound: sound.id,
        steps:
          reset.is === 'found'
            ? [...(reset.slot ? [{ slot: reset.slot.slot.id }] : []), ...reset.moves.map(({ action }) => action)]
            : null,
        lookAt: reset.is === 'none' ? refsOf(prover, reset.lookAt) : [],
        isUnknown: reset.is === 'unknown',
      };
    }),
  };
}

function refsOf({ model }: Prover, variables: readonly VariableId[]): readonly ControlRef[] {
  return variables.flatMap((variable) => {
    const { kind, device, part } = model.variables[variable];
    return kind === 'control' || kind === 'preset' ? [controlRef(device, part)] : [];
  });
}
