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
  const { from, to, leaving, arriving, nodeCount } = graph;
  const closed = new Uint8Array(from.length);
  const forward = new Uint8Array(nodeCount);
  const stack: number[] = [];
  for (const { node } of graph.sources) {
    forward[node] = 1;
    stack.push(node);
  }
  while (stack.length > 0) {
    const out = leaving[stack.pop()!];
    for (let i = 0; i < out.length; i += 1) {
      const edge = out[i];
      if (closed[edge] === 1 || !isEdgeClosed(edge)) continue;
      closed[edge] = 1;
      if (forward[to[edge]] === 1) continue;
      forward[to[edge]] = 1;
      stack.push(to[edge]);
    }
  }
  const backward = new Uint8Array(nodeCount);
  const edges = new Uint8Array(from.length);
  let sounds = false;
  for (const { node } of graph.destinations)
    if (forward[node] === 1) {
      sounds = true;
      backward[node] = 1;
      stack.push(node);
    }
  while (stack.length > 0) {
    const into = arriving[stack.pop()!];
    for (let i = 0; i < into.length; i += 1) {
      const edge = into[i];
      if (closed[edge] === 0) continue;
      edges[edge] = 1;
      if (backward[from[edge]] === 1) continue;
      backward[from[edge]] = 1;
      stack.push(from[edge]);
    }
  }
  return { edges, forward, sounds };
}
