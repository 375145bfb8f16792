import { type CompiledProblem, loopAtZone, out } from './problem.ts';

/** How a piece is switched in a plan; `fixed`: it stands in line for good and nothing switches it. */
export type SwitchedBy = 'loop' | 'message' | 'foot' | 'always' | 'fixed';

/** A place for each piece of a problem: its zone along the line, and what switches it there. */
export interface Plan {
  readonly zones: readonly number[];
  readonly by: readonly SwitchedBy[];
}

/** What plans are compared by, each number deciding only between plans that are equal in all before it. */
export const costNames = [
  'soundsLost',
  'leftOut',
  'heardThoughOff',
  'footActions',
  'byFoot',
  'shared',
  'byMessage',
  'cables',
] as const;
export type CostName = (typeof costNames)[number];
export type PlanCost = Readonly<Record<CostName, number>>;

export const costVector = (cost: PlanCost): readonly number[] => costNames.map((name) => cost[name]);

/** Below 0 where the first is the better one. */
export function compareCosts(a: PlanCost, b: PlanCost): number {
  for (const name of costNames) if (a[name] !== b[name]) return a[name] - b[name];
  return 0;
}

/** Everything left out that may be, the rest in its place. */
export function emptyPlan(compiled: CompiledProblem): Plan {
  const { pieces, fixedZone, pinnedZone, means } = compiled;
  const zones: number[] = [];
  const by: SwitchedBy[] = [];
  for (let p = 0; p < pieces; p += 1) {
    const zone = fixedZone[p] >= 0 ? fixedZone[p] : Math.max(out, pinnedZone[p]);
    zones.push(zone);
    by.push(
      fixedZone[p] >= 0
        ? 'fixed'
        : loopAtZone(compiled, zone) !== undefined
          ? 'loop'
          : ((['message', 'foot'] as const).find((each) => means[p].has(each)) ?? 'always'),
    );
  }
  return { zones, by };
}
