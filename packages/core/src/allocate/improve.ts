import { costOf } from './judge-plan.ts';
import { compareCosts, emptyPlan, type Plan, type PlanCost, type SwitchedBy } from './plan.ts';
import { anyLoop, type CompiledProblem, free, loopAtZone, mayStandAt, out } from './problem.ts';

export interface Costed {
  readonly plan: Plan;
  readonly cost: PlanCost;
}

/**
 * A better plan, found by moving pieces to where they cost less as long as that helps; then again from where a few were
 * shaken loose, as often as is asked for. Yields now and then, so that it can be stopped; what it has by then is passed
 * along.
 */
export function* improve(
  compiled: CompiledProblem,
  start: Costed,
  rounds: number,
  random: () => number,
): Generator<Costed, Costed> {
  let best: Costed = start;
  const movable = Array.from({ length: compiled.pieces }, (_, p) => p).filter((p) => compiled.fixedZone[p] < 0);
  let work = 0;
  const tick = 20_000 / Math.max(1, compiled.pieces * compiled.pieces * compiled.words);
  for (let round = 0; round <= rounds; round += 1) {
    let here: Costed = round === 0 ? start : best;
    if (round > 0) {
      const plan = { zones: [...best.plan.zones], by: [...best.plan.by] };
      const loose = 2 + Math.floor(random() * Math.max(1, movable.length / 3));
      for (let i = 0; i < loose; i += 1) {
        const piece = movable[Math.floor(random() * movable.length)];
        if (mayStandAt(compiled, compiled.pinnedZone[piece], out)) plan.zones[piece] = out;
      }
      here = costed(compiled, plan) ?? start;
    }
    for (let moved = true; moved;) {
      moved = false;
      for (const piece of round === 0 ? movable : shuffled(movable, random)) {
        for (const plan of placesOf(compiled, here.plan, piece)) {
          const cost = costOf(compiled, plan);
          if ((work += 1) % Math.ceil(tick) === 0) yield best;
          if (cost && compareCosts(cost, here.cost) < 0) {
            here = { plan, cost };
            moved = true;
          }
        }
        if (compareCosts(here.cost, best.cost) < 0) best = here;
      }
    }
  }
  return best;
}

/** The plan that places nothing but what it must; null where the frozen order allows no plan at all. */
export const nothingPlaced = (compiled: CompiledProblem): Costed | null => costed(compiled, emptyPlan(compiled));

const costed = (compiled: CompiledProblem, plan: Plan): Costed | null => {
  const cost = costOf(compiled, plan);
  return cost && { plan, cost };
};

function shuffled(list: readonly number[], random: () => number): readonly number[] {
  const mixed = [...list];
  for (let i = mixed.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [mixed[i], mixed[j]] = [mixed[j], mixed[i]];
  }
  return mixed;
}

/** Every plan that differs in one piece alone: another place, a loop of its own between two others, left out. */
export function* placesOf(compiled: CompiledProblem, { zones, by }: Plan, piece: number): Generator<Plan> {
  const { means, pinnedZone, insertZone, lastZone } = compiled;
  const may = means[piece];
  const pin = pinnedZone[piece];
  const others = zones.map((zone, p) => (p === piece ? out : zone));
  const used = new Set(others);
  const plan = (places: readonly number[], zone: number, how: SwitchedBy): Plan => ({
    zones: places.map((other, p) => (p === piece ? zone : other)),
    by: by.map((other, p) => (p === piece ? how : other)),
  });
  const isOpen = (zone: number): boolean => mayStandAt(compiled, pin, zone);
  if (isOpen(out)) yield plan(others, out, 'always');
  for (let zone = 0; zone <= lastZone; zone += 1) {
    const isLoop = loopAtZone(compiled, zone) !== undefined;
    if (!isOpen(zone) || (isLoop && !may.has('loop'))) continue;
    if (isLoop) yield plan(others, zone, 'loop');
    else if (may.has('always')) yield plan(others, zone, 'always');
    if (may.has('message')) yield plan(others, zone, 'message');
    if (may.has('foot')) yield plan(others, zone, 'foot');
  }
  if (!may.has('loop') || (pin !== free && pin !== anyLoop)) return;
  // A loop between two that are taken: those on one side move on by one, to the next that is free.
  for (let zone = 1; zone < lastZone; zone += 1) {
    if (zone === insertZone || !used.has(zone)) continue;
    for (const step of [1, -1]) {
      const places = shifted(compiled, others, zone, step);
      if (places) yield plan(places, zone, 'loop');
    }
  }
}

/** What stands in the loops from a zone on, one loop further on each, up to the first that is free. */
function shifted(
  compiled: CompiledProblem,
  zones: readonly number[],
  from: number,
  step: number,
): readonly number[] | null {
  const { pinnedZone, insertZone, takenZones } = compiled;
  const used = new Set(zones);
  let end = from;
  while (used.has(end)) {
    end += step;
    if (loopAtZone(compiled, end) === undefined || end === insertZone || takenZones.has(end)) return null;
  }
  const moves = (zone: number): boolean => (step > 0 ? zone >= from && zone < end : zone <= from && zone > end);
  if (zones.some((zone, p) => moves(zone) && pinnedZone[p] >= 0)) return null;
  return zones.map((zone) => (zone !== out && moves(zone) ? zone + step : zone));
}
