import type { TraceGraph } from './graph.ts';

export interface Live {
  /** 1 for each edge on a path from a source to a destination. */
  readonly edges: Uint8Array;
  /** 1 for each node that a source reaches. */
  readonly forward: Uint8Array;
  readonly sounds: boolean;
}

/** Sections on a path from a source to a destination. Asks about an edge at most once, and only where sound can reach it. */
export function liveEdges(graph: TraceGraph, isEdgeClosed: (index: number) => boolean): Live {
  const known = new Int8Array(graph.edges.length);
  const isClosed = (index: number): boolean => {
    if (known[index] === 0) known[index] = isEdgeClosed(index) ? 1 : 2;
    return known[index] === 1;
  };
  const forward = new Uint8Array(graph.nodeCount);
  const stack = graph.sources.map((source) => source.node);
  for (const node of stack) forward[node] = 1;
  const passed: number[] = [];
  while (stack.length > 0) {
    const node = stack.pop()!;
    for (const index of graph.leaving[node]) {
      if (!isClosed(index)) continue;
      passed.push(index);
      const { to } = graph.edges[index];
      if (!forward[to]) {
        forward[to] = 1;
        stack.push(to);
      }
    }
  }
  const backward = new Uint8Array(graph.nodeCount);
  let sounds = false;
  for (const end of graph.destinations)
    if (forward[end.node]) {
      sounds = true;
      backward[end.node] = 1;
      stack.push(end.node);
    }
  while (stack.length > 0) {
    const node = stack.pop()!;
    for (const index of graph.arriving[node]) {
      const { from } = graph.edges[index];
      if (known[index] === 1 && forward[from] && !backward[from]) {
        backward[from] = 1;
        stack.push(from);
      }
    }
  }
  const edges = new Uint8Array(graph.edges.length);
  for (const index of passed) if (backward[graph.edges[index].to]) edges[index] = 1;
  return { edges, forward, sounds };
}
