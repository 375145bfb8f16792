import { type Problem, problem } from '../units/problem.ts';
import type { Jack } from './anatomy.ts';
import { constant, type DataOf, decimal, id, integer, list, object, oneOf, record, text, yesNo } from './shape.ts';

/** Where a device's power facts are from. Of typical ones nothing is said that would stop the show. */
export const powerSources = ['typical', 'papers', 'measured'] as const;
export type PowerSource = (typeof powerSources)[number];

const volts = decimal(0.5, 60);
const milliamps = decimal(0, 20_000);
const plug = text(30, 1);
const label = text(60, 1);
const currentKind = oneOf('dc', 'ac');
const centre = oneOf('-', '+');
const range = (low: number, high: number) => list(decimal(low, high), 2, 2);

/** What a device takes at its power inlet. */
const needsShape = object(
  {
    kind: currentKind,
    /** The lowest and the highest that it runs on. */
    volts: list(volts, 2, 2),
    ma: milliamps,
    /** What the centre of its inlet wants; `any`: it does not mind. */
    centre: oneOf('-', '+', 'any'),
    plug,
  },
  {
    digital: yesNo,
    /** Its earth is on plus, as in some old fuzzes. */
    earth: constant('+'),
    /** The battery that it can run on instead. */
    battery: object({ mah: decimal(1, 1_000_000) }),
  },
);
export interface PowerNeeds extends DataOf<typeof needsShape> {}

const outputShape = object(
  {
    id,
    label,
    /** Set to one of these; most have one. */
    choices: list(object({ volts, ma: milliamps }), 5, 1),
    kind: currentKind,
    centre,
    plug,
  },
  {
    /** Outputs of one rail share their negative; isolated where absent. */
    rail: text(40, 1),
  },
);
export interface PowerOutput extends DataOf<typeof outputShape> {}

const supplyShape = object(
  { outputs: list(outputShape, 64, 1) },
  {
    /** What some of the outputs, or all, give together at most. */
    limits: list(object({ outputs: list(id, 64, 1) }, { ma: decimal(0, 1_000_000), va: decimal(0, 100_000) }), 32),
    /** Outputs that its own papers allow to be joined. */
    joins: list(object({ outputs: list(id, 2, 2), how: oneOf('series', 'parallel') }), 64),
    /** Runs on what it holds, charged beforehand: a power bank, a board's battery. */
    battery: object({ wh: decimal(1, 5_000) }, { efficiency: integer(10, 100) }),
  },
);
export interface PowerSupplyFacts extends DataOf<typeof supplyShape> {}

const mainsShape = object(
  {
    va: decimal(0, 20_000),
    volts: range(50, 500),
    hertz: range(10, 500),
    /** The connector that its mains lead goes into. */
    inlet: text(30, 1),
  },
  { /** Class I: it needs the protective earth. */ earthed: yesNo },
);
export interface MainsNeeds extends DataOf<typeof mainsShape> {}

const lineShape = object({
  id,
  label,
  /** American wire gauge; 0 is 1/0. */
  gauge: integer(-3, 40),
  metres: decimal(0, 200),
});
export interface PowerLine extends DataOf<typeof lineShape> {}

/** What a type takes and gives of power. */
export const powerShape = object(
  { from: oneOf(...powerSources) },
  {
    needs: needsShape,
    supply: supplyShape,
    mains: mainsShape,
    /** Mains outlets that it passes on: an outlet strip, a courtesy outlet. */
    outlets: object({ count: integer(1, 24), va: decimal(0, 20_000) }, { unearthed: yesNo }),
    /** Lines of a multi-core that carry a supply's voltage. */
    lines: list(lineShape, 24),
  },
);
export interface TypePower extends DataOf<typeof powerShape> {}

/** How one unit is powered. */
export const unitPowerShape = object(
  {},
  {
    /** It runs on its battery. */
    onBattery: yesNo,
    /** It stays on the output, or the battery, that it is on, when loads are given outputs anew. */
    held: yesNo,
    /** To which voltage each output is set that has several. */
    volts: record(volts, 64),
  },
);
export interface UnitPower extends DataOf<typeof unitPowerShape> {}

/** What is special about a power lead. */
export const powerLeadShape = object(
  {},
  {
    /** At these devices it swaps plus and minus. */
    reverses: list(id, 64),
    /** At these it has the plug that they need, though the supply’s own has not. */
    adapts: list(id, 64),
    /** How it joins the outputs that it is plugged into. */
    join: oneOf('series', 'parallel'),
    /** American wire gauge of its wire, where somebody knows. */
    gauge: integer(-3, 40),
  },
);
export interface PowerLead extends DataOf<typeof powerLeadShape> {}

