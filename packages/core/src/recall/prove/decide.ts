import type { Possible } from '../audible/range-table.ts';
import type { Reached, StateSpace } from '../explore/state-space.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { firstMoving, isRightAtAGlance, nowhere, soundsAfter } from './at-a-glance.ts';
import { type Case, statusOf, type WrongAt } from './case.ts';
import { jointly } from './joint.ts';
import { scan } from './scan.ts';
import { routed, shortest } from './shortest.ts';
import { type Answer, recallsAnswer } from './verdict.ts';

/**
 * Wanted variable by wanted variable first: what may come up otherwise than wanted and be heard. For each of
 * those, with its pedal's loop and switch, whether some combination is wrong whatever the rest of the rig does;
 * only where that stays open are they explored jointly.
 */
export function decide(item: Case): Answer {
  const { base, cache, slot, target, exploration, after } = item;
  if (isRightAtAGlance(base, cache, slot, target, exploration)) return recallsAnswer;
  const heard: number[] = [];
  const moving = mayMove(item);
  const audible = () => base.threeValued.audible(target, moving, after.fromPress());
  // One alone is soon tried; of many, those that cannot be heard are left out first.
  const isAlone = moving.length === 1;
  for (const variable of isAlone ? moving : likeliestFirst(item, audible())) {
    if (staysAsWanted(item, variable)) continue;
    const atOnce = wrongAtOnce(item, variable);
    if (atOnce) return atOnce;
    if (isAlone && audible().length === 0) continue;
    if (mayBeHeard(item, variable)) heard.push(variable);
  }
  const groups = [...heard.map((variable) => groupOf(item, variable)), ...silence(item)];
  if (groups.length === 0) return base.isPlayable(slot) ? recallsAnswer : jointly(item, []);
  const scans = groups.map((group) => scan(item, group));
  if (scans.some(({ wrong }) => wrong !== null)) return shortest(item, groups, scans);
  const open = groups.filter((_, i) => scans[i].open !== null);
  return open.length === 0 && base.isPlayable(slot) ? recallsAnswer : jointly(item, [...new Set(open.flat())]);
}

/** Whether it is known already that a variable is as wanted after the press, whatever came before it. */
function staysAsWanted({ after, target }: Case, variable: VariableId): boolean {
  const values = after.known(variable);
  return values?.length === 1 && values[0] === target.wants(variable);
}

/**
 * Wants that the press may not leave as wanted, but for what nothing can move from there (a pedal that nobody steps
 * on), and what lies in a loop that is out.
 */
function mayMove(item: Case): number[] {
  const { base, exploration, press, target, slot } = item;
  /** A slot that is excluded may move what nothing else does. */
  const restsAsWanted = (variable: VariableId, wanted: ValueId) =>
    !press.summary.mayWrite(variable) && exploration.restsOn(variable) === wanted;
  const moving: VariableId[] = [];
  for (let i = firstMoving(base, slot, target, 0); i !== nowhere; i = firstMoving(base, slot, target, i + 1)) {
    const variable = target.variables[i];
    if (!restsAsWanted(variable, target.wanted[i]) && !isMuted(item, variable)) moving.push(variable);
  }
  return moving;
}

/**
 * Whether nothing of a variable is heard after the press, nor where the wants are laid over: what it is heard in is
 * shut, or lies in a loop that is out.
 */
function isMuted({ base: { threeValued, model }, stays }: Case, variable: VariableId): boolean {
  const loop = threeValued.loopAround(variable);
  const isOut = loop >= 0 && stays(loop) === model.values.id(0);
  return (isOut && threeValued.isMutedByItsLoop(variable)) || threeValued.isBlocked(variable, stays);
}

/** What is wanted on is soonest certain to be missed: tried first. */
function likeliestFirst({ base, target }: Case, variables: readonly VariableId[]): readonly number[] {
  if (variables.length < 2) return variables;
  const on = base.model.values.id(1);
  const isOn = (variable: VariableId) => target.wants(variable) === on;
  return [...variables.filter(isOn), ...variables.filter((variable) => !isOn(variable))];
}

/** Wrong from power-up by bank moves and the press alone: nothing can be shorter. */
function wrongAtOnce(item: Case, variable: VariableId): Answer | null {
  if (!item.base.movesOnlyBanks) return null;
  const tried = new Set<number>();
  const isWrong = (value: ValueId) => statusOf(item, new Map([[variable, value]]), 'near') === 'wrong';
  const found = item.exploration.search(
    [variable],
    (space, from): WrongAt | undefined => {
      const others = othersAfter(item, variable, space, from, tried);
      return others.length > 0 && others.some(isWrong) ? { space, from } : undefined;
    },
    'power-up',
  );
  return found ? routed(item, found) : null;
}

/** Whether a value that this variable may come up with, other than the wanted one, may be heard. */
function mayBeHeard(item: Case, variable: VariableId): boolean {
  const wanted = item.target.wants(variable);
  return item.after.some(
    variable,
    (value) => value !== wanted && statusOf(item, new Map([[variable, value]]), 'near') !== 'inaudible',
  );
}

/** Values other than the wanted one that the press leaves a variable on from a row, and that were not tried yet. */
function othersAfter(
  { exploration, press, target }: Case,
  variable: VariableId,
  space: StateSpace,
  from: Reached,
  tried: Set<number>,
): readonly number[] {
  const wanted = target.wants(variable);
  const value = exploration.valueAfter(space, press, from, variable);
  const values =
    value === undefined
      ? exploration.postRows(space, press, from).map((row) => row[space.stepper.place[variable]])
      : [value];
  return values.filter((other) => {
    if (other === wanted || tried.has(other)) return false;
    tried.add(other);
    return true;
  });
}

/**
 * A variable with what decides whether it is heard: the switches and the loop of its device, the switches in its loop.
 */
function groupOf({ base, target, after }: Case, variable: VariableId): readonly number[] {
  const related = base.threeValued
    .relatedControls(variable)
    .filter((other) => !target.cues.has(other) && after.left(other) < 0);
  return [...new Set([variable, ...related])];
}

/** Where the line may fall silent: the controls that may cut it, as one group. */
function silence({ base, cache, slot, target, after, exploration }: Case): (readonly number[])[] {
  if (target.sound.silence || (target.cues.size === 0 && soundsAfter(base, cache, slot, exploration))) return [];
  const now: Possible = (variable) => {
    const cue = target.cues.get(variable);
    return cue === undefined ? after.all(variable) : [cue];
  };
  return base.threeValued.surelySounds(now) ? [] : [base.threeValued.mayCut(target, now)];
}
