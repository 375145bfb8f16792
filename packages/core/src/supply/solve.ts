import { judgeSupply, type SupplyCost, type SupplyPlan } from './judge.ts';
import type { CompiledSupply } from './problem.ts';
import { type CostedSupply, SupplySearch } from './search.ts';

/** How far the search has come. */
export interface SupplyProgress {
  /** The best plan so far; null where what is held allows none, or none was met yet. */
  readonly best: SupplyPlan | null;
  readonly cost: SupplyCost | null;
  /** How many of the numbers of the cost are proved to be the least, from the first. */
  readonly proved: number;
  /** What the first number that is not proved is at least; null where all are. */
  readonly atLeast: number | null;
  /** Plans looked into. */
  readonly nodes: number;
}

const sliceNodes = 200;
/** What is proved in one go: a number alone, or several that are found together sooner than one by one. */
const goes = [0, 1, 6] as const;

/**
 * The best plan, number by number: each `next` goes on for a few milliseconds and says how far it has come; who asks
 * may stop at any time, and keeps what is proved by then.
 */
export function* solveSupply(problem: CompiledSupply): Generator<SupplyProgress, SupplyProgress> {
  let best = nothingFed(problem);
  let nodes = 0;
  const search = new SupplySearch(problem, best);
  let proved = 0;
  for (const level of goes) {
    const atLeast = search.rootBound(level)[proved];
    const before = proved;
    const told = (): SupplyProgress => ({
      best: search.best?.plan ?? null,
      cost: search.best?.cost ?? null,
      proved: before,
      atLeast,
      nodes: nodes + search.nodes,
    });
    for (search.begin(level); !search.run(sliceNodes);) yield told();
    nodes += search.nodes;
    best = search.best;
    proved = level + 1;
  }
  return { best: best?.plan ?? null, cost: best?.cost ?? null, proved, atLeast: null, nodes };
}

/** All of it at once. */
export function solveSupplyNow(problem: CompiledSupply): SupplyProgress {
  const steps = solveSupply(problem);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** The plan that powers only what is held; null where even that is not allowed. */
function nothingFed(problem: CompiledSupply): CostedSupply | null {
  if (problem.held.some((seat) => typeof seat === 'number')) return null;
  const plan: SupplyPlan = {
    seats: problem.held.map((seat) => seat ?? 'unpowered'),
    choices: problem.feeds.map(() => 0),
  };
  const cost = judgeSupply(problem, plan);
  return cost && { plan, cost };
}

/** The loads of a conflict, by place; `isSmallest`: proved that no smaller set conflicts. */
export interface SupplyConflict {
  readonly loads: readonly number[];
  readonly isSmallest: boolean;
}

/**
 * The smallest set of loads that cannot all be powered, battery counted as power; null where all can. Told on the way:
 * the best so far. A set that misses none of the complements of sets that can be powered is the smallest once it
 * cannot be (minimum hitting sets against maximal feasible sets).
 */
export function* supplyConflict(problem: CompiledSupply): Generator<SupplyConflict | null, SupplyConflict | null> {
  const every = problem.loads.map((_, l) => l);
  const known = new Map<string, boolean>();
  function* canPower(some: readonly number[]): Generator<null, boolean> {
    const key = some.join(' ');
    const before = known.get(key);
    if (before !== undefined) return before;
    const search = new SupplySearch(only(problem, some));
    search.begin(0, [1, 0, 0, 0, 0, 0, 0]);
    while (!search.run(sliceNodes)) {
      if (search.best?.cost.unpowered === 0) break;
      yield null;
    }
    const can = search.best?.cost.unpowered === 0;
    known.set(key, can);
    return can;
  }
  if (yield* canPower(every)) return null;
  // One load after the other is taken out where the rest still conflicts.
  let least = every;
  for (const load of every) {
    const without = least.filter((l) => l !== load);
    if (!(yield* canPower(without))) least = without;
    yield { loads: least, isSmallest: false };
  }
  const toHit: (readonly number[])[] = [];
  for (;;) {
    const hitting = smallestHitting(toHit, least.length);
    if (hitting === 'too many') return { loads: least, isSmallest: false };
    // None smaller hits all: what was found is the smallest.
    if (!hitting) return { loads: least, isSmallest: true };
    if (!(yield* canPower(hitting))) return { loads: hitting, isSmallest: true };
    let fed = hitting;
    for (const load of every) {
      if (fed.includes(load)) continue;
      const more = [...fed, load].sort((a, b) => a - b);
      if (yield* canPower(more)) fed = more;
    }
    toHit.push(every.filter((l) => !fed.includes(l)));
    yield { loads: least, isSmallest: false };
  }
}

export function supplyConflictNow(problem: CompiledSupply): SupplyConflict | null {
  const steps = supplyConflict(problem);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** The problem with some of its loads alone. */
const only = (problem: CompiledSupply, some: readonly number[]): CompiledSupply => ({
  ...problem,
  loads: some.map((l) => problem.loads[l]),
  held: some.map((l) => problem.held[l]),
});

/** Sets looked at for the smallest that hits all; past that the best so far is all that is said. */
const mostHittings = 200_000;

/** The smallest set, of fewer than so many, that has one of each set; null where there is none. */
function smallestHitting(
  sets: readonly (readonly number[])[],
  fewerThan: number,
): readonly number[] | 'too many' | null {
  let left = mostHittings;
  const hit = (size: number, chosen: readonly number[]): readonly number[] | null => {
    left -= 1;
    if (left < 0) return null;
    const missed = sets.filter((set) => !set.some((one) => chosen.includes(one)));
    if (missed.length === 0) return chosen;
    if (size === 0) return null;
    const smallest = missed.reduce((least, set) => (set.length < least.length ? set : least));
    for (const one of smallest) {
      const found = hit(size - 1, [...chosen, one]);
      if (found) return found;
    }
    return null;
  };
  for (let size = 0; size < fewerThan; size += 1) {
    const found = hit(size, []);
    if (found) return [...found].sort((a, b) => a - b);
    if (left < 0) return 'too many';
  }
  return null;
}

/** The fewest loads without power that some plan leaves; what was found after so many slices where it is not proved. */
export function* fewestUnpowered(problem: CompiledSupply, slices: number): Generator<null, number> {
  const search = new SupplySearch(problem, nothingFed(problem));
  search.begin(0);
  for (let slice = 0; slice < slices && !search.run(sliceNodes); slice += 1) yield null;
  return search.best?.cost.unpowered ?? problem.loads.length;
}
