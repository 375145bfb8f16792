import type { Jumper, Pass, Trace } from '@yunta/core';

/** A run as it is drawn: a mark may stand for several passes, and a hanging piece for several. */
export interface FoldedTrace extends Omit<Trace, 'passes' | 'jumpers'> {
  readonly passes: readonly FoldedPass[];
  readonly jumpers: readonly FoldedJumper[];
  /** How many passes and hanging pieces are hidden. */
  readonly hidden: number;
}

export interface FoldedPass extends Pass {
  /** The passes that it stands for, by their indexes in the whole run. */
  readonly stands: readonly number[];
}

export interface FoldedJumper extends Jumper {
  readonly isFolded: boolean;
}

/** Shorter stretches are left: folding them saves no room. */
const shortest = 3;
/** So many pieces may hang under one pass side by side. */
const mostHanging = 3;

/** The run with every pass drawn by itself. */
export const unfolded = (trace: Trace): FoldedTrace => ({
  ...trace,
  passes: trace.passes.map((pass) => ({ ...pass, stands: [pass.index] })),
  jumpers: trace.jumpers.map((jumper) => ({ ...jumper, isFolded: false })),
  hidden: 0,
});

/**
 * The run with its quiet stretches folded: passes one behind the other, three or more, that do nothing to the sound,
 * become one mark; more than three pieces that hang under one pass become one piece. What differs (`keep`) stays.
 */
export function foldTrace(trace: Trace, keep: ReadonlySet<number> = new Set()): FoldedTrace {
  const { passes } = trace;
  const times = new Map<string, number>();
  for (const pass of passes) times.set(pass.device, (times.get(pass.device) ?? 0) + 1);
  const arriving = new Map<number, number>();
  for (const to of passes.flatMap((pass) => pass.next)) arriving.set(to, (arriving.get(to) ?? 0) + 1);
  const hangs = new Set(trace.jumpers.map((jumper) => jumper.pass));
  const marked = new Set(trace.widths.collapses.map((collapse) => collapse.pass));
  /** Does nothing, is passed once, and nothing meets, parts, hangs or is marked there. */
  const isQuiet = ({ index, device, activeSections, bypassed, next }: Pass): boolean =>
    (bypassed || activeSections.length === 0) &&
    times.get(device) === 1 &&
    next.length === 1 &&
    arriving.get(index) === 1 &&
    !hangs.has(index) &&
    !marked.has(index) &&
    !keep.has(index);
  const stretches = passes
    .filter((pass) => isQuiet(pass) && !passes.some((before) => before.next.includes(pass.index) && isQuiet(before)))
    .map((first) => {
      const stretch = [first];
      for (let next = passes[first.next[0]]; isQuiet(next); next = passes[next.next[0]]) stretch.push(next);
      return stretch;
    })
    .filter((stretch) => stretch.length >= shortest);
  const headOf = new Map(stretches.flatMap(([head, ...rest]) => rest.map((pass) => [pass.index, head.index] as const)));
  const stretchAt = new Map(stretches.map((stretch) => [stretch[0].index, stretch]));
  const left = passes.filter((pass) => !headOf.has(pass.index));
  const placeOf = new Map(left.map((pass, i) => [pass.index, i]));
  const drawn = (index: number): number => placeOf.get(headOf.get(index) ?? index)!;
  const last = (pass: Pass): Pass => stretchAt.get(pass.index)?.at(-1) ?? pass;
  const folded = left.map((pass, i): FoldedPass => ({
    ...pass,
    index: i,
    next: last(pass).next.map(drawn),
    exits: last(pass).exits,
    stands: (stretchAt.get(pass.index) ?? [pass]).map(({ index }) => index),
  }));
  const jumpers = foldJumpers(trace.jumpers).map((jumper) => ({ ...jumper, pass: drawn(jumper.pass) }));
  return {
    ...trace,
    passes: withColumns(folded),
    jumpers,
    sums: trace.sums.map(({ pass, from }) => ({ pass: drawn(pass), from: from.map(drawn) })),
    widths: {
      ...trace.widths,
      links: left.map((pass) => trace.widths.links[last(pass).index]),
      collapses: trace.widths.collapses.map((collapse) => ({ ...collapse, pass: drawn(collapse.pass) })),
    },
    hidden: passes.length - folded.length + trace.jumpers.length - jumpers.length,
  };
}

function foldJumpers(jumpers: readonly Jumper[]): readonly FoldedJumper[] {
  const byPass = new Map<number, Jumper[]>();
  for (const jumper of jumpers) byPass.set(jumper.pass, [...(byPass.get(jumper.pass) ?? []), jumper]);
  return [...byPass.values()].flatMap((hanging): readonly FoldedJumper[] =>
    hanging.length <= mostHanging
      ? hanging.map((jumper) => ({ ...jumper, isFolded: false }))
      : [{ ...hanging[0], holds: hanging.flatMap((jumper) => jumper.holds), isFolded: true }],
  );
}

/** Columns again, counted over what is left: the longest way from a start. */
function withColumns(passes: readonly FoldedPass[]): readonly FoldedPass[] {
  const columns = passes.map(() => 0);
  // Passes stand by their columns already, so that each is settled before those behind it; a way back is left out.
  for (const { index, next } of passes)
    for (const to of next) if (to > index) columns[to] = Math.max(columns[to], columns[index] + 1);
  return passes.map((pass, i) => ({ ...pass, column: columns[i] }));
}
