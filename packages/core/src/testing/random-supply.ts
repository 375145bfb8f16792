import type { SupplyLoad, SupplyOutput, SupplyProblem } from '../supply/problem.ts';
import type { Random } from './random.ts';

const kinds: readonly (Partial<SupplyLoad> & { readonly name: string; readonly most: number })[] = [
  { name: 'drive', volts: [9, 12], most: 20 },
  { name: 'boost', volts: [9, 18], most: 30 },
  { name: 'fuzz', most: 4, mayUseBattery: true },
  { name: 'old fuzz', most: 3, earth: '+', mayUseBattery: true },
  { name: 'compressor', most: 12 },
  { name: 'tuner', most: 60, isDigital: true },
  { name: 'echo', most: 140, isDigital: true },
  { name: 'reverb', volts: [9, 12], most: 260, isDigital: true },
  { name: 'hub', most: 480, isDigital: true },
  { name: 'chorus', most: 30, centre: '+' },
  { name: 'clean boost', volts: [15, 18], most: 50 },
  { name: 'phaser', most: 12, plug: 'mini' },
];

function randomLoad(r: Random, name: string): SupplyLoad {
  const { most, name: _, ...facts } = r.pick(kinds);
  return {
    name,
    volts: [9, 9],
    ma: 1 + Math.round(most * (0.4 + 0.6 * r.next())),
    kind: 'dc',
    centre: '-',
    plug: 'barrel',
    isDigital: false,
    earth: '-',
    mayUseBattery: false,
    ...facts,
  };
}

const outputKinds: readonly SupplyOutput['choices'][] = [
  [{ volts: 9, ma: 100 }],
  [{ volts: 9, ma: 300 }],
  [{ volts: 9, ma: 500 }],
  [
    { volts: 9, ma: 250 },
    { volts: 12, ma: 200 },
  ],
  [
    { volts: 9, ma: 500 },
    { volts: 12, ma: 375 },
    { volts: 18, ma: 250 },
  ],
];

const output = (name: string, choices: SupplyOutput['choices'], rail: string | null): SupplyOutput => ({
  name,
  choices,
  kind: 'dc',
  centre: '-',
  plug: 'barrel',
  rail,
});

/** Small enough for other programs: rails, limits, joins and leads as chance has them. */
export function smallSupply(r: Random, loads: number, outputs: number): SupplyProblem {
  const names = Array.from({ length: outputs }, (_, o) => `out${o + 1}`);
  const hasRails = r.chance(0.4);
  const of = names.map((name) => output(name, r.pick(outputKinds), hasRails ? r.pick(['x', 'y', null]) : null));
  const joins =
    outputs > 1 && r.chance(0.5)
      ? [{ outputs: [names[0], names[1]] as const, how: r.pick(['series', 'parallel'] as const) }]
      : [];
  if (joins.length > 0 && outputs > 2 && r.chance(0.3))
    joins.push({ outputs: [names[1], names[2]] as const, how: r.pick(['series', 'parallel'] as const) });
  const inside = r.some(names, 0.7);
  return {
    outputs: of,
    limits:
      r.chance(0.5) && inside.length > 0
        ? [{ outputs: inside, most: r.chance(0.5) ? { ma: 200 + r.below(500) } : { va: 2 + r.below(8) } }]
        : [],
    joins: joins.filter(
      ({ outputs: [a, b], how }) =>
        how === 'series' ||
        of[names.indexOf(a)].choices.some(({ volts }) =>
          of[names.indexOf(b)].choices.some((other) => other.volts === volts),
        ),
    ),
    loads: Array.from({ length: loads }, (_, l) => randomLoad(r, `load${l + 1}`)),
    leads: {
      reversing: r.below(2),
      adapter: r.below(2),
      chains: r.chance(0.6) ? [2 + r.below(3), ...(r.chance(0.3) ? [2] : [])] : [],
    },
  };
}

/** As on a large board: supplies of eight and fewer outputs, mostly alike, each with its limit. */
export function stageSupply(r: Random, loads: number, outputs: number): SupplyProblem {
  const of: SupplyOutput[] = [];
  const limits: SupplyProblem['limits'][number][] = [];
  const joins: SupplyProblem['joins'][number][] = [];
  while (of.length < outputs) {
    const here: SupplyOutput[] = [];
    const supply = limits.length + 1;
    const size = Math.min(8, outputs - of.length);
    for (let o = 0; o < size; o += 1)
      here.push(output(`supply ${supply} out ${o + 1}`, outputKinds[o < size / 2 ? 0 : o < size - 1 ? 1 : 4], null));
    of.push(...here);
    limits.push({ outputs: here.map(({ name }) => name), most: { va: 2 * size + 2 } });
    if (size >= 4) joins.push({ outputs: [here[0].name, here[1].name], how: 'series' });
  }
  return {
    outputs: of,
    limits,
    joins,
    loads: Array.from({ length: loads }, (_, l) => randomLoad(r, `load ${l + 1}`)),
    leads: { reversing: 2, adapter: 1, chains: [4, 3] },
  };
}
