import { stronglyConnected } from './components.ts';
import type { TraceGraph } from './graph.ts';

/** A cycle of the signal. */
export interface Cycle {
  /** Devices with a section in it that does something. */
  readonly devices: readonly string[];
  /** Spectral radius of its gains, small signal, worst frequency and phase; gains are typical, unloaded. */
  readonly radius: number;
  /** Howls from 1, rings from 0.5. */
  readonly verdict: 'howls' | 'rings' | 'quiet';
}

/**
 * The cycles of a closed graph: passive sections are contracted to points (else every wire is a cycle), active
 * ones are edges with their gain; parallel ones add. A cycle is a strongly connected piece with an edge inside.
 */
export function cyclesOf(graph: TraceGraph, closed: Uint8Array): readonly Cycle[] {
  const point = contracted(graph, closed);
  if (isAcyclic(graph, closed, point)) return [];
  const edges = graph.edges
    .filter(({ index, active }) => active && closed[index] === 1)
    .map((edge) => ({ device: edge.device, from: point[edge.from], to: point[edge.to], gain: edge.gain }));
  const component = stronglyConnected(graph.nodeCount, edges);
  const inside = new Map<number, typeof edges>();
  for (const edge of edges)
    if (component[edge.from] === component[edge.to])
      inside.set(component[edge.from], [...(inside.get(component[edge.from]) ?? []), edge]);
  return [...inside.values()].map((cycle) => {
    const radius = spectralRadius(cycle);
    return {
      devices: [...new Set(cycle.map((edge) => edge.device))],
      radius,
      verdict: radius >= 1 - 1e-9 ? 'howls' : radius >= 0.5 ? 'rings' : 'quiet',
    };
  });
}

/** The point that each node is part of when its wires are drawn together. */
function contracted({ nodeCount, from, to, active }: TraceGraph, closed: Uint8Array): Int32Array {
  const parent = new Int32Array(nodeCount);
  for (let node = 0; node < nodeCount; node += 1) parent[node] = node;
  for (let edge = 0; edge < closed.length; edge += 1) {
    if (closed[edge] === 0 || active[edge] === 1) continue;
    let a = from[edge];
    while (parent[a] !== a) a = parent[a] = parent[parent[a]];
    let b = to[edge];
    while (parent[b] !== b) b = parent[b] = parent[parent[b]];
    parent[a] = b;
  }
  for (let node = 0; node < nodeCount; node += 1) {
    let root = node;
    while (parent[root] !== root) root = parent[root] = parent[parent[root]];
    parent[node] = root;
  }
  return parent;
}

/** Whether the edges can be put in an order (Kahn 1962): most rigs have no cycle, and this is told at once. */
function isAcyclic({ nodeCount, from, to, active }: TraceGraph, closed: Uint8Array, point: Int32Array): boolean {
  const arriving = new Int32Array(nodeCount);
  const first = new Int32Array(nodeCount).fill(-1);
  const after = new Int32Array(closed.length);
  let left = 0;
  for (let edge = 0; edge < closed.length; edge += 1) {
    if (closed[edge] === 0 || active[edge] === 0) continue;
    const start = point[from[edge]];
    arriving[point[to[edge]]] += 1;
    after[edge] = first[start];
    first[start] = edge;
    left += 1;
  }
  const free: number[] = [];
  for (let node = 0; node < nodeCount; node += 1) if (arriving[node] === 0 && first[node] >= 0) free.push(node);
  while (free.length > 0)
    for (let edge = first[free.pop()!]; edge >= 0; edge = after[edge]) {
      left -= 1;
      const end = point[to[edge]];
      arriving[end] -= 1;
      if (arriving[end] === 0 && first[end] >= 0) free.push(end);
    }
  return left === 0;
}

/**
 * Largest eigenvalue of a matrix of non-negative gains (Perron–Frobenius), by power iteration on I + A, which
 * converges where A alone would go round; relative error below 1e-9 or 2,000 rounds.
 */
export function spectralRadius(
  edges: readonly { readonly from: number; readonly to: number; readonly gain: number }[],
): number {
  const index = new Map<number, number>();
  for (const edge of edges) for (const node of [edge.from, edge.to]) if (!index.has(node)) index.set(node, index.size);
  let vector = new Float64Array(index.size).fill(1);
  let radius = 0;
  for (let round = 0; round < 2_000; round += 1) {
    const next = Float64Array.from(vector);
    for (const edge of edges) next[index.get(edge.to)!] += edge.gain * vector[index.get(edge.from)!];
    const norm = Math.max(...next);
    const before = radius;
    radius = norm - 1;
    vector = next.map((value) => value / norm);
    if (round > 2 && Math.abs(radius - before) < 1e-10) break;
  }
  return radius;
}
