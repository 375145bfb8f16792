import { accept, type Problem, problem, refuse, type Result } from '../units/problem.ts';

/** What an output gives: direct or alternating current. */
export type CurrentKind = 'dc' | 'ac';

/** One output of a supply. It is set to one of its voltages, and gives so many mA at it. */
export interface SupplyOutput {
  readonly name: string;
  readonly choices: readonly { readonly volts: number; readonly ma: number }[];
  readonly kind: CurrentKind;
  /** What the centre of its plug carries. */
  readonly centre: '-' | '+';
  readonly plug: string;
  /** Outputs of one rail share their negative; null: isolated, a rail of its own. */
  readonly rail: string | null;
}

/** What outputs give together at most: a group of a supply, or all of it. */
export interface SupplyLimit {
  readonly outputs: readonly string[];
  readonly most: { readonly ma: number } | { readonly va: number };
}

/** Two outputs that the supply's own papers allow to be joined. */
export interface SupplyJoin {
  readonly outputs: readonly [string, string];
  readonly how: 'series' | 'parallel';
}

/** What wants power. */
export interface SupplyLoad {
  readonly name: string;
  readonly volts: readonly [lowest: number, highest: number];
  readonly ma: number;
  readonly kind: CurrentKind;
  readonly centre: '-' | '+' | 'any';
  readonly plug: string;
  readonly isDigital: boolean;
  /** Which side its earth is on. */
  readonly earth: '-' | '+';
  readonly mayUseBattery: boolean;
}

/** The special leads that there are; of the chains the number of plugs of each. */
export interface SpecialLeads {
  readonly reversing: number;
  readonly adapter: number;
  readonly chains: readonly number[];
}

/** Where a load is held: on these outputs (two: joined), on its battery, or without power. */
export type SupplyPin = readonly string[] | 'battery' | 'unpowered';

export interface SupplyProblem {
  readonly outputs: readonly SupplyOutput[];
  readonly limits: readonly SupplyLimit[];
  readonly joins: readonly SupplyJoin[];
  readonly loads: readonly SupplyLoad[];
  readonly leads: SpecialLeads;
  readonly pins?: Readonly<Record<string, SupplyPin>>;
  /** Of what may be given, how many per cent leave headroom; 80 where nothing is said. */
  readonly headroom?: number;
}

/** One voltage of a feed, with what it gives there and what each of its outputs is set to. */
export interface FeedChoice {
  readonly volts: number;
  readonly ma: number;
  readonly each: readonly { readonly volts: number; readonly ma: number }[];
}

/** What loads are put on: an output alone, or two joined. */
export interface Feed {
  /** By their place among the outputs. */
  readonly outputs: readonly number[];
  readonly how: 'alone' | SupplyJoin['how'];
  readonly choices: readonly FeedChoice[];
  readonly kind: CurrentKind;
  readonly centre: '-' | '+';
  readonly plug: string;
}

/** A limit with its outputs by place. */
export interface CompiledLimit {
  readonly outputs: readonly number[];
  readonly most: number;
  /** Volts count, and `most` is in mVA; else it is in mA. */
  readonly isPower: boolean;
}

export interface CompiledSupply {
  readonly source: SupplyProblem;
  readonly loads: readonly SupplyLoad[];
  readonly feeds: readonly Feed[];
  readonly limits: readonly CompiledLimit[];
  /** Each output's rail, numbered. */
  readonly rails: readonly number[];
  readonly railCount: number;
  /** Plugs of the chain leads, most first. */
  readonly chains: readonly number[];
  readonly headroom: number;
  /** By load: where it is held; undefined where it is free. A feed by its place. */
  readonly held: readonly (number | 'battery' | 'unpowered' | undefined)[];
}

/** Per cent of what something may give that leave headroom (common practice: leave 20 to 25 % unused). */
export const usualHeadroom = 80;

/** Voltages that an output may be set to, at most: two joined have as many pairs as the bits of one number hold. */
export const mostChoices = 5;

/** Volts and mA are told to a tenth at most; sums of them differ by less than this from what they should be. */
export const nearlyNothing = 1e-6;
export const isWithin = (volts: number, [lowest, highest]: SupplyLoad['volts']): boolean =>
  volts >= lowest - nearlyNothing && volts <= highest + nearlyNothing;

