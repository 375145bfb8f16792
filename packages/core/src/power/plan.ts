import type { Rig } from '../model/rig.ts';
import type { Problem } from '../units/problem.ts';
import { type CompiledSupply, compileSupply } from '../supply/problem.ts';
import { solveSupply, supplyConflict, type SupplyProgress } from '../supply/solve.ts';
import { powerCures, type TriedCure } from './cures.ts';
import { nearToday } from '../supply/tidy.ts';
import { seatsOfToday, supplyProblemOf } from './problem-of.ts';

/** How far the planning has come: the outputs, then what conflicts, then what would cure it. */
export interface PowerProgress {
  readonly step: 'outputs' | 'conflict' | 'cures';
  readonly found: SupplyProgress;
}

export interface PowerPlan {
  readonly problem: CompiledSupply;
  readonly found: SupplyProgress;
  /** Devices of which not all can have power, where not all can. */
  readonly conflict: { readonly devices: readonly string[]; readonly isSmallest: boolean } | null;
  readonly cures: readonly TriedCure[];
}

export type PowerAnswer =
  | { readonly is: 'planned'; readonly plan: PowerPlan }
  | { readonly is: 'refused'; readonly problems: readonly Problem[] };

/**
 * The best plan of a rig's power, in slices. Where it leaves something without power: the smallest set of loads that
 * conflicts, and each cure that helps, tried. `isTimeUp`: asked between slices whether a step
 * has had its time; it ends with the best so far and what is proved.
 */
export function* planPower(
  rig: Rig,
  isTimeUp: (step: PowerProgress['step']) => boolean = () => false,
): Generator<PowerProgress, PowerAnswer> {
  const source = supplyProblemOf(rig);
  const compiled = compileSupply(source);
  if (!compiled.ok) return { is: 'refused', problems: compiled.problems };
  const problem = compiled.value;
  const solving = solveSupply(problem);
  let found: SupplyProgress;
  for (;;) {
    const step = solving.next();
    found = step.value;
    if (step.done || isTimeUp('outputs')) break;
    yield { step: 'outputs', found };
  }
  if (found.best) found = { ...found, best: nearToday(problem, found.best, seatsOfToday(rig, problem)) };
  const unpowered = found.cost?.unpowered ?? problem.loads.length;
  if (unpowered === 0) return { is: 'planned', plan: { problem, found, conflict: null, cures: [] } };
  const conflicting = supplyConflict(problem);
  let conflict: PowerPlan['conflict'] = null;
  for (;;) {
    const step = conflicting.next();
    if (step.value !== null)
      conflict = { devices: step.value.loads.map((l) => problem.loads[l].name), isSmallest: step.value.isSmallest };
    if (step.done || isTimeUp('conflict')) break;
    yield { step: 'conflict', found };
  }
  const curing = powerCures(source, conflict?.devices ?? [], unpowered);
  for (;;) {
    const step = curing.next();
    if (step.done) return { is: 'planned', plan: { problem, found, conflict, cures: step.value } };
    if (isTimeUp('cures')) return { is: 'planned', plan: { problem, found, conflict, cures: [] } };
    yield { step: 'cures', found };
  }
}

/** All of it at once. */
export function planPowerNow(rig: Rig): PowerAnswer {
  const steps = planPower(rig);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}
