import type { Width } from '@yunta/core';

/** A pass as a box that a line enters at its left and leaves at its right. */
export interface RoutedBox {
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly next: readonly number[];
  /** How wide the line is to each of the next. */
  readonly widths: readonly Width[];
}

/** A straight piece of the live line. */
export interface Segment {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A stretch of the line; stereo is drawn as two. */
export interface RoutedPath {
  readonly d: string;
  readonly isStereo: boolean;
}

/** The line from pass to pass, by straight pieces. */
export interface Routed {
  readonly paths: readonly RoutedPath[];
  /** Where one stretch runs over another that it has nothing to do with. */
  readonly crossings: readonly { readonly x: number; readonly y: number }[];
  /** Which side goes along a stretch that carries one of two. */
  readonly sides: readonly { readonly x: number; readonly y: number; readonly side: 'left' | 'right' }[];
  readonly verticals: readonly Segment[];
  readonly horizontals: readonly Segment[];
}

/** Two verticals nearer than this read as one line. */
export const apart = 7;
/** So far above and below its line a pass takes the room of its row. */
const halfRow = 18;

/**
 * The live line along each pass and from each to the next. No two verticals lie on one another: where they would, the
 * later one steps aside. A line that passes others on its way goes around them, between the rows.
 */
export function routeRun(boxes: readonly RoutedBox[]): Routed {
  const verticals: Segment[] = [];
  const horizontals: Segment[] = [];
  const paths: RoutedPath[] = [];
  const sides: { x: number; y: number; side: 'left' | 'right' }[] = [];
  const isWideInto = new Set(boxes.flatMap((box) => box.next.filter((_, k) => box.widths[k] === 'stereo')));
  const entered = new Set(boxes.flatMap((box) => box.next));
  boxes.forEach((box, i) => {
    const middle = box.x + box.width / 2;
    const from = entered.has(i) ? box.x : middle;
    const to = box.next.length > 0 ? box.x + box.width : middle;
    horizontals.push({ x1: from, y1: box.y, x2: to, y2: box.y });
    const isWideOut = box.widths.includes('stereo') || (box.widths.includes('left') && box.widths.includes('right'));
    // Up to its middle it is what comes in, from there on what goes out.
    const before = entered.has(i) ? isWideInto.has(i) : isWideOut;
    const after = box.next.length > 0 ? isWideOut : isWideInto.has(i);
    if (before === after) paths.push({ d: `M ${from} ${box.y} H ${to}`, isStereo: before });
    else
      paths.push(
        { d: `M ${from} ${box.y} H ${middle}`, isStereo: before },
        { d: `M ${middle} ${box.y} H ${to}`, isStereo: after },
      );
  });
  const edges = boxes.flatMap((box, i) => box.next.map((to, k) => ({ from: i, to, width: box.widths[k] ?? 'mono' })));
  // The short ones keep their places, the long ones go around.
  const length = ({ from, to }: (typeof edges)[number]): number =>
    boxes[to].x - boxes[from].x + Math.abs(boxes[to].y - boxes[from].y) / 1000;
  for (const edge of [...edges].sort((a, b) => length(a) - length(b))) {
    const [from, to] = [boxes[edge.from], boxes[edge.to]];
    const start = from.x + from.width;
    if (edge.width === 'left' || edge.width === 'right')
      sides.push({ x: to.x + Math.max(10, to.width / 2 - 42), y: to.y - 6, side: edge.width });
    if (to.y === from.y && to.x <= start) continue;
    const isFree = (y: number) => isRowFree(boxes, edge.from, edge.to, start, to.x, y);
    const [across, ends] =
      to.x <= start
        ? [from.y, [start]]
        : isFree(from.y)
          ? [from.y, [to.x]]
          : isFree(to.y)
            ? [to.y, [start]]
            : [gapBetween(boxes, start, to.x, from.y, to.y), [start, to.x]];
    const points: (readonly [number, number])[] = [[start, from.y]];
    let y = from.y;
    for (const [n, base] of ends.entries()) {
      const next = n === ends.length - 1 ? to.y : across;
      if (next !== y) {
        const x = freeX(verticals, base, y, next);
        verticals.push({ x1: x, y1: y, x2: x, y2: next });
        points.push([x, y], [x, next]);
      }
      y = next;
    }
    points.push([to.x, to.y]);
    for (let n = 1; n < points.length; n += 1)
      if (points[n][1] === points[n - 1][1] && points[n][0] !== points[n - 1][0])
        horizontals.push({ x1: points[n - 1][0], y1: points[n - 1][1], x2: points[n][0], y2: points[n][1] });
    paths.push({ d: `M ${points.map(([x, at]) => `${x} ${at}`).join(' L ')}`, isStereo: edge.width === 'stereo' });
  }
  return { paths, verticals, horizontals, crossings: crossingsOf(verticals, horizontals), sides };
}

/** Where a vertical runs over a horizontal that does not end there. */
function crossingsOf(verticals: readonly Segment[], horizontals: readonly Segment[]): Routed['crossings'] {
  const isWithin = (at: number, one: number, other: number) =>
    at > Math.min(one, other) + 3 && at < Math.max(one, other) - 3;
  return verticals.flatMap(({ x1: x, y1, y2 }) =>
    joined(horizontals).flatMap(({ y, from, to }) => (isWithin(x, from, to) && isWithin(y, y1, y2) ? [{ x, y }] : [])),
  );
}

/** Horizontals at one height that touch are one line. */
function joined(
  horizontals: readonly Segment[],
): readonly { readonly y: number; readonly from: number; readonly to: number }[] {
  const lines: { y: number; from: number; to: number }[] = [];
  const spans = horizontals.map(({ x1, x2, y1 }) => ({ y: y1, from: Math.min(x1, x2), to: Math.max(x1, x2) }));
  for (const span of spans.sort((a, b) => a.y - b.y || a.from - b.from)) {
    const last = lines.at(-1);
    if (last && last.y === span.y && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else lines.push({ ...span });
  }
  return lines;
}

const overlap = (a1: number, a2: number, b1: number, b2: number): boolean =>
  Math.min(Math.max(a1, a2), Math.max(b1, b2)) - Math.max(Math.min(a1, a2), Math.min(b1, b2)) > 0.5;

/** The first x, from the wished one on, where no other vertical lies over these rows. */
function freeX(verticals: readonly Segment[], wished: number, y1: number, y2: number): number {
  for (let x = wished; ; x += apart)
    if (!verticals.some((other) => Math.abs(other.x1 - x) < apart - 0.5 && overlap(other.y1, other.y2, y1, y2)))
      return x;
}

/** Whether a line may run along a row between two boxes without running through another. */
const isRowFree = (boxes: readonly RoutedBox[], from: number, to: number, x1: number, x2: number, y: number): boolean =>
  !boxes.some(
    (box, i) => i !== from && i !== to && Math.abs(box.y - y) < halfRow && overlap(box.x, box.x + box.width, x1, x2),
  );

/** A height between the rows that no box takes, as near as can be to where the line comes from. */
function gapBetween(boxes: readonly RoutedBox[], x1: number, x2: number, from: number, to: number): number {
  const near = (y: number) => Math.abs(y - from) + Math.abs(y - to);
  const heights = [...new Set(boxes.map((box) => box.y))].flatMap((y) => [y - halfRow - 6, y + halfRow + 6]);
  const free = heights.filter(
    (y) => y > 4 && !boxes.some((box) => Math.abs(box.y - y) < halfRow && overlap(box.x, box.x + box.width, x1, x2)),
  );
  return free.sort((a, b) => near(a) - near(b))[0] ?? from;
}

/**
 * Where a text of some width can stand on a height without a line through it: the first place from `from` on. Null
 * where there is none up to `to`.
 */
export function freeText(
  { verticals, horizontals }: Pick<Routed, 'verticals' | 'horizontals'>,
  {
    from,
    to,
    width,
    top,
    bottom,
  }: {
    readonly from: number;
    readonly to: number;
    readonly width: number;
    readonly top: number;
    readonly bottom: number;
  },
): number | null {
  const blocking = [
    ...verticals.filter((line) => overlap(line.y1, line.y2, top, bottom)).map((line) => [line.x1 - 3, line.x1 + 3]),
    ...horizontals
      .filter((line) => line.y1 > top && line.y1 < bottom)
      .map((line) => [Math.min(line.x1, line.x2), Math.max(line.x1, line.x2)]),
  ].sort((a, b) => a[0] - b[0]);
  let x = from;
  for (const [left, right] of blocking) if (left < x + width && right > x) x = right + 2;
  return x + width <= to ? x : null;
}
