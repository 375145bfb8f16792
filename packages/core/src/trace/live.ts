import type { TraceGraph } from './graph.ts';

export interface Live {
  /** 1 for each edge on a path from a source to a destination. */
  readonly edges: Uint8Array;
  /** 1 for each node that a source reaches. */
  readonly forward: Uint8Array;
  /** 1 for each closed edge that sound comes to. */
  readonly reached: Uint8Array;
  readonly sounds: boolean;
  /** Whether all that sound comes to lies on a path to a destination. */
  readonly isWhole: boolean;
  /** Whether sound comes to each node by one edge at most, and to no source: no ways meet, nothing comes round. */
  readonly isTree: boolean;
}

/** Stands where nobody has said yet whether an edge is closed. */
const unasked = 2;
const never = (): boolean => false;

/** Finds the sections on a path from a source to a destination, again and again on one graph. */
export class ReachabilitySearch {
  // Used again for each question.
  private readonly backward: Uint8Array;
  private readonly stack: Int32Array;
  private readonly asked: Uint8Array;

  constructor(private readonly graph: TraceGraph) {
    this.backward = new Uint8Array(graph.nodeCount);
    this.stack = new Int32Array(graph.nodeCount + graph.sources.length + graph.destinations.length);
    this.asked = new Uint8Array(graph.edges.length);
  }

  /** Asks about an edge at most once, and only where sound can reach it. */
  live(isEdgeClosed: (index: number) => boolean): Live {
    return this.among(this.asked.fill(unasked), isEdgeClosed);
  }

  /** `closed`: 1 for each edge that is closed, 0 for each that is not. */
  liveAmong(closed: Uint8Array): Live {
    return this.among(closed, never);
  }

  private among(closed: Uint8Array, isEdgeClosed: (index: number) => boolean): Live {
    const { backward, stack } = this;
    const { from, to, leaving, arriving, sources, destinations, nodeCount } = this.graph;
    backward.fill(0);
    const forward = new Uint8Array(nodeCount);
    const reached = new Uint8Array(from.length);
    let astray = 0;
    let isTree = true;
    let height = 0;
    for (let i = 0; i < sources.length; i += 1) {
      if (forward[sources[i].node] === 1) continue;
      forward[sources[i].node] = 1;
      stack[height++] = sources[i].node;
    }
    while (height > 0) {
      const node = stack[--height];
      for (let k = leaving.start[node]; k < leaving.start[node + 1]; k += 1) {
        const edge = leaving.items[k];
        if (closed[edge] === 0 || (closed[edge] === unasked && !isEdgeClosed(edge))) continue;
        reached[edge] = 1;
        astray += 1;
        if (forward[to[edge]] === 1) {
          isTree = false;
          continue;
        }
        forward[to[edge]] = 1;
        stack[height++] = to[edge];
      }
    }
    const edges = new Uint8Array(from.length);
    let sounds = false;
    for (let i = 0; i < destinations.length; i += 1) {
      const { node } = destinations[i];
      if (forward[node] !== 1 || backward[node] === 1) continue;
      sounds = true;
      backward[node] = 1;
      stack[height++] = node;
    }
    while (height > 0) {
      const node = stack[--height];
      for (let k = arriving.start[node]; k < arriving.start[node + 1]; k += 1) {
        const edge = arriving.items[k];
        if (reached[edge] === 0) continue;
        edges[edge] = 1;
        astray -= 1;
        if (backward[from[edge]] === 1) continue;
        backward[from[edge]] = 1;
        stack[height++] = from[edge];
      }
    }
    let isWhole = astray === 0;
    for (let i = 0; i < sources.length; i += 1) if (backward[sources[i].node] === 0) isWhole = false;
    return { edges, forward, reached, sounds, isWhole, isTree };
  }
}
