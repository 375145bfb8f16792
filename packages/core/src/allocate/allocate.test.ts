import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, test } from '@jest/globals';
import { integerProgram, largest } from '../testing/allocation-program.ts';
import { tidied } from './tidy.ts';
import { randomAllocation, smallAllocation } from '../testing/random-allocation.ts';
import { Random } from '../testing/random.ts';
import { allocate, allocateNow, fewestLoopsNow } from './allocate.ts';
import { placesOf } from './improve.ts';
import { costOf, isAllowed, judgePlan } from './judge-plan.ts';
import { compareCosts, costNames, costVector, emptyPlan, type Plan, type PlanCost, type SwitchedBy } from './plan.ts';
import { type AllocationProblem, type CompiledProblem, compileProblem, loopAtZone, out } from './problem.ts';
import { allocationOf, type AllocationCase } from '../testing/allocation-cases.ts';

function compiled(problem: AllocationProblem): CompiledProblem {
  const result = compileProblem(problem);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

const { tool, cases } = JSON.parse(
  readFileSync(new URL('../../fixtures/allocation-cases.json', import.meta.url), 'utf8'),
) as { readonly tool: string; readonly cases: readonly AllocationCase[] };

describe(`what outside programs found (${tool})`, () => {
  test.each(cases)('$id', ({ inputs, expected }) => {
    const problem = allocationOf(inputs);
    const { cost, isOptimal } = allocateNow(compiled(problem));
    expect(isOptimal).toBe(true);
    expect(cost ? costVector(cost) : 'none').toEqual(expected.optimum);
    expect(fewestLoopsNow(problem) ?? 'none').toEqual(expected.min_loops);
  });
});

/** Every plan there is, each place and each means tried. */
function* everyPlan(problem: CompiledProblem): Generator<Plan> {
  const { pieces, lastZone } = problem;
  const zones = new Array<number>(pieces).fill(out);
  const by = new Array<SwitchedBy>(pieces).fill('always');
  const all: readonly SwitchedBy[] = ['loop', 'message', 'foot', 'always', 'fixed'];
  function* dig(piece: number): Generator<Plan> {
    if (piece === pieces) {
      yield { zones, by };
      return;
    }
    for (let zone = out; zone <= lastZone; zone += 1)
      for (const how of all) {
        if (!isAllowed(problem, piece, zone, how) || (zone === out && how !== 'always')) continue;
        zones[piece] = zone;
        by[piece] = how;
        yield* dig(piece + 1);
      }
  }
  yield* dig(0);
}

function leastOfAll(problem: CompiledProblem, stands: (plan: Plan) => boolean = () => true): PlanCost | null {
  let best: PlanCost | null = null;
  for (const plan of everyPlan(problem)) {
    const cost = stands(plan) ? costOf(problem, plan) : null;
    if (cost && (!best || compareCosts(cost, best) < 0)) best = cost;
  }
  return best;
}

test('never beaten by trying every plan; the least of all is found', () => {
  let compared = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const r = new Random(seed);
    const pieces = 2 + r.below(3);
    const problem = compiled(smallAllocation(r, pieces, 1 + r.below(pieces === 4 ? 2 : 3), 2 + r.below(4)));
    const best = leastOfAll(problem);
    const found = allocateNow(problem);
    expect({ seed, cost: found.cost }).toEqual({ seed, cost: best });
    expect(found.isOptimal).toBe(true);
    if (best) compared += 1;
  }
  expect(compared).toBeGreaterThan(50);
});

test('seven pieces that only a loop can switch: never beaten by trying every plan', () => {
  for (let seed = 1; seed <= 6; seed += 1) {
    const names = Array.from({ length: 7 }, (_, i) => `p${i + 1}`);
    const r = new Random(seed);
    const sounds = Array.from({ length: 6 }, (_, s) => {
      const on = r.some(names, 0.4);
      return { name: `s${s}`, on, any: [], tolerates: r.some(names, 0.2).filter((name) => !on.includes(name)) };
    });
    const problem = compiled({
      pieces: names.map((name) => ({ name, means: ['loop'], isOnAtPowerUp: false })),
      loops: 3,
      insertAfter: null,
      sounds,
      set: [],
      isFrozen: false,
    });
    expect(allocateNow(problem).cost).toEqual(leastOfAll(problem));
  }
});

