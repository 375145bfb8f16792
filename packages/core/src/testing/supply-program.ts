import { needsReversing, type SupplyCost, type SupplyCostName } from '../supply/judge.ts';
import { type CompiledSupply, isWithin } from '../supply/problem.ts';

type Term = readonly [factor: number, name: string];

/** More than any one number of a small plan's cost. */
export const mostOfOne = 50;

/**
 * A supply as a linear program in whole numbers, in CPLEX's LP format, written from the definition alone: the least of
 * some numbers of the cost, the first weighing most, where others are held to what they are.
 */
export function supplyProgram(
  problem: CompiledSupply,
  least: readonly SupplyCostName[],
  fixed: Partial<SupplyCost>,
): string {
  const { loads, feeds, limits, rails, railCount, chains, source } = problem;
  const rows: string[] = [];
  const binaries = new Set<string>();
  const bit = (name: string): string => {
    binaries.add(name);
    return name;
  };
  const row = (terms: readonly Term[], sign: '<=' | '>=' | '=', right: number): void =>
    void rows.push(`${written(terms)} ${sign} ${right}`);
  const big = 2_000_000;

  // x: a load on a feed that is set to a choice; y: the feed is used at that choice.
  const seats = loads.map((load, l) =>
    feeds.flatMap((feed, f) =>
      feed.choices.flatMap((choice, c) =>
        feed.kind === load.kind && isWithin(choice.volts, load.volts) ? [{ f, c, name: bit(`x${l}f${f}c${c}`) }] : [],
      ),
    ),
  );
  const on = (f: number, c?: number): readonly (readonly [load: number, name: string])[] =>
    seats.flatMap((seat, l) =>
      seat.filter((each) => each.f === f && (c === undefined || each.c === c)).map(({ name }) => [l, name] as const),
    );
  loads.forEach(({ mayUseBattery }, l) => {
    const battery = mayUseBattery ? [[1, bit(`b${l}`)] as const] : [];
    row([...seats[l].map(({ name }) => [1, name] as const), ...battery, [1, bit(`u${l}`)]], '=', 1);
  });
  feeds.forEach(({ choices }, f) =>
    choices.forEach(({ ma }, c) => {
      const y = bit(`y${f}c${c}`);
      const here = on(f, c);
      for (const [, name] of here)
        row(
          [
            [1, name],
            [-1, y],
          ],
          '<=',
          0,
        );
      row([[1, y], ...here.map(([, name]) => [-1, name] as const)], '<=', 0);
      row([...here.map(([l, name]) => [loads[l].ma, name] as const), [-ma, y]], '<=', 0);
    }),
  );
  const usedAt = (f: number): readonly Term[] => feeds[f].choices.map((_, c) => [1, `y${f}c${c}`] as const);
  rails.forEach((_, o) => {
    const over = feeds.flatMap(({ outputs }, f) => (outputs.includes(o) ? usedAt(f) : []));
    row(over, '<=', 1);
  });

  // Special leads.
  const all = feeds.flatMap((_, f) => on(f).map(([l, name]) => ({ l, f, name })));
  const reversing = all.filter(({ l, f }) => needsReversing(loads[l], feeds[f])).map(({ name }) => [1, name] as const);
  const adapter = all.filter(({ l, f }) => loads[l].plug !== feeds[f].plug).map(({ name }) => [1, name] as const);
  if (reversing.length > 0) row(reversing, '<=', source.leads.reversing);
  if (adapter.length > 0) row(adapter, '<=', source.leads.adapter);
  const chained: Term[] = [];
  feeds.forEach((_, f) => {
    const here = chains.map((plugs, k) => [plugs - 1, bit(`k${k}f${f}`)] as const);
    chained.push(...here.map(([, name]) => [1, name] as const));
    row(
      here.map(([, name]) => [1, name] as const),
      '<=',
      1,
    );
    row([...on(f).map(([, name]) => [1, name] as const), ...here.map(([n, name]) => [-n, name] as const)], '<=', 1);
  });
  chains.forEach((_, k) =>
    row(
      feeds.map((_feed, f) => [1, `k${k}f${f}`] as const),
      '<=',
      1,
    ),
  );

  // Limits, and what lacks headroom under them.
  const lackingFeeds = feeds.map((feed, f) => {
    const lacks = bit(`h${f}`);
    feed.choices.forEach(({ ma }, c) =>
      row(
        [
          ...on(f, c).map(([l, name]) => [loads[l].ma * 100, name] as const),
          [-ma * problem.headroom, `y${f}c${c}`],
          [-big, lacks],
        ],
        '<=',
        0,
      ),
    );
    return lacks;
  });
  limits.forEach(({ outputs: inside, most, isPower }, i) => {
    const taken: Term[] = [];
    feeds.forEach((feed, f) => {
      const within = feed.outputs.filter((output) => inside.includes(output)).length;
      if (within === 0) return;
      feed.choices.forEach(({ each }, c) => {
        const here = each.filter((_, k) => inside.includes(feed.outputs[k]));
        const factor =
          feed.how === 'parallel'
            ? isPower
              ? here[0].volts
              : 1
            : here.reduce((sum, { volts }) => sum + (isPower ? volts : 1), 0);
        const drawn = on(f, c).map(([l, name]) => [loads[l].ma * factor, name] as const);
        if (feed.how !== 'parallel' || within === 2) return void taken.push(...drawn);
        // The lower of what is drawn and what that output can give: one of the two is enough.
        const [part, isCapped] = [`t${i}f${f}c${c}`, bit(`w${i}f${f}c${c}`)];
        row([[1, part], ...drawn.map(([n, name]) => [-n, name] as const), [big, isCapped]], '>=', 0);
        row(
          [
            [1, part],
            [-here[0].ma * factor, isCapped],
          ],
          '>=',
          0,
        );
        taken.push([1, part]);
      });
    });
    if (taken.length === 0) return;
    row(taken, '<=', most);
    const lacks = bit(`g${i}`);
    row([...taken.map(([n, name]) => [n * 100, name] as const), [-big, lacks]], '<=', most * problem.headroom);
    feeds.forEach(({ outputs }, f) => {
      if (outputs.some((output) => inside.includes(output)))
        row(
          [
            [1, lackingFeeds[f]],
            [-1, lacks],
          ],
          '>=',
          0,
        );
    });
  });
  const lacking = loads.map((_, l) => {
    const lacks = bit(`l${l}`);
    feeds.forEach((_feed, f) => {
      for (const { name } of seats[l].filter((seat) => seat.f === f))
        row(
          [
            [1, lacks],
            [-1, name],
            [-1, lackingFeeds[f]],
          ],
          '>=',
          -1,
        );
    });
    return [1, lacks] as const;
  });

  // Rails: those of a join in use are one, and whatever hangs together by several.
  const one = (a: number, b: number): string => bit(`r${Math.min(a, b)}r${Math.max(a, b)}`);
  for (let a = 0; a < railCount; a += 1)
    for (let b = 0; b < railCount; b += 1)
      for (let c = 0; c < railCount; c += 1)
        if (a < b && c !== a && c !== b)
          row(
            [
              [1, one(a, b)],
              [-1, one(a, c)],
              [-1, one(c, b)],
            ],
            '>=',
            -1,
          );
  const railOf = (f: number): number => rails[feeds[f].outputs[0]];
  feeds.forEach(({ outputs: [a, b] }, f) => {
    if (b !== undefined && rails[a] !== rails[b])
      row([[1, one(rails[a], rails[b])], ...usedAt(f).map(([n, y]) => [-n, y] as const)], '>=', 0);
  });
  const standsOn = (l: number, rail: number, but = -1): readonly Term[] =>
    seats[l].filter(({ f }) => railOf(f) === rail && f !== but).map(({ name }) => [1, name] as const);
  const minus = (terms: readonly Term[]): readonly Term[] => terms.map(([n, name]) => [-n, name] as const);
  const sharing: Term[] = [];
  loads.forEach((load, l) => {
    if (load.isDigital) sharing.push([1, bit(`d${l}`)]);
    loads.forEach((other, m) => {
      if (m === l) return;
      for (let a = 0; a < railCount; a += 1)
        for (let b = 0; b < railCount; b += 1) {
          const [here, there] = [standsOn(l, a), standsOn(m, b)];
          if (here.length === 0 || there.length === 0) continue;
          const link: readonly Term[] = a === b ? [] : [[1, one(a, b)]];
          if (load.isDigital)
            row([[1, `d${l}`], ...minus(here), ...minus(there), ...minus(link)], '>=', -1 - link.length);
          if (l < m && load.kind === 'dc' && other.kind === 'dc' && load.earth !== other.earth)
            row([...here, ...there, ...link], '<=', 1 + link.length);
        }
    });
  });
  feeds.forEach((feed, f) => {
    if (feed.how !== 'series') return;
    loads.forEach((_, m) => {
      for (let b = 0; b < railCount; b += 1) {
        const there = standsOn(m, b, f);
        const link: readonly Term[] = railOf(f) === b ? [] : [[1, one(railOf(f), b)]];
        if (there.length > 0) row([...usedAt(f), ...there, ...link], '<=', 1 + link.length);
      }
    });
  });

  const used = (size: (outputs: number) => number): readonly Term[] =>
    feeds.flatMap(({ outputs }, f) =>
      size(outputs.length) === 0 ? [] : usedAt(f).map(([, name]) => [size(outputs.length), name] as const),
    );
  const numbers: Record<SupplyCostName, readonly Term[]> = {
    unpowered: loads.map((_, l) => [1, `u${l}`] as const),
    withoutHeadroom: lacking,
    digitalSharing: sharing,
    onBattery: loads.flatMap(({ mayUseBattery }, l) => (mayUseBattery ? [[1, `b${l}`] as const] : [])),
    specialLeads: [...reversing, ...adapter, ...chained],
    joins: used((outputs) => outputs - 1),
    outputsUsed: used((outputs) => outputs),
  };
  for (const [name, value] of Object.entries(fixed) as [SupplyCostName, number][])
    if (numbers[name].length > 0) row(numbers[name], '=', value);
  const objective = least.flatMap((name, i) =>
    numbers[name].map(([n, v]) => [n * mostOfOne ** (least.length - 1 - i), v] as const),
  );
  return [
    'Minimize',
    ` obj: ${written(objective)}`,
    'Subject To',
    ...rows.map((each, i) => ` c${i}: ${each}`),
    'Binary',
    ` ${[...binaries].join(' ')}`,
    'End',
  ].join('\n');
}

const written = (terms: readonly Term[]): string => {
  const summed = new Map<string, number>();
  for (const [n, name] of terms) summed.set(name, (summed.get(name) ?? 0) + n);
  const kept = [...summed].filter(([, n]) => n !== 0);
  return kept.length === 0
    ? '0 nothing'
    : kept.map(([name, n]) => `${n < 0 ? '-' : '+'} ${Math.abs(n)} ${name}`).join(' ');
};
