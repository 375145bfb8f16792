import type { Side } from '../model/anatomy.ts';
import type { SidedPole, TraceGraph } from './graph.ts';
import type { Live } from './live.ts';
import type { Pass } from './passes.ts';

/** How wide the signal goes from one pass to the next: both sides, one of them, or mono. */
export type Width = 'mono' | 'stereo' | Side;

/** A point where a stereo signal ends being one though the line goes on. */
export interface Collapse {
  /** `summed`: both sides go on as one; `lost`: this side goes nowhere, the other on. */
  readonly kind: 'summed' | 'lost';
  readonly device: string;
  /** Where a side is lost: the output that it ends at, and which side it is. */
  readonly lost?: { readonly jack: string; readonly side: Side };
  readonly pass: number;
}

export interface Widths {
  /** Of each pass, for each of its next ones in their order; empty where all is mono. */
  readonly links: readonly (readonly Width[])[];
  readonly collapses: readonly Collapse[];
}

/** All is mono. */
export const monoThroughout: Widths = { links: [], collapses: [] };

/**
 * Left and right apart, along the passes of a run. `passOf`: the pass of a section. A collapse is told only where the
 * sides differ: something works on one of them that does not work on the other.
 */
export function widthsOf(
  graph: TraceGraph,
  live: Live,
  passes: readonly Pass[],
  passOf: (edge: number) => number,
): Widths {
  if (graph.sided.length === 0) return monoThroughout;
  const { from, to } = graph;
  const begins = passes.map(() => new Set<number>());
  const ends = passes.map(() => new Set<number>());
  for (let edge = 0; edge < from.length; edge += 1) {
    const pass = passOf(edge);
    if (pass < 0) continue;
    begins[pass].add(from[edge]);
    ends[pass].add(to[edge]);
  }
  const polesAt = new Map<number, SidedPole[]>();
  for (const pole of graph.sided) polesAt.set(pole.node, [...(polesAt.get(pole.node) ?? []), pole]);
  const outOf = (node: number, device: string) =>
    polesAt.get(node)?.find((pole) => pole.device === device && pole.isOut);
  /** The nodes that two passes share, by the side of each: that of the output, else that of the input. */
  const shared = (pass: Pass, next: number): Sides => {
    const nodes = [...ends[pass.index]].filter((node) => begins[next].has(node));
    const sides = new Map<Side | 'mono', number>();
    for (const node of nodes) {
      const out = outOf(node, pass.device);
      const into = polesAt.get(node)?.find((pole) => pole.device === passes[next].device && !pole.isOut);
      // A left jack alone is mono: it is a side only where its twin goes somewhere too.
      const hasTwin =
        out !== undefined && graph.sided.some((pole) => isTwin(pole, out) && ends[pass.index].has(pole.node));
      sides.set((nodes.length > 1 || hasTwin ? (out ?? into)?.side : undefined) ?? 'mono', node);
    }
    return sides;
  };
  const nodes = passes.map((pass) => pass.next.map((next) => shared(pass, next)));
  return {
    links: nodes.map((own) => own.map(widthOf)),
    collapses: [...summed(graph, live, passes, nodes), ...lost(graph, live, passes, ends)],
  };
}

type Sides = ReadonlyMap<Side | 'mono', number>;

const isTwin = (one: SidedPole, other: SidedPole): boolean =>
  one.device === other.device && one.pair === other.pair && one.isOut === other.isOut && one.side !== other.side;

const widthOf = (nodes: Sides): Width => {
  const [left, right] = [nodes.has('left'), nodes.has('right')];
  if (left && right) return 'stereo';
  return nodes.has('mono') ? 'mono' : left ? 'left' : right ? 'right' : 'mono';
};

/** Passes that both sides come into and that only one signal goes on from. */
function summed(
  graph: TraceGraph,
  live: Live,
  passes: readonly Pass[],
  nodes: readonly (readonly Sides[])[],
): readonly Collapse[] {
  const found: Collapse[] = [];
  for (const pass of passes) {
    const out = nodes[pass.index].map(widthOf);
    if (out.length === 0 || out.includes('stereo') || (out.includes('left') && out.includes('right'))) continue;
    const isFed = passes.some((before) =>
      before.next.some((next, i) => {
        const sides = nodes[before.index][i];
        return (
          next === pass.index &&
          widthOf(sides) === 'stereo' &&
          differs(graph, live.edges, sides.get('left')!, sides.get('right')!)
        );
      }),
    );
    if (isFed) found.push({ kind: 'summed', device: pass.device, pass: pass.index });
  }
  return found;
}

/** Outputs of a pair of which one goes on and the other, though the signal comes to it, does not. */
function lost(
  graph: TraceGraph,
  live: Live,
  passes: readonly Pass[],
  ends: readonly ReadonlySet<number>[],
): readonly Collapse[] {
  const goesOn = (node: number, edges: Uint8Array): boolean => {
    for (let k = graph.leaving.start[node]; k < graph.leaving.start[node + 1]; k += 1)
      if (edges[graph.leaving.items[k]] === 1) return true;
    return false;
  };
  return graph.sided.flatMap((pole): readonly Collapse[] => {
    if (!pole.isOut || live.forward[pole.node] !== 1 || goesOn(pole.node, live.reached)) return [];
    const twin = graph.sided.find((other) => isTwin(other, pole));
    if (!twin || twin.node === pole.node || !goesOn(twin.node, live.edges)) return [];
    const pass = passes.find((each) => each.device === pole.device && ends[each.index].has(twin.node));
    if (!pass || !differs(graph, live.reached, pole.node, twin.node)) return [];
    return [{ kind: 'lost', device: pole.device, lost: { jack: pole.jack, side: pole.side }, pass: pass.index }];
  });
}

/** Whether other sections work on what comes to one node than on what comes to another. */
function differs(graph: TraceGraph, edges: Uint8Array, left: number, right: number): boolean {
  const [one, other] = [left, right].map((node) => workingOn(graph, edges, node));
  return one.size !== other.size || [...one].some((edge) => !other.has(edge));
}

function workingOn({ arriving, active, from }: TraceGraph, edges: Uint8Array, node: number): ReadonlySet<number> {
  const found = new Set<number>();
  const seen = new Set([node]);
  const stack = [node];
  while (stack.length > 0) {
    const here = stack.pop()!;
    for (let k = arriving.start[here]; k < arriving.start[here + 1]; k += 1) {
      const edge = arriving.items[k];
      if (edges[edge] !== 1) continue;
      if (active[edge] === 1) found.add(edge);
      if (seen.has(from[edge])) continue;
      seen.add(from[edge]);
      stack.push(from[edge]);
    }
  }
  return found;
}