interface Solver {
  solve(program: string, options: { readonly output_flag: boolean }): { readonly ObjectiveValue: number };
}

test('equal to an integer program that a general solver solves (HiGHS), on 200 random cases', async () => {
  // Its types say that the module is no function, which it is.
  const solver = await (createRequire(import.meta.url)('highs') as () => Promise<Solver>)();
  let compared = 0;
  for (let seed = 1; compared < 200; seed += 1) {
    const r = new Random(10_000 + seed);
    const problem = compiled(smallAllocation(r, 3 + r.below(3), 1 + r.below(3), 2 + r.below(3)));
    const { cost } = allocateNow(problem);
    if (!cost) continue;
    compared += 1;
    // In four goes, each with what those before it found held fast: one sum of all eight would be beyond its accuracy.
    let fixed: Partial<PlanCost> = {};
    for (const group of [
      ['soundsLost'],
      ['leftOut', 'heardThoughOff'],
      ['footActions', 'byFoot'],
      ['shared', 'byMessage', 'cables'],
    ] as const) {
      const { ObjectiveValue } = solver.solve(integerProgram(problem, group, fixed), { output_flag: false });
      fixed = { ...fixed, ...Object.fromEntries(group.map((name) => [name, cost[name]])) };
      const mine = group.reduce((sum, name) => sum * largest + cost[name], 0);
      expect({ seed, group, least: Math.round(ObjectiveValue) }).toEqual({ seed, group, least: mine });
    }
  }
}, 120_000);

test('never worse than putting each piece in turn where it costs least', () => {
  for (let seed = 1; seed <= 12; seed += 1) {
    const problem = compiled(randomAllocation(new Random(seed), 10, 5, 12));
    let greedy = emptyPlan(problem);
    for (let piece = 0; piece < problem.pieces; piece += 1)
      for (const plan of placesOf(problem, greedy, piece))
        if (compareCosts(costOf(problem, plan)!, costOf(problem, greedy)!) < 0) greedy = plan;
    const { cost, best } = allocateNow(problem);
    expect(compareCosts(cost!, costOf(problem, greedy)!)).toBeLessThanOrEqual(0);
    expect(costOf(problem, best!)).toEqual(cost);
    best!.zones.forEach((zone, piece) => expect(isAllowed(problem, piece, zone, best!.by[piece])).toBe(true));
  }
});

test('loops that no sound hears together stand in the wanted order all the same', () => {
  const problem = compiled({
    pieces: ['a', 'b', 'c', 'd'].map((name) => ({ name, means: ['loop' as const], isOnAtPowerUp: false })),
    loops: 4,
    insertAfter: null,
    sounds: ['a', 'b', 'c', 'd'].map((name) => ({ name, on: [name], any: [], tolerates: [] })),
    set: [],
    isFrozen: false,
  });
  const { best, cost } = allocateNow(problem);
  expect(best!.zones).toEqual([1, 2, 3, 4]);
  const turned: Plan = { zones: [3, 2, 4, 1], by: ['loop', 'loop', 'loop', 'loop'] };
  expect(tidied(problem, turned).zones).toEqual([1, 2, 3, 4]);
  expect(costOf(problem, turned)).toEqual(cost);
  // What is held stays, and so does what a sound hears in this order.
  const held = compiled({
    ...problem.source,
    pieces: problem.source.pieces.map((piece) => (piece.name === 'd' ? { ...piece, pinnedTo: 1 } : piece)),
  });
  expect(tidied(held, turned).zones).toEqual([2, 3, 4, 1]);
});

test('the seed chooses between equals, and nothing else', () => {
  const problem = compiled(randomAllocation(new Random(3), 12, 6, 16));
  const costs = [1, 2, 3].map((seed) => allocateNow(problem, seed).cost);
  expect(costs[1]).toEqual(costs[0]);
  expect(costs[2]).toEqual(costs[0]);
});

