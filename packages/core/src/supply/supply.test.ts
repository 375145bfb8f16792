import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { smallSupply, stageSupply } from '../testing/random-supply.ts';
import { type SupplyCase, supplyOf } from '../testing/supply-cases.ts';
import { mostOfOne, supplyProgram } from '../testing/supply-program.ts';
import { mostPlaced } from './flow.ts';
import { judgeSupply, type Seat, type SupplyCost, supplyVector } from './judge.ts';
import {
  type CompiledSupply,
  compileSupply,
  type SupplyLoad,
  type SupplyOutput,
  type SupplyProblem,
} from './problem.ts';
import { compareVectors } from './search.ts';
import { solveSupply, solveSupplyNow, supplyConflictNow } from './solve.ts';

function compiled(problem: SupplyProblem): CompiledSupply {
  const result = compileSupply(problem);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

const { tool, cases } = JSON.parse(
  readFileSync(new URL('../../fixtures/supply-cases.json', import.meta.url), 'utf8'),
) as { readonly tool: string; readonly cases: readonly (SupplyCase & { readonly name: string })[] };

describe(`what outside programs found (${tool})`, () => {
  test.each(cases)('$id $name', ({ inputs, expected }) => {
    const problem = compiled(supplyOf(inputs));
    const { best, cost, proved } = solveSupplyNow(problem);
    expect({ proved, vector: supplyVector(cost!) }).toEqual({ proved: 7, vector: expected.optimum });
    expect(judgeSupply(problem, best!)).toEqual(cost);
    expect(supplyConflictNow(problem) ?? { loads: [], isSmallest: true }).toMatchObject({
      loads: { length: expected.conflict },
      isSmallest: true,
    });
  });
});

/** The least of every plan there is: each seat and each choice tried. */
function leastOfAll(problem: CompiledSupply): SupplyCost | null {
  const { loads, feeds } = problem;
  const seats: Seat[] = loads.map(() => 'unpowered');
  let best: SupplyCost | null = null;
  const settle = (f: number, choices: number[]): void => {
    if (f < feeds.length) {
      const ways = seats.includes(f) ? feeds[f].choices.length : 1;
      for (let c = 0; c < ways; c += 1) settle(f + 1, [...choices, c]);
      return;
    }
    const cost = judgeSupply(problem, { seats, choices });
    if (cost && (!best || compareVectors(supplyVector(cost), supplyVector(best)) < 0)) best = cost;
  };
  const dig = (l: number): void => {
    if (l === loads.length) return settle(0, []);
    for (const seat of [...feeds.map((_, f) => f), 'battery', 'unpowered'] as const) {
      seats[l] = seat;
      dig(l + 1);
    }
  };
  dig(0);
  return best;
}

test('never beaten by trying every plan; the least of all is found', () => {
  const seen = new Set<string>();
  for (let seed = 1; seed <= 120; seed += 1) {
    const r = new Random(seed);
    const problem = compiled(smallSupply(r, 2 + r.below(2), 1 + r.below(3)));
    const { cost } = solveSupplyNow(problem);
    expect({ seed, cost }).toEqual({ seed, cost: leastOfAll(problem) });
    for (const [name, value] of Object.entries(cost!)) if (value > 0) seen.add(name);
  }
  expect(seen.size).toBe(7);
});

test('what is held stays where it is, and the rest is the least around it', () => {
  let held = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const r = new Random(500 + seed);
    const source = smallSupply(r, 3, 2);
    const pin = r.pick([[source.outputs[0].name], 'battery', 'unpowered'] as const);
    const problem = compiled({ ...source, pins: { load1: pin } });
    const { best, cost } = solveSupplyNow(problem);
    expect({ seed, cost }).toEqual({ seed, cost: leastOfAll(problem) });
    if (!best) continue;
    held += 1;
    expect(best.seats[0]).toBe(typeof pin === 'string' ? pin : 0);
  }
  expect(held).toBeGreaterThan(20);
});