/** Checks a problem and makes it ready: feeds of outputs and joins, places instead of names. */
export function compileSupply(source: SupplyProblem): Result<CompiledSupply> {
  const problems = supplyProblems(source);
  if (problems.length > 0) return refuse(...problems);
  const placeOf = new Map(source.outputs.map(({ name }, i) => [name, i]));
  const feeds: Feed[] = source.outputs.map(({ choices, kind, centre, plug }, i) => ({
    outputs: [i],
    how: 'alone',
    choices: choices.map((choice) => ({ ...choice, each: [choice] })),
    kind,
    centre,
    plug,
  }));
  for (const { outputs, how } of source.joins) {
    const [a, b] = outputs.map((name) => source.outputs[placeOf.get(name)!]);
    const pairs = a.choices.flatMap((first) =>
      b.choices
        .filter((second) => how === 'series' || Math.abs(first.volts - second.volts) < nearlyNothing)
        .map((second) => ({
          volts: how === 'series' ? first.volts + second.volts : first.volts,
          ma: how === 'series' ? Math.min(first.ma, second.ma) : first.ma + second.ma,
          each: [first, second],
        })),
    );
    feeds.push({
      outputs: outputs.map((name) => placeOf.get(name)!),
      how,
      choices: pairs,
      kind: a.kind,
      centre: a.centre,
      plug: a.plug,
    });
  }
  const railNames = source.outputs.map(({ rail, name }) => (rail === null ? `alone ${name}` : `rail ${rail}`));
  const railNumbers = [...new Set(railNames)];
  return accept({
    source,
    loads: source.loads,
    feeds,
    limits: source.limits.map(({ outputs, most }) => ({
      outputs: [...new Set(outputs)].map((name) => placeOf.get(name)!),
      most: 'va' in most ? most.va * 1000 : most.ma,
      isPower: 'va' in most,
    })),
    rails: railNames.map((name) => railNumbers.indexOf(name)),
    railCount: railNumbers.length,
    chains: source.leads.chains.filter((plugs) => plugs >= 2).sort((a, b) => b - a),
    headroom: source.headroom ?? usualHeadroom,
    held: source.loads.map(({ name }) => {
      const pin = Object.hasOwn(source.pins ?? {}, name) ? source.pins![name] : undefined;
      if (pin === undefined || typeof pin === 'string') return pin;
      return feedOf(
        feeds,
        pin.map((output) => placeOf.get(output)!),
      )!;
    }),
  });
}

/** The feed of these outputs, by its place. */
function feedOf(feeds: readonly Feed[], outputs: readonly number[]): number | undefined {
  const at = feeds.findIndex(
    (feed) => feed.outputs.length === outputs.length && feed.outputs.every((output) => outputs.includes(output)),
  );
  return at < 0 ? undefined : at;
}

function supplyProblems({ outputs, limits, joins, loads, leads, pins }: SupplyProblem): Problem[] {
  const problems: Problem[] = [];
  const places = new Set<string>();
  const wrongNumber = (at: string, value: number, expected: string): void =>
    void problems.push(problem(at, 'out-of-domain', { value: String(value), expected }));
  const isAmount = (value: number): boolean => Number.isFinite(value) && value >= 0;
  outputs.forEach(({ name, choices }, i) => {
    if (places.has(name)) problems.push(problem(`/outputs/${i}`, 'duplicate', { what: 'Output', id: name }));
    places.add(name);
    if (choices.length < 1 || choices.length > mostChoices)
      wrongNumber(`/outputs/${i}/choices`, choices.length, `1 to ${mostChoices} voltages`);
    for (const { volts, ma } of choices)
      if (!(isAmount(volts) && volts > 0 && isAmount(ma))) wrongNumber(`/outputs/${i}`, volts, 'volts above 0 and mA');
  });
  const known = (at: string, name: string): void => {
    if (!places.has(name)) problems.push(problem(at, 'not-found', { what: 'output', id: name }));
  };
  limits.forEach((limit, i) => {
    limit.outputs.forEach((name) => known(`/limits/${i}/outputs`, name));
    const most = 'va' in limit.most ? limit.most.va : limit.most.ma;
    if (!isAmount(most)) wrongNumber(`/limits/${i}`, most, 'mA or VA');
  });
  joins.forEach((join, i) => {
    join.outputs.forEach((name) => known(`/joins/${i}/outputs`, name));
    if (join.outputs[0] === join.outputs[1])
      problems.push(problem(`/joins/${i}/outputs`, 'duplicate', { what: 'Output', id: join.outputs[0] }));
    const [a, b] = join.outputs.map((name) => outputs.find((output) => output.name === name));
    if (a && b && (a.kind !== b.kind || a.centre !== b.centre || a.plug !== b.plug))
      problems.push(
        problem(`/joins/${i}`, 'out-of-domain', { value: a.name, expected: 'outputs of one kind, centre and plug' }),
      );
  });
  const names = new Set<string>();
  loads.forEach(({ name, volts, ma }, i) => {
    if (names.has(name)) problems.push(problem(`/loads/${i}`, 'duplicate', { what: 'Load', id: name }));
    names.add(name);
    if (!(isAmount(volts[0]) && isAmount(volts[1]) && volts[0] <= volts[1]))
      wrongNumber(`/loads/${i}/volts`, volts[0], 'volts, the lowest first');
    if (!isAmount(ma)) wrongNumber(`/loads/${i}/ma`, ma, 'mA');
  });
  for (const count of [leads.reversing, leads.adapter, ...leads.chains])
    if (!Number.isInteger(count) || count < 0) wrongNumber('/leads', count, 'a whole number');
  for (const [name, pin] of Object.entries(pins ?? {})) {
    if (!names.has(name)) problems.push(problem(`/pins/${name}`, 'not-found', { what: 'load', id: name }));
    if (typeof pin === 'string') continue;
    pin.forEach((output) => known(`/pins/${name}`, output));
    const isFeed =
      pin.length === 1 || joins.some((join) => pin.length === 2 && join.outputs.every((each) => pin.includes(each)));
    if (!isFeed) problems.push(problem(`/pins/${name}`, 'not-found', { what: 'join', id: pin.join(' + ') }));
  }
  return problems;
}
