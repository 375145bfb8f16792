import { judgeSupply, type Seat, type SupplyPlan, supplyVector } from './judge.ts';
import type { CompiledSupply } from './problem.ts';
import { compareVectors } from './search.ts';

/** Above so many loads a plan is not brought nearer to what is there. */
const mostLoads = 60;

/**
 * Of plans that cost the same one that moves less: what two feeds bear is swapped, or goes to a free one, as long as
 * more loads come to be where they are today. `today`: by load; undefined where it is nowhere.
 */
export function nearToday(problem: CompiledSupply, plan: SupplyPlan, today: readonly (Seat | undefined)[]): SupplyPlan {
  if (problem.loads.length > mostLoads) return plan;
  const cost = judgeSupply(problem, plan);
  if (!cost) return plan;
  const staying = ({ seats }: SupplyPlan): number => seats.filter((seat, l) => seat === today[l]).length;
  let best = plan;
  for (let isBetter = true; isBetter;) {
    isBetter = false;
    for (const [l, wanted] of today.entries()) {
      const seat = best.seats[l];
      if (typeof wanted !== 'number' || seat === wanted) continue;
      for (const seats of [swapped(best.seats, seat, wanted), moved(best.seats, l, wanted)]) {
        const next = settled(problem, { seats, choices: best.choices }, [seat, wanted]);
        const price = next && judgeSupply(problem, next);
        if (!next || !price || compareVectors(supplyVector(price), supplyVector(cost)) !== 0) continue;
        if (staying(next) <= staying(best)) continue;
        best = next;
        isBetter = true;
        break;
      }
    }
  }
  return best;
}

const swapped = (seats: readonly Seat[], a: Seat, b: Seat): readonly Seat[] =>
  typeof a === 'number' ? seats.map((seat) => (seat === a ? b : seat === b ? a : seat)) : seats;
const moved = (seats: readonly Seat[], load: number, to: Seat): readonly Seat[] =>
  seats.map((seat, l) => (l === load ? to : seat));

/** With those feeds set so that the plan costs least; null where no setting is allowed. */
function settled(problem: CompiledSupply, plan: SupplyPlan, feeds: readonly Seat[]): SupplyPlan | null {
  let plans: readonly SupplyPlan[] = [plan];
  for (const f of feeds) {
    if (typeof f !== 'number' || !plan.seats.includes(f)) continue;
    plans = plans.flatMap(({ seats, choices }) =>
      problem.feeds[f].choices.map((_, c) => ({ seats, choices: choices.map((choice, i) => (i === f ? c : choice)) })),
    );
  }
  let best: { readonly plan: SupplyPlan; readonly vector: readonly number[] } | null = null;
  for (const each of plans) {
    const cost = judgeSupply(problem, each);
    const vector = cost && supplyVector(cost);
    if (vector && (!best || compareVectors(vector, best.vector) < 0)) best = { plan: each, vector };
  }
  return best?.plan ?? null;
}