interface Solver {
  solve(program: string, options: { readonly output_flag: boolean }): { readonly ObjectiveValue: number };
}

test('equal to an integer program that a general solver solves (HiGHS), on 200 random supplies', async () => {
  // Its types say that the module is no function, which it is.
  const solver = await (createRequire(import.meta.url)('highs') as () => Promise<Solver>)();
  for (let seed = 1; seed <= 200; seed += 1) {
    const r = new Random(20_000 + seed);
    const problem = compiled(smallSupply(r, 3 + r.below(3), 2 + r.below(3)));
    const { cost } = solveSupplyNow(problem);
    let fixed: Partial<SupplyCost> = {};
    for (const group of [
      ['unpowered', 'withoutHeadroom', 'digitalSharing'],
      ['onBattery', 'specialLeads'],
      ['joins', 'outputsUsed'],
    ] as const) {
      const { ObjectiveValue } = solver.solve(supplyProgram(problem, group, fixed), { output_flag: false });
      fixed = { ...fixed, ...Object.fromEntries(group.map((name) => [name, cost![name]])) };
      const mine = group.reduce((sum, name) => sum * mostOfOne + cost![name], 0);
      expect({ seed, group, least: Math.round(ObjectiveValue) }).toEqual({ seed, group, least: mine });
    }
  }
}, 120_000);

test('the smallest conflict is that of trying sets by size', () => {
  let conflicts = 0;
  for (let seed = 1; seed <= 40; seed += 1) {
    const r = new Random(3_000 + seed);
    const source = smallSupply(r, 5, 2);
    const names = source.loads.map(({ name }) => name);
    const canPower = (mask: number): boolean =>
      solveSupplyNow(compiled({ ...source, loads: source.loads.filter((_, l) => (mask & (1 << l)) !== 0) })).cost!
        .unpowered === 0;
    let smallest = 0;
    for (let size = 1; size <= names.length && smallest === 0; size += 1)
      for (let mask = 0; mask < 1 << names.length; mask += 1)
        if (bits(mask) === size && !canPower(mask)) smallest = size;
    const found = supplyConflictNow(compiled(source));
    expect({ seed, size: found?.loads.length ?? 0 }).toEqual({ seed, size: smallest });
    if (found) {
      conflicts += 1;
      expect(canPower(found.loads.reduce((mask, l) => mask | (1 << l), 0))).toBe(false);
    }
  }
  expect(conflicts).toBeGreaterThan(10);
});
const bits = (mask: number): number => mask.toString(2).replaceAll('0', '').length;

test('stopped early, the best so far is a plan that is allowed, and nothing is called proved that is not', () => {
  const problem = compiled(stageSupply(new Random(1), 24, 18));
  const steps = solveSupply(problem);
  let told = steps.next().value;
  for (let i = 0; i < 3; i += 1) told = steps.next().value;
  expect(judgeSupply(problem, told.best!)).toEqual(told.cost);
  expect(told.proved).toBeLessThan(7);
});

test('a thousand loads are answered piece by piece, each piece soon', () => {
  const problem = compiled(stageSupply(new Random(2), 1_000, 60));
  const steps = solveSupply(problem);
  let told = steps.next();
  for (let i = 0; i < 5 && !told.done; i += 1) told = steps.next();
  expect(judgeSupply(problem, told.value.best!)).toEqual(told.value.cost);
  expect(told.value.cost!.unpowered).toBeLessThan(1_000);
}, 60_000);

const nine = (name: string, ma: number): SupplyOutput => ({
  name,
  choices: [{ volts: 9, ma }],
  kind: 'dc',
  centre: '-',
  plug: 'barrel',
  rail: null,
});
const load = (name: string, ma: number): SupplyLoad => ({
  name,
  volts: [9, 9],
  ma,
  kind: 'dc',
  centre: '-',
  plug: 'barrel',
  isDigital: false,
  earth: '-',
  mayUseBattery: false,
});
const plain: SupplyProblem = {
  outputs: [nine('a', 100)],
  limits: [],
  joins: [],
  loads: [load('drive', 10)],
  leads: { reversing: 0, adapter: 0, chains: [] },
};

