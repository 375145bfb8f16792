import { costOf } from './judge-plan.ts';
import { compareCosts, type Plan } from './plan.ts';
import { type CompiledProblem, loopAtZone, out } from './problem.ts';

/**
 * The same plan with loops in the wanted order of their pieces as far as that costs nothing: where no sound hears two
 * loops together any order is as good, and people find things where they are wanted.
 */
export function tidied(compiled: CompiledProblem, plan: Plan): Plan {
  const cost = costOf(compiled, plan);
  if (!cost) return plan;
  let here = plan;
  for (let swapped = true; swapped;) {
    swapped = false;
    for (let zone = 1; zone + 1 < compiled.lastZone; zone += 1) {
      const next = exchanged(compiled, here, zone);
      if (!next || turned(next) >= turned(here)) continue;
      const now = costOf(compiled, next);
      if (!now || compareCosts(now, cost) !== 0) continue;
      here = next;
      swapped = true;
    }
  }
  return here;
}

/** The plan with what stands in a loop and in the next one exchanged; null where one of them is held. */
function exchanged(compiled: CompiledProblem, plan: Plan, zone: number): Plan | null {
  const { pinnedZone, takenZones } = compiled;
  if (takenZones.has(zone) || takenZones.has(zone + 1)) return null;
  if (loopAtZone(compiled, zone) === undefined || loopAtZone(compiled, zone + 1) === undefined) return null;
  if (plan.zones.some((at, p) => (at === zone || at === zone + 1) && pinnedZone[p] >= 0)) return null;
  return { ...plan, zones: plan.zones.map((at) => (at === zone ? zone + 1 : at === zone + 1 ? zone : at)) };
}

/** How many pairs of pieces stand the other way round than they are wanted. */
function turned({ zones }: Plan): number {
  let count = 0;
  for (let p = 0; p < zones.length; p += 1)
    for (let q = p + 1; q < zones.length; q += 1)
      if (zones[p] !== out && zones[q] !== out && zones[q] < zones[p]) count += 1;
  return count;
}
