import { randomFrom } from '../units/random.ts';
import { type Costed, improve, nothingPlaced } from './improve.ts';
import { judgePlan } from './judge-plan.ts';
import type { Plan, PlanCost } from './plan.ts';
import { type AllocationProblem, type CompiledProblem, compileProblem } from './problem.ts';
import { tidied } from './tidy.ts';
import { AllocationSearch, type Target, type Weights } from './search.ts';

/** How far the search has come. */
export interface AllocationProgress {
  /** The best plan so far; null where none is allowed, or none was met yet. */
  readonly best: Plan | null;
  readonly cost: PlanCost | null;
  /** No plan loses fewer sounds than this. */
  readonly lostAtLeast: number;
  /** Plans looked into. */
  readonly nodes: number;
}

export interface Allocation extends AllocationProgress {
  /** Whether no plan is better; else what was best when it was stopped, or when the problem is too large to search. */
  readonly isOptimal: boolean;
}

/** Above these a plan is made piece by piece and improved, and nothing is proved about it. */
const mostSearched = 64;
const sliceNodes = 400;
const divedNodes = 200;

/**
 * The best plan, found in slices: each `next` goes on for a few milliseconds and says how far it has come; who asks may
 * stop at any time. `seed` decides which of several equal plans is met, and nothing else.
 */
export function* allocate(compiled: CompiledProblem, seed = 1): Generator<AllocationProgress, Allocation> {
  let best: Costed | null = nothingPlaced(compiled);
  const told = (lostAtLeast: number, nodes: number): AllocationProgress => ({
    best: best?.plan ?? null,
    cost: best?.cost ?? null,
    lostAtLeast,
    nodes,
  });
  const ended = (lostAtLeast: number, nodes: number, isOptimal: boolean): Allocation => ({
    ...told(lostAtLeast, nodes),
    best: best && tidied(compiled, best.plan),
    isOptimal,
  });
  // What stands in line for good, or is held, contradicts the frozen order.
  if (!best) return ended(0, 0, true);
  const weights = compiled.pieces > mostSearched ? null : weightsOf(compiled);
  if (weights) best = dive(compiled, weights) ?? best;
  const improving = improve(compiled, best, weights ? 2 + compiled.pieces : 0, randomFrom(seed));
  for (let step = improving.next(); ; step = improving.next()) {
    best = step.value;
    if (step.done) break;
    yield told(0, 0);
  }
  if (!weights) return ended(0, 0, false);
  let nodes = 0;
  for (let cap = 0; cap <= best.cost.soundsLost; cap += 1) {
    const limit: Target = { lost: best.cost.soundsLost, rest: weighed(best.cost, weights) };
    const search = new AllocationSearch(compiled, weights, cap, limit, cap);
    for (let met: unknown = null; ;) {
      const isDone = search.run(sliceNodes);
      if (search.best && search.best !== met) {
        met = search.best;
        const { plan } = search.best;
        best = { plan, cost: judgePlan(compiled, plan)!.cost };
      }
      if (isDone) break;
      yield told(cap, nodes + search.nodes);
    }
    nodes += search.nodes;
    if (best.cost.soundsLost <= cap) return ended(cap, nodes, true);
    yield told(cap + 1, nodes);
  }
  return ended(best.cost.soundsLost, nodes, true);
}

/** The first plans that the search comes to, with nothing to beat: sounds count as lost by what is placed alone. */
function dive(compiled: CompiledProblem, weights: Weights): Costed | null {
  const search = new AllocationSearch(compiled, weights, compiled.sounds, { lost: Infinity, rest: Infinity });
  search.run(divedNodes);
  return search.best && { plan: search.best.plan, cost: judgePlan(compiled, search.best.plan)!.cost };
}

/** All of it at once. */
export const allocateNow = (compiled: CompiledProblem, seed?: number): Allocation => atOnce(allocate(compiled, seed));
export const fewestLoopsNow = (problem: AllocationProblem): number | null => atOnce(fewestLoops(problem));

function atOnce<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/**
 * The fewest loops of a plan that plays every sound with every piece, hears nothing that is wanted off and needs no
 * foot, were there as many loops as one likes: behind the insert where there is one, everywhere else. Null where no
 * number of loops is enough.
 */
export function* fewestLoops(problem: AllocationProblem): Generator<null, number | null> {
  const { pieces, insertAfter } = problem;
  const loops = (insertAfter ?? 0) + pieces.length;
  const compiled = compileProblem({ ...problem, taken: [], loops });
  if (!compiled.ok || pieces.length > mostSearched) return null;
  // A loop more is dearer than anything but what may not be at all.
  const never = 1_000;
  const weights: Weights = {
    leftOut: never,
    heardThoughOff: never,
    footAction: 0,
    byFoot: never,
    shared: 0,
    byMessage: 0,
    placed: 0,
    loop: 1,
    insert: 0,
  };
  const withoutFoot: CompiledProblem = {
    ...compiled.value,
    means: compiled.value.means.map((means) => new Set([...means].filter((each) => each !== 'foot'))),
  };
  const search = new AllocationSearch(withoutFoot, weights, 0, { lost: 0, rest: never });
  while (!search.run(sliceNodes)) yield null;
  return search.best ? judgePlan(withoutFoot, search.best.plan)!.loopsUsed : null;
}

/** Each number of the cost so heavy that no others behind it weigh as much; null where they cannot be told apart. */
function weightsOf({ pieces, loops, set }: CompiledProblem): Weights | null {
  const cable = 1;
  const byMessage = (pieces + loops + 4) * cable;
  const shared = (pieces + 1) * byMessage;
  const byFoot = (pieces + 1) * shared;
  const footAction = (pieces + 1) * byFoot;
  const heardThoughOff = (pieces * set.length + 1) * footAction;
  const leftOut = (pieces + 1) * heardThoughOff;
  if (leftOut * (pieces + 1) > Number.MAX_SAFE_INTEGER) return null;
  return { leftOut, heardThoughOff, footAction, byFoot, shared, byMessage, placed: cable, loop: cable, insert: cable };
}

/** What a cost weighs beside its lost sounds; two cables are there in any plan. */
const weighed = (cost: PlanCost, weights: Weights): number =>
  cost.leftOut * weights.leftOut +
  cost.heardThoughOff * weights.heardThoughOff +
  cost.footActions * weights.footAction +
  cost.byFoot * weights.byFoot +
  cost.shared * weights.shared +
  cost.byMessage * weights.byMessage +
  (cost.cables - 2) * weights.placed;