const venueShape = object(
  { id, name: text(120, 1), volts: decimal(50, 500), hertz: decimal(10, 500) },
  {
    /** What its outlet gives at most. */
    amps: decimal(0.5, 400),
  },
);
export interface MainsVenue extends DataOf<typeof venueShape> {}

export const powerSettingsShape = object(
  {},
  {
    /** The mains of the places where it plays. */
    venues: list(venueShape, 100),
    /** For how long batteries have to last. */
    hours: decimal(0.1, 48),
    /** Of what may be given, how many per cent may be used. */
    headroom: integer(10, 100),
    /** Special leads that there are: of chains the number of plugs of each. */
    leads: object({ reversing: integer(0, 200), adapter: integer(0, 200), chains: list(integer(2, 20), 40) }),
  },
);
export interface PowerSettings extends DataOf<typeof powerSettingsShape> {}

/** What stands in a type's power facts that cannot be: names of outputs that are not there, a range upside down. */
export function powerProblems(power: TypePower, at: string): Problem[] {
  const problems: Problem[] = [];
  const inOrder = (range: readonly number[], where: string): void => {
    if (range[0] > range[1])
      problems.push(problem(`${at}/${where}`, 'out-of-domain', { value: range[0], expected: `at most ${range[1]}` }));
  };
  if (power.needs) inOrder(power.needs.volts, 'needs/volts');
  if (power.mains) {
    inOrder(power.mains.volts, 'mains/volts');
    inOrder(power.mains.hertz, 'mains/hertz');
  }
  const { outputs = [], limits = [], joins = [] } = power.supply ?? {};
  const ids = new Set<string>();
  for (const [i, jack] of powerJacksOf(power).entries()) {
    if (ids.has(jack.id)) problems.push(problem(`${at}/${i}`, 'duplicate', { what: 'Power jack', id: jack.id }));
    ids.add(jack.id);
  }
  outputs.forEach(({ choices }, i) => {
    if (new Set(choices.map((choice) => choice.volts)).size < choices.length)
      problems.push(
        problem(`${at}/supply/outputs/${i}/choices`, 'duplicate', { what: 'Voltage', id: outputs[i].label }),
      );
  });
  const known = (names: readonly string[], where: string): void => {
    for (const name of names)
      if (!outputs.some((output) => output.id === name))
        problems.push(problem(`${at}/supply/${where}`, 'not-found', { what: 'output', id: name }));
  };
  limits.forEach((limit, i) => {
    known(limit.outputs, `limits/${i}`);
    if ((limit.ma === undefined) === (limit.va === undefined))
      problems.push(problem(`${at}/supply/limits/${i}`, 'wrong-type', { expected: 'either mA or VA' }));
  });
  joins.forEach((join, i) => {
    known(join.outputs, `joins/${i}`);
    const [a, b] = join.outputs.map((name) => outputs.find((output) => output.id === name));
    if (a && b && (a === b || a.kind !== b.kind || a.centre !== b.centre || a.plug !== b.plug))
      problems.push(
        problem(`${at}/supply/joins/${i}`, 'out-of-domain', {
          value: join.outputs.join(', '),
          expected: 'two outputs of one kind, centre and plug',
        }),
      );
  });
  return problems;
}

export const powerInlet = 'power-in';
export const mainsInlet = 'mains-in';
export const outletId = (number: number): string => `outlet-${number}`;
export const lineIn = (line: string): string => `${line}-in`;
export const lineOut = (line: string): string => `${line}-out`;

const none: readonly Jack[] = [];
const known = new WeakMap<TypePower, readonly Jack[]>();

/** The jacks by which a device takes and gives power. */
export function powerJacksOf(power: TypePower | undefined): readonly Jack[] {
  if (!power) return none;
  let jacks = known.get(power);
  if (!jacks) known.set(power, (jacks = makeJacks(power)));
  return jacks;
}

function makeJacks({ needs, supply, mains, outlets, lines = [] }: TypePower): readonly Jack[] {
  return [
    ...(needs ? [{ id: powerInlet, label: 'Power', kind: 'power-in' } as const] : []),
    ...(supply?.outputs ?? []).map((output): Jack => ({ id: output.id, label: output.label, kind: 'power-out' })),
    ...(mains ? [{ id: mainsInlet, label: 'Mains', kind: 'mains-in' } as const] : []),
    ...Array.from({ length: outlets?.count ?? 0 }, (_, i): Jack => ({
      id: outletId(i + 1),
      label: `Outlet ${i + 1}`,
      kind: 'mains-out',
    })),
    ...lines.flatMap((line): Jack[] => [
      { id: lineIn(line.id), label: `${line.label} in`, kind: 'power-in' },
      { id: lineOut(line.id), label: `${line.label} out`, kind: 'power-out' },
    ]),
  ];
}
