import { expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { assignBins, binningCost, type BinProblem, everyBinning } from './assign.ts';
import { assignPlaces, placesCost } from './places.ts';

function randomBins(r: Random): BinProblem {
  const sizes = Array.from({ length: 2 + r.below(5) }, () => 1 + r.below(9));
  const bins = Array.from({ length: 1 + r.below(4) }, () => ({
    holds: 5 + r.below(15),
    openCost: 1 + r.below(9),
    ...(r.chance(0.3) ? { mostItems: 1 + r.below(3) } : {}),
  }));
  const may = sizes.map(() => bins.map(() => r.chance(0.8)));
  const costs = sizes.map(() => bins.map(() => r.below(4)));
  return { sizes, bins, mayGo: (i, b) => may[i][b], itemCost: (i, b) => costs[i][b] };
}

test('things in bins: the least of every way; none where there is none', () => {
  let none = 0;
  for (let seed = 1; seed <= 300; seed += 1) {
    const problem = randomBins(new Random(seed));
    const costs = [...everyBinning(problem)].map((at) => binningCost(problem, at));
    const { best, cost, isProved, atLeast } = assignBins(problem);
    if (costs.length === 0) none += 1;
    expect({ seed, cost, isProved }).toEqual({
      seed,
      cost: costs.length > 0 ? Math.min(...costs) : Infinity,
      isProved: true,
    });
    if (best) expect(binningCost(problem, best)).toBe(cost);
    if (best) expect(atLeast).toBe(cost);
  }
  expect(none).toBeGreaterThan(10);
});

test('ended early, the bound is no more than the best', () => {
  const r = new Random(4);
  const sizes = Array.from({ length: 30 }, () => 20 + r.below(60));
  const { best, cost, atLeast } = assignBins({ sizes, bins: sizes.map(() => ({ holds: 100 })) }, 2_000);
  expect(best).not.toBeNull();
  expect(atLeast).toBeLessThanOrEqual(cost);
  expect(atLeast).toBeGreaterThan(sizes.reduce((sum, size) => sum + size, 0) / 100 - 1);
});

test('items at places: no permutation is cheaper, and all that cost so little are told', () => {
  for (let seed = 1; seed <= 20; seed += 1) {
    const r = new Random(seed);
    const matrix = () => Array.from({ length: 5 }, () => Array.from({ length: 5 }, () => r.below(9)));
    const problem = { flow: matrix(), distance: matrix(), alone: matrix() };
    const { cost, permutations, worst } = assignPlaces(problem);
    for (let i = 0; i < 30; i += 1) {
      const p = [0, 1, 2, 3, 4].sort(() => r.next() - 0.5);
      const price = placesCost(problem, p);
      expect(price).toBeGreaterThanOrEqual(cost);
      expect(price).toBeLessThanOrEqual(worst);
      if (price === cost) expect(permutations).toContainEqual(p);
    }
  }
});