test('it can be stopped: each step has the best so far and a bound, which never go the wrong way', () => {
  const problem = compiled(randomAllocation(new Random(5), 16, 8, 24));
  let [steps, bound] = [0, 0];
  let best: PlanCost | null = null;
  const search = allocate(problem);
  for (let step = search.next(); !step.done; step = search.next()) {
    const { cost, lostAtLeast } = step.value;
    steps += 1;
    expect(lostAtLeast).toBeGreaterThanOrEqual(bound);
    bound = lostAtLeast;
    if (!cost) continue;
    if (best) expect(compareCosts(cost, best)).toBeLessThanOrEqual(0);
    best = cost;
    expect(cost.soundsLost).toBeGreaterThanOrEqual(bound);
  }
  expect(steps).toBeGreaterThan(3);
});

describe('a piece that is held somewhere', () => {
  const problem = (pinnedTo?: AllocationProblem['pieces'][number]['pinnedTo']): AllocationProblem => ({
    pieces: ['comp', 'drive', 'echo'].map((name) => ({
      name,
      means: ['loop', 'message'],
      isOnAtPowerUp: false,
      ...(name === 'drive' && pinnedTo !== undefined ? { pinnedTo } : {}),
    })),
    loops: 4,
    insertAfter: 2,
    sounds: [
      { name: 'a', on: ['comp', 'drive'], any: [], tolerates: [] },
      { name: 'b', on: ['drive', 'echo'], any: [], tolerates: [] },
      { name: 'c', on: ['echo'], any: [], tolerates: [] },
    ],
    set: ['a', 'b', 'c'],
    isFrozen: false,
  });
  const placeOf = (pinnedTo: AllocationProblem['pieces'][number]['pinnedTo']) => {
    const asked = compiled(problem(pinnedTo));
    const { best, isOptimal } = allocateNow(asked);
    expect(isOptimal).toBe(true);
    return best!.zones[1] === out ? 'left out' : (loopAtZone(asked, best!.zones[1]) ?? best!.zones[1]);
  };
  test('stands there, whatever it costs', () => {
    expect(placeOf(3)).toBe(3);
    expect(placeOf(2)).toBe(2);
    expect(placeOf('loop')).toEqual(expect.any(Number));
    expect(placeOf('front')).toBe(0);
    expect(placeOf('insert')).toBe(3);
    expect(placeOf('left out')).toBe('left out');
  });
  test('costs what trying every plan with it there costs', () => {
    for (const pin of [1, 2, 3, 4, 'front', 'insert', 'after', 'left out', 'loop'] as const) {
      const asked = compiled(problem(pin));
      const least = leastOfAll(asked, ({ zones: [, zone] }) =>
        pin === 'loop' ? zone === out || loopAtZone(asked, zone) !== undefined : zone === asked.pinnedZone[1],
      );
      expect({ pin, cost: allocateNow(asked).cost }).toEqual({ pin, cost: least });
    }
  });
});

test('loops that are taken are not given out: the same as trying every plan', () => {
  for (let seed = 1; seed <= 20; seed += 1) {
    const r = new Random(500 + seed);
    const small = smallAllocation(r, 3, 3, 4);
    const problem = compiled({ ...small, taken: [1 + r.below(3)] });
    expect({ seed, cost: allocateNow(problem).cost }).toEqual({ seed, cost: leastOfAll(problem) });
  }
  expect(compileProblem({ ...smallAllocation(new Random(1), 2, 2, 2), taken: [3] })).toMatchObject({ ok: false });
});

