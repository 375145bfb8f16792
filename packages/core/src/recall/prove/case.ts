import type { Sound } from '../../model/rig.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import type { Status } from '../audible/three-valued-judge.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import type { Exploration } from '../explore/exploration.ts';
import { PostPressRanges } from '../explore/post-press-ranges.ts';
import type { Reached, StateSpace } from '../explore/state-space.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noValue } from '../state/ids.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { ProofBase } from './base.ts';
import type { ProofCache } from './cache.ts';
import { pathTo } from './counterexample.ts';
import type { Answer } from './verdict.ts';

/** One judged (slot, sound) at one level, with what its press leaves behind. */
export interface Case {
  readonly base: ProofBase;
  readonly cache: ProofCache;
  readonly slot: ModelSlot;
  readonly press: CompiledEvent;
  readonly target: SoundTarget;
  readonly exploration: Exploration;
  readonly after: PostPressRanges;
  /** The value that the press leaves a variable on, where the sound wants no other; else `noValue`. */
  readonly stays: (variable: VariableId) => number;
  /** Statuses worked out so far, by what tells combinations apart. */
  readonly statuses: Map<string, Status>;
}

/** A combination from which the press goes wrong. */
export interface WrongAt {
  readonly space: StateSpace;
  readonly from: Reached;
}

export function caseOf(
  base: ProofBase,
  cache: ProofCache,
  slot: ModelSlot,
  sound: Sound,
  exploration: Exploration,
): Case {
  const target = base.targetOf(sound);
  const press = base.table.press.get(slot.index)!;
  const after = new PostPressRanges(press, exploration, base.threeValued, base.releasable);
  const stays = (variable: VariableId): number => {
    const value = after.left(variable);
    return target.cues.has(variable) || (target.has(variable) && target.wants(variable) !== value) ? noValue : value;
  };
  return { base, cache, slot, press, target, exploration, after, stays, statuses: new Map() };
}

/**
 * From the press alone (`known`), then with what the variables nearby may be (`near`), last with what all of them may
 * be (`all`).
 */
type Knowledge = 'known' | 'near' | 'all';

/** What is settled of a combination of some variables after the press. */
export function statusOf(item: Case, at: ReadonlyMap<VariableId, ValueId>, how: Knowledge): Status {
  const { threeValued } = item.base;
  const classes = [...at].map(([variable, value]) => `${variable}${threeValued.classOf(item.target, variable, value)}`);
  const key = `${how}|${classes.join('|')}`;
  let status = item.statuses.get(key);
  if (!status) item.statuses.set(key, (status = computeStatus(item, at, how)));
  return status;
}

function computeStatus(item: Case, at: ReadonlyMap<VariableId, ValueId>, how: Knowledge): Status {
  const { target, after, exploration } = item;
  const { threeValued } = item.base;
  const { pins } = exploration.question;
  if (how === 'known') return threeValued.status(target, at, after.fromPress(), pins);
  const nearby = new Set([...at.keys()].flatMap((variable) => threeValued.relatedControls(variable)));
  // Less is known before, so that a status settled there is settled here; asked where knowing more has its price.
  const isDear = (variable: VariableId) =>
    after.left(variable) < 0 && exploration.mayWrite(variable) && !exploration.isKnown(variable);
  if (how === 'all' || [...nearby].some(isDear)) {
    const before = statusOf(item, at, how === 'all' ? 'near' : 'known');
    if (before !== 'open') return before;
  }
  const ground =
    how === 'all'
      ? after.fromAll()
      : threeValued.groundWith(after.fromPress(), nearby, (variable) => after.all(variable));
  return threeValued.status(target, at, ground, pins);
}

/** Whether the line surely sounds after the press, with some variables as given and cues taken as done. */
export const surelySoundsWith = ({ base, target, after }: Case, at: ReadonlyMap<VariableId, ValueId>): boolean =>
  base.threeValued.surelySounds((variable) => {
    const value = target.cues.get(variable) ?? at.get(variable);
    return value === undefined ? after.all(variable) : [value];
  });

/** Banks of the controllers whose presses can change these variables, and of the slot's own. */
export function banksAround({ base, exploration, slot }: Case, variables: readonly VariableId[]): number[] {
  const controllers = exploration
    .concerning(variables)
    .flatMap(({ event }) => (event.kind === 'press' ? [event.slot.slot.controller] : []));
  return base.banksOf([slot.slot.controller, ...controllers]);
}

/** The answer that a path to a combination, then the press, leads to. */
export function answerAt({ base, slot }: Case, { space, from }: WrongAt, verdict: Answer['verdict']): Answer {
  const path = pathTo(base.model, space.stepper, from);
  const steps = [...path.steps, { kind: 'press' as const, slot: slot.slot.id }];
  return { verdict, length: from.depth + 1, sequence: { ...path, steps }, symbols: [] };
}