test('nothing to power, and nothing to power it with', () => {
  expect(solveSupplyNow(compiled({ ...plain, loads: [] })).cost).toMatchObject({ unpowered: 0, outputsUsed: 0 });
  expect(solveSupplyNow(compiled({ ...plain, outputs: [] })).cost).toMatchObject({ unpowered: 1 });
  expect(supplyConflictNow(compiled({ ...plain, outputs: [] }))).toEqual({ loads: [0], isSmallest: true });
});

test('pins that contradict each other allow no plan', () => {
  const pins = { drive: ['a'], boost: ['a'] };
  const { best, cost } = solveSupplyNow(compiled({ ...plain, loads: [load('drive', 80), load('boost', 30)], pins }));
  expect({ best, cost }).toEqual({ best: null, cost: null });
});

test.each<readonly [string, Partial<SupplyProblem>]>([
  ['no volts at all', { outputs: [{ ...nine('a', 100), choices: [] }] }],
  ['negative mA', { outputs: [nine('a', -1)] }],
  ['not a number', { loads: [load('drive', Number.NaN)] }],
  ['the highest volts first', { loads: [{ ...load('drive', 10), volts: [12, 9] }] }],
  ['two outputs of one name', { outputs: [nine('a', 1), nine('a', 1)] }],
  ['two loads of one name', { loads: [load('drive', 1), load('drive', 1)] }],
  ['a limit over what is not there', { limits: [{ outputs: ['b'], most: { ma: 1 } }] }],
  ['a join with itself', { joins: [{ outputs: ['a', 'a'], how: 'series' }] }],
  [
    'a join of unlike outputs',
    { outputs: [nine('a', 1), { ...nine('b', 1), centre: '+' }], joins: [{ outputs: ['a', 'b'], how: 'series' }] },
  ],
  ['half a chain', { leads: { reversing: 0, adapter: 0, chains: [2.5] } }],
  ['a pin on outputs that may not be joined', { outputs: [nine('a', 1), nine('b', 1)], pins: { drive: ['a', 'b'] } }],
  ['a pin of what is not there', { pins: { echo: 'battery' } }],
])('refused: %s', (_, wrong) => {
  expect(compileSupply({ ...plain, ...wrong }).ok).toBe(false);
});

test('a flow with a pool, groups and loads that go alone is that of trying every way', () => {
  for (let seed = 1; seed <= 400; seed += 1) {
    const r = new Random(seed);
    const [loads, outlets] = [2 + r.below(4), 1 + r.below(3)];
    const every = Array.from({ length: outlets }, (_, o) => o);
    const edges = Array.from({ length: loads }, () => r.some(every, 0.6));
    const direct = every.map(() => r.below(2));
    const extra = every.map(() => r.below(3));
    const pool = r.below(3);
    const grouped = edges.flatMap((_, l) => (r.chance(0.4) ? [l] : []));
    const groups = [{ loads: grouped, most: r.below(2) }];
    const alone = edges.map(() => r.chance(0.3));
    let most = 0;
    const at: number[] = [];
    const dig = (l: number): void => {
      if (l < loads) {
        for (const o of [-1, ...edges[l]]) {
          at[l] = o;
          dig(l + 1);
        }
        return;
      }
      const inPool = every.map((o) => Math.max(0, at.filter((each) => each === o).length - direct[o]));
      const fits =
        every.every(
          (o) => inPool[o] <= extra[o] && at.filter((each, i) => each === o && alone[i]).length <= direct[o],
        ) &&
        inPool.reduce((sum, count) => sum + count, 0) <= pool &&
        grouped.filter((each) => at[each] >= 0).length <= groups[0].most;
      if (fits) most = Math.max(most, at.filter((each) => each >= 0).length);
    };
    dig(0);
    expect({ seed, most: mostPlaced(edges, { direct, extra, pool }, groups, alone) }).toEqual({ seed, most });
  }
});