describe('what makes no sense', () => {
  const plain: AllocationProblem = {
    pieces: [{ name: 'drive', means: ['loop'], isOnAtPowerUp: false }],
    loops: 2,
    insertAfter: null,
    sounds: [{ name: 'a', on: ['drive'], any: [], tolerates: [] }],
    set: ['a'],
    isFrozen: false,
  };
  const faults = (change: Partial<AllocationProblem>) => {
    const result = compileProblem({ ...plain, ...change });
    return result.ok ? [] : result.problems.map(({ pointer, code }) => `${pointer} ${code}`);
  };
  test('is refused at its place', () => {
    const [drive] = plain.pieces;
    expect(faults({})).toEqual([]);
    expect(faults({ loops: -1 })).toEqual(['/loops out-of-domain']);
    expect(faults({ insertAfter: 3 })).toEqual(['/insertAfter out-of-domain']);
    expect(faults({ set: ['b'] })).toEqual(['/set/0 not-found']);
    expect(faults({ pieces: [drive, drive] })).toEqual(['/pieces/1 duplicate']);
    expect(faults({ pieces: [{ ...drive, means: [] }] })).toEqual(['/pieces/0 missing-field']);
    expect(faults({ pieces: [{ ...drive, pinnedTo: 7 }] })).toEqual(['/pieces/0/pinnedTo not-found']);
    expect(faults({ pieces: [{ ...drive, pinnedTo: 'front' }] })).toEqual(['/pieces/0/pinnedTo out-of-domain']);
    expect(faults({ pieces: [{ ...drive, pinnedTo: 'insert' }] })).toEqual([
      '/pieces/0 not-found',
      '/pieces/0/pinnedTo out-of-domain',
    ]);
    expect(faults({ pieces: [{ ...drive, line: 'front' }] })).toEqual(['/sounds/0 out-of-domain']);
  });
  test('no loops, no sounds, nothing to place: an answer all the same', () => {
    expect(allocateNow(compiled({ ...plain, loops: 0 })).cost).toMatchObject({ soundsLost: 1, leftOut: 1 });
    expect(allocateNow(compiled({ ...plain, sounds: [], set: [] })).cost).toMatchObject({ soundsLost: 0, leftOut: 0 });
    expect(allocateNow(compiled({ ...plain, pieces: [], sounds: [], set: [] })).cost).toMatchObject({ cables: 2 });
  });
  test('a frozen order that what stands in line contradicts allows no plan', () => {
    const fixed = (name: string, line: 'front' | 'after') => ({ name, line, means: [], isOnAtPowerUp: false });
    const pieces = [fixed('a', 'after'), fixed('b', 'front')];
    const found = allocateNow(compiled({ ...plain, pieces, sounds: [], set: [], isFrozen: true }));
    expect(found).toMatchObject({ best: null, isOptimal: true });
  });
  test('two hundred pieces: a plan, and nothing said about the best', () => {
    const found = allocateNow(compiled(randomAllocation(new Random(9), 200, 12, 24)));
    expect(found.isOptimal).toBe(false);
    expect(found.cost!.leftOut).toBeLessThan(200);
  });
});

test('a plan says why a sound is lost, who is heard though wanted off, and each foot action', () => {
  const problem = compiled({
    pieces: [
      { name: 'comp', means: ['always', 'loop'], isOnAtPowerUp: false },
      { name: 'boost', means: ['loop', 'foot'], isOnAtPowerUp: false },
      { name: 'drive', means: ['loop'], isOnAtPowerUp: false },
    ],
    loops: 1,
    insertAfter: null,
    sounds: [
      { name: 'clean', on: [], any: [], tolerates: ['comp'] },
      { name: 'dry', on: [], any: [], tolerates: [] },
      { name: 'hot', on: ['drive'], any: ['comp'], tolerates: [] },
      { name: 'lead', on: ['boost', 'drive'], any: ['comp'], tolerates: [] },
    ],
    set: ['clean', 'hot', 'lead', 'hot', 'clean', 'lead'],
    isFrozen: false,
  });
  const judged = judgePlan(problem, { zones: [0, 1, 1], by: ['always', 'foot', 'loop'] })!;
  expect(judged.lost).toEqual([null, { is: 'heard', piece: 0, opened: null }, null, null]);
  expect(judged.heardThoughOff).toEqual([0]);
  // The boost may stay on while the loop is out.
  expect(judged.footActions).toEqual([
    { piece: 1, at: 2, on: true },
    { piece: 1, at: 3, on: false },
    { piece: 1, at: 5, on: true },
  ]);
  const mates = judgePlan(problem, { zones: [out, 1, 1], by: ['always', 'loop', 'loop'] })!;
  expect(mates.lost[2]).toEqual({ is: 'heard', piece: 1, opened: 2 });
  const left = judgePlan(problem, { zones: [out, out, 1], by: ['always', 'always', 'loop'] })!;
  expect(left.lost[3]).toEqual({ is: 'left-out', piece: 1 });
  const wrongWay = judgePlan(problem, { zones: [2, 2, 1], by: ['always', 'foot', 'loop'] })!;
  expect(wrongWay.lost[2]).toEqual({ is: 'order', first: 0, second: 2 });
  expect(costNames).toHaveLength(costVector(judged.cost).length);
});
