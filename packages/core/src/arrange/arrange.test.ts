import { expect, test } from '@jest/globals';
import { boardArrangement, smallArrangement } from '../testing/random-arrangement.ts';
import { Random } from '../testing/random.ts';
import { arrange, arrangeNow, greedyArrangement } from './arrange.ts';
import {
  type ArrangeProblem,
  type Arrangement,
  cannotFit,
  checkArrange,
  costOfArrangement,
  judgeArrangement,
  type Spot,
  totalOf,
} from './problem.ts';

/** The least of every arrangement on the grid. */
function leastOfAll(problem: ArrangeProblem): number | null {
  const { board, pieces } = problem;
  let least: number | null = null;
  const spots: Spot[] = [];
  const dig = (i: number): void => {
    if (i === pieces.length) {
      const cost = judgeArrangement(problem, spots);
      if (cost && (least === null || totalOf(cost) < least)) least = totalOf(cost);
      return;
    }
    const { held } = pieces[i];
    for (let x = 0; x <= board.width; x += board.step)
      for (let y = 0; y <= board.depth; y += board.step) {
        if (held && (held.x !== x || held.y !== y)) continue;
        spots[i] = { x, y };
        dig(i + 1);
      }
  };
  dig(0);
  return least;
}

test('never beaten by every position of small boards, and the least of them is found', () => {
  let fitting = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const problem = smallArrangement(new Random(seed));
    if (problem.pieces.length === 4 && seed % 5 !== 0) continue;
    const least = leastOfAll(problem);
    const { best, cost, isProved } = arrangeNow(problem);
    expect({ seed, isProved, least: cost && Math.round(totalOf(cost) * 1e6) }).toEqual({
      seed,
      isProved: true,
      least: least === null ? null : Math.round(least * 1e6),
    });
    if (best) expect(judgeArrangement(problem, best)).toEqual(cost);
    if (least !== null) fitting += 1;
  }
  expect(fitting).toBeGreaterThan(20);
}, 60_000);

test('never worse than each piece in turn where it costs least; held pieces stay', () => {
  for (let seed = 1; seed <= 3; seed += 1) {
    const source = boardArrangement(new Random(seed), 12);
    const held = { x: 40, y: 200 };
    const problem = { ...source, pieces: source.pieces.map((piece, i) => (i === 3 ? { ...piece, held } : piece)) };
    const greedy = greedyArrangement(problem);
    const { best, cost } = arrangeNow(problem, seed, 20);
    expect(judgeArrangement(problem, best!)).toEqual(cost);
    expect(best![3]).toEqual(held);
    if (greedy) expect(totalOf(cost!)).toBeLessThanOrEqual(totalOf(costOfArrangement(problem, greedy)) + 1e-6);
  }
}, 60_000);

test('the same seed finds the same; more time finds nothing worse', () => {
  const problem = boardArrangement(new Random(3), 10);
  const short = arrangeNow(problem, 7, 10);
  expect(arrangeNow(problem, 7, 10)).toEqual(short);
  expect(totalOf(arrangeNow(problem, 7, 40).cost!)).toBeLessThanOrEqual(totalOf(short.cost!));
});

test('stopped at any time, what is told is an arrangement', () => {
  const problem = boardArrangement(new Random(5), 14);
  const steps = arrange(problem, 1, 1_000);
  const told = steps.next();
  expect(told.done).toBe(false);
  if (told.value.best) expect(judgeArrangement(problem, told.value.best)).toEqual(told.value.cost);
});

const board = { width: 300, depth: 200, step: 5, tiers: [] };
const piece = (width: number, depth: number, height = 50) => ({
  name: `${width} by ${depth}`,
  width,
  depth,
  height,
  clear: { left: 0, right: 0, front: 0, back: 0 },
  touches: 0,
});
const of = (...pieces: readonly ReturnType<typeof piece>[]): ArrangeProblem => ({ board, pieces, links: [] });

test.each([
  ['too wide', of(piece(301, 50)), { by: 'width', piece: 0 }],
  ['too deep', of(piece(50, 201)), { by: 'depth', piece: 0 }],
  ['too much area', of(piece(200, 90), piece(200, 90), piece(200, 90), piece(100, 90)), { by: 'area' }],
  [
    'side by side only, and too wide so',
    of(piece(120, 110), piece(120, 110), piece(120, 101)),
    { by: 'rows', pieces: [0, 1, 2] },
  ],
  [
    'one behind the other only, and too deep so',
    of(piece(160, 80), piece(160, 80), piece(160, 80)),
    { by: 'columns', pieces: [0, 1, 2] },
  ],
  [
    'too tall',
    { ...of(piece(50, 50, 90)), board: { ...board, tiers: [{ from: 0, to: 200, height: 80 }] } },
    { by: 'height', piece: 0 },
  ],
] as const)('cannot fit, proved: %s', (_, problem, why) => {
  expect(cannotFit(problem)).toEqual(why);
  expect(arrangeNow(problem)).toMatchObject({ best: null, isProved: true, cannot: why });
});

test('what is not proved impossible and not found is told apart', () => {
  // Four pieces whose area would do, but that do not go together.
  const problem = of(piece(190, 90), piece(190, 90), piece(105, 195), piece(20, 195), piece(20, 20));
  expect(cannotFit(problem)).toBeUndefined();
  expect(arrangeNow(problem, 1, 5)).toMatchObject({ best: null, isProved: false, cannot: undefined });
});

test.each([
  ['a board of a kilometre', { ...of(), board: { ...board, width: 1e9 } }],
  ['a board of nothing', { ...of(), board: { ...board, depth: 0 } }],
  ['not a number', { ...of(), board: { ...board, width: Number.NaN } }],
  ['a piece of a negative size', of(piece(-1, 20))],
])('refused: %s', (_, problem: ArrangeProblem) => {
  expect(checkArrange(problem).ok).toBe(false);
});

test('an arrangement that overlaps, overhangs or moves what is held is none', () => {
  const two = of(piece(100, 100), piece(100, 100));
  const at = (...spots: readonly Spot[]): Arrangement => spots;
  expect(judgeArrangement(two, at({ x: 0, y: 0 }, { x: 100, y: 0 }))).toEqual({ walk: 0, cable: 0 });
  expect(judgeArrangement(two, at({ x: 0, y: 0 }, { x: 99, y: 0 }))).toBeNull();
  expect(judgeArrangement(two, at({ x: 0, y: 0 }, { x: 205, y: 0 }))).toBeNull();
  const held = { ...two, pieces: [{ ...two.pieces[0], held: { x: 5, y: 0 } }, two.pieces[1]] };
  expect(judgeArrangement(held, at({ x: 0, y: 0 }, { x: 150, y: 0 }))).toBeNull();
});
