import type { CostName, PlanCost } from '../allocate/plan.ts';
import { type CompiledProblem, loopAtZone } from '../allocate/problem.ts';

/** More than any one number of a small plan's cost. */
export const largest = 100;

/**
 * An allocation as a linear program in whole numbers, in CPLEX's LP format, written from the definition alone: the
 * least of some numbers of the cost, the first weighing most, where others are held to what they are.
 */
export function integerProgram(problem: CompiledProblem, least: readonly CostName[], fixed: Partial<PlanCost>): string {
  const { source, lastZone, insertZone } = problem;
  const rows: string[] = [];
  const binaries = new Set<string>();
  const free = new Set<string>();
  const bit = (name: string): string => {
    binaries.add(name);
    return name;
  };
  const zones = Array.from({ length: lastZone + 1 }, (_, zone) => zone);
  const isLoop = (zone: number): boolean => loopAtZone(problem, zone) !== undefined;
  const pieces = source.pieces.map(({ line, means }, p) => {
    const fixedAt = problem.fixedZone[p];
    const at = (zone: number): readonly string[] => {
      if (line !== undefined) return zone === fixedAt ? [bit(`x${p}z${zone}fixed`)] : [];
      if (isLoop(zone) && !means.includes('loop')) return [];
      return means
        .filter((how) => (isLoop(zone) ? how !== 'always' : how !== 'loop'))
        .map((how) => bit(`x${p}z${zone}${how}`));
    };
    return { p, line, places: zones.map(at), out: bit(`o${p}`) };
  });
  const sum = (names: readonly string[]): string => (names.length === 0 ? '0 zero' : names.join(' + '));
  const of = (p: number, how: string): readonly string[] =>
    pieces[p].places.flat().filter((name) => name.endsWith(how));
  for (const { places, out, line } of pieces) {
    rows.push(`${sum([...places.flat(), out])} = 1`);
    if (line !== undefined) rows.push(`${out} = 0`);
  }
  // A loop is used where a piece stands in it; and in, sound by sound, where one of them is on.
  for (const zone of zones.filter(isLoop)) {
    const here = pieces.flatMap(({ places }) => places[zone]);
    const used = bit(`u${zone}`);
    for (const name of here) rows.push(`${used} - ${name} >= 0`);
    rows.push(`${used} - ${here.join(' - ') || '0 zero'} <= 0`);
    source.sounds.forEach(({ on }, s) => {
      const opens = pieces.filter(({ p }) => on.includes(source.pieces[p].name)).flatMap(({ places }) => places[zone]);
      const isIn = bit(`in${zone}s${s}`);
      for (const name of opens) rows.push(`${isIn} - ${name} >= 0`);
      rows.push(`${isIn} - ${opens.join(' - ') || '0 zero'} <= 0`);
    });
  }
  const insertUsed = bit('insert');
  if (insertZone >= 0)
    for (const name of pieces.flatMap(({ places }) => places[insertZone])) rows.push(`${insertUsed} - ${name} >= 0`);
  // Two pieces the wrong way round.
  const turned = (p: number, q: number): string => bit(`t${p}q${q}`);
  for (const first of pieces)
    for (const second of pieces.slice(first.p + 1))
      for (const zone of zones) {
        const behind = first.places[zone];
        const before = second.places.slice(0, zone).flat();
        if (behind.length === 0 || before.length === 0) continue;
        rows.push(`${turned(first.p, second.p)} - ${behind.join(' - ')} - ${before.join(' - ')} >= -1`);
        if (source.isFrozen) rows.push(`${behind.join(' + ')} + ${before.join(' + ')} <= 1`);
      }
  source.sounds.forEach(({ on, any, tolerates }, s) => {
    const plays = bit(`r${s}`);
    const isOff = (p: number): boolean =>
      source.pieces[p].line === undefined && ![...on, ...any].includes(source.pieces[p].name);
    for (const { p, out, places } of pieces) {
      const { name } = source.pieces[p];
      if (on.includes(name)) rows.push(`${plays} + ${out} <= 1`);
      if (!isOff(p)) continue;
      const heard = bit(`h${p}s${s}`);
      for (const always of of(p, 'always')) rows.push(`${heard} - ${always} >= 0`);
      for (const zone of zones.filter(isLoop))
        for (const alone of places[zone].filter((each) => each.endsWith('loop')))
          rows.push(`${heard} - ${alone} - in${zone}s${s} >= -1`);
      rows.push(`${bit(`c${p}`)} - ${heard} >= 0`);
      if (!tolerates.includes(name)) rows.push(`${plays} + ${heard} <= 1`);
    }
    for (const first of pieces)
      for (const second of pieces.slice(first.p + 1)) {
        const hears = [first.p, second.p].filter(isOff).map((p) => `h${p}s${s}`);
        rows.push([plays, turned(first.p, second.p), ...hears].join(' + ') + ` <= ${1 + hears.length}`);
      }
  });
  // Foot switches through the set: `s` is how a piece stands, `m` that it is moved.
  for (const { p, places } of pieces) {
    if (of(p, 'foot').length === 0) continue;
    rows.push(`s${p}at0 = ${source.pieces[p].isOnAtPowerUp ? 1 : 0}`);
    bit(`s${p}at0`);
    source.set.forEach((name, i) => {
      const s = source.sounds.findIndex((sound) => sound.name === name);
      const { on, any } = source.sounds[s];
      const [was, now, moved] = [bit(`s${p}at${i}`), bit(`s${p}at${i + 1}`), bit(`m${p}at${i + 1}`)];
      rows.push(`${moved} - ${now} + ${was} >= 0`, `${moved} + ${now} - ${was} >= 0`);
      const piece = source.pieces[p].name;
      if (on.includes(piece)) rows.push(`${now} - r${s} - ${of(p, 'foot').join(' - ')} >= -1`);
      else if (!any.includes(piece))
        for (const zone of zones)
          for (const foot of places[zone].filter((each) => each.endsWith('foot')))
            rows.push(
              isLoop(zone) ? `${now} + r${s} + ${foot} + in${zone}s${s} <= 3` : `${now} + r${s} + ${foot} <= 2`,
            );
    });
  }
  const moves = [...binaries].filter((name) => /^m\d/.test(name));
  const inLoops = pieces.flatMap(({ places }) => zones.filter(isLoop).flatMap((zone) => places[zone]));
  const used = [...binaries].filter((name) => /^u\d/.test(name));
  const every = (how: string): readonly string[] => pieces.flatMap(({ p }) => of(p, how));
  const plus = (names: readonly string[]) => names.map((name) => [1, name] as const);
  const minus = (names: readonly string[]) => names.map((name) => [-1, name] as const);
  const numbers: Record<CostName, { readonly terms: readonly (readonly [number, string])[]; readonly add: number }> = {
    soundsLost: { terms: minus(source.sounds.map((_, s) => `r${s}`)), add: source.sounds.length },
    leftOut: { terms: plus(pieces.map(({ out }) => out)), add: 0 },
    heardThoughOff: { terms: plus([...binaries].filter((name) => /^c\d/.test(name))), add: 0 },
    footActions: { terms: plus(moves), add: 0 },
    byFoot: { terms: plus(every('foot')), add: 0 },
    shared: { terms: [...plus(inLoops), ...minus(used)], add: 0 },
    byMessage: { terms: plus(every('message')), add: 0 },
    cables: {
      terms: [...minus(pieces.map(({ out }) => out)), ...plus([...used, ...(insertZone >= 0 ? [insertUsed] : [])])],
      add: pieces.length + 2,
    },
  };
  // A piece that a foot does not switch is not moved at all.
  for (const { p } of pieces)
    for (const name of moves.filter((move) => move.startsWith(`m${p}at`)))
      if (of(p, 'foot').length === 0) rows.push(`${name} = 0`);
  for (const [name, value] of Object.entries(fixed) as [CostName, number][]) {
    const { terms, add } = numbers[name];
    rows.push(`${written(terms)} = ${value - add}`);
  }
  const weights = least.map((_, i) => largest ** (least.length - 1 - i));
  const constant = least.reduce((total, name, i) => total + weights[i] * numbers[name].add, 0);
  const objective = least.flatMap((name, i) => numbers[name].terms.map(([n, v]) => [n * weights[i], v] as const));
  free.add('one');
  return [
    'Minimize',
    ` cost: ${written([...objective, [constant, 'one']])}`,
    'Subject To',
    ...rows.map((row, i) => ` c${i}: ${row}`),
    ' zeroed: zero = 0',
    ' unit: one = 1',
    'Binary',
    ...[...binaries].map((name) => ` ${name}`),
    'End',
  ]
    .map(folded)
    .join('\n');
}

/** Each name once: of one that stands there twice a reader of the format takes the last. */
function written(terms: readonly (readonly [number, string])[]): string {
  const sums = new Map<string, number>();
  for (const [n, name] of terms) sums.set(name, (sums.get(name) ?? 0) + n);
  const told = [...sums].map(([name, n]) => `${n < 0 ? '-' : '+'} ${Math.abs(n)} ${name}`);
  return told.length === 0 ? '0 zero' : told.join(' ');
}

/** The format has lines of 500 characters at most: a longer one goes on below. */
function folded(line: string): string {
  const parts = line.split(' ');
  let [length, text] = [0, ''];
  for (const part of parts) {
    if (length > 200 && /^[+-]$/.test(part)) {
      text += '\n';
      length = 0;
    }
    text += ` ${part}`;
    length += part.length + 1;
  }
  return text;
}
