import { stronglyConnected } from './components.ts';
import type { TraceEdge } from './graph.ts';

/** A circle of the signal. */
export interface Circle {
  /** Devices with a section in it that does something. */
  readonly devices: readonly string[];
  /** Spectral radius of its gains, small signal, worst frequency and phase; gains are typical, unloaded. */
  readonly radius: number;
  /** Howls from 1, rings from 0.5. */
  readonly verdict: 'howls' | 'rings' | 'quiet';
}

/**
 * The circles of a closed graph: passive sections are contracted to points (else every wire is a circle), active
 * ones are edges with their gain; parallel ones add. A circle is a strongly connected piece with an edge inside.
 */
export function circlesOf(nodeCount: number, closed: readonly TraceEdge[]): readonly Circle[] {
  const point = contracted(nodeCount, closed.filter((edge) => !edge.active));
  const edges = closed.filter((edge) => edge.active).map((edge) => ({ device: edge.device, from: point(edge.from), to: point(edge.to), gain: edge.gain }));
  const component = stronglyConnected(nodeCount, edges);
  const inside = new Map<number, typeof edges>();
  for (const edge of edges) if (component[edge.from] === component[edge.to]) inside.set(component[edge.from], [...(inside.get(component[edge.from]) ?? []), edge]);
  return [...inside.values()].map((circle) => {
    const radius = spectralRadius(circle);
    return { devices: [...new Set(circle.map((edge) => edge.device))], radius, verdict: radius >= 1 - 1e-9 ? 'howls' : radius >= 0.5 ? 'rings' : 'quiet' };
  });
}

function contracted(nodeCount: number, wires: readonly TraceEdge[]): (node: number) => number {
  const parent = Array.from({ length: nodeCount }, (_, i) => i);
  const root = (node: number): number => {
    let here = node;
    while (parent[here] !== here) here = parent[here] = parent[parent[here]];
    return here;
  };
  for (const wire of wires) parent[root(wire.from)] = root(wire.to);
  return root;
}

/**
 * Largest eigenvalue of a matrix of non-negative gains (Perron–Frobenius), by power iteration on I + A, which
 * converges where A alone would go round; relative error below 1e-9 or 2,000 rounds.
 */
export function spectralRadius(edges: readonly { readonly from: number; readonly to: number; readonly gain: number }[]): number {
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
