import type { EffectKind, Literal } from '../model/anatomy.ts';
import { controlRef, type ControlRef } from '../model/documents.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';

/**
 * The trace graph of a rig: nodes are poles (poles that a cable joins are one node), edges are sections.
 * Plug presence is resolved here, once; control values are asked for at each reading.
 */
export interface TraceGraph {
  readonly nodeCount: number;
  readonly edges: readonly TraceEdge[];
  /** The nodes of each edge again, laid out flat: what is walked for every sound. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** 1 for each edge that does something. */
  readonly active: Uint8Array;
  /** Edges that leave each node. */
  readonly leaving: readonly (readonly number[])[];
  readonly arriving: readonly (readonly number[])[];
  readonly sources: readonly Terminal[];
  readonly destinations: readonly Terminal[];
  readonly nodeOf: ReadonlyMap<string, number>;
  /** Controls that decide what is connected, numbered as `control` in the edges' conditions. */
  readonly controls: readonly ControlRef[];
}

export interface TraceEdge {
  readonly index: number;
  readonly device: string;
  readonly section: string;
  readonly label: string;
  readonly from: number;
  readonly to: number;
  readonly active: boolean;
  /** Magnitude of its gain, 1 where nobody said. */
  readonly gain: number;
  readonly when: readonly { readonly ref: ControlRef; readonly control: number; readonly values: readonly Literal[] }[];
  readonly governedBy: readonly ControlRef[];
  readonly effect?: EffectKind;
}

export interface Terminal {
  readonly device: string;
  readonly node: number;
}

/** `device:in`, `device:in.ring` or `device:*bus1`; a jack's tip is written without its pole. */
export const poleKey = (device: string, point: string): string => `${device}:${point.endsWith('.tip') ? point.slice(0, -4) : point}`;

const drawn = new WeakMap<Wiring, TraceGraph>();

/** The trace graph of a wiring, drawn once. */
export function traceGraph(wiring: Wiring): TraceGraph {
  let graph = drawn.get(wiring);
  if (!graph) drawn.set(wiring, (graph = draw(wiring)));
  return graph;
}

function draw(wiring: Wiring): TraceGraph {
  const nodes = new Nodes();
  for (const cable of wiring.signalCables) joinPlugs(nodes, wiring, cable.plugs);
  const edges: TraceEdge[] = [];
  const controls: ControlRef[] = [];
  const numbered = new Map<ControlRef, number>();
  const numberOf = (ref: ControlRef): number => {
    let number = numbered.get(ref);
    if (number === undefined) numbered.set(ref, (number = controls.push(ref) - 1));
    return number;
  };
  for (const wired of wiring.devices) {
    const id = wired.device.id;
    for (const section of wired.anatomy.sections) {
      if (!plugsAllow(wired, section.when?.plugs)) continue;
      edges.push({
        index: edges.length,
        device: id,
        section: section.id,
        label: section.label,
        from: nodes.of(poleKey(id, section.from)),
        to: nodes.of(poleKey(id, section.to)),
        active: section.active,
        gain: 10 ** ((section.gainDb ?? 0) / 20),
        when: Object.entries(section.when?.controls ?? {}).map(([control, values]) => {
          const ref = controlRef(id, control);
          return { ref, control: numberOf(ref), values };
        }),
        governedBy: (section.governedBy ?? []).map((control) => controlRef(id, control)),
        effect: section.effect,
      });
    }
  }
  const terminal = (wired: WiredDevice, point: string | undefined): Terminal[] =>
    point === undefined ? [] : [{ device: wired.device.id, node: nodes.of(poleKey(wired.device.id, point)) }];
  const sources = wiring.devices.flatMap((wired) => terminal(wired, wired.anatomy.source));
  const destinations = wiring.devices.flatMap((wired) => terminal(wired, wired.anatomy.destination));
  return nodes.finish(edges, sources, destinations, controls);
}

const plugsAllow = (wired: WiredDevice, plugs: Readonly<Record<string, boolean>> | undefined): boolean =>
  Object.entries(plugs ?? {}).every(([jack, present]) => wired.plugged.has(jack) === present);

function joinPlugs(nodes: Nodes, wiring: Wiring, plugs: readonly { readonly device: string; readonly jack: string }[]): void {
  const first = new Map<string, string>();
  for (const plug of plugs) {
    const poles = wiring.device.get(plug.device)?.jack.get(plug.jack)?.poles ?? ['tip'];
    for (const pole of poles) {
      const key = poleKey(plug.device, `${plug.jack}.${pole}`);
      const other = first.get(pole);
      if (other === undefined) first.set(pole, key);
      else nodes.join(other, key);
    }
  }
}

/** Union–find over pole keys, numbered at the end. */
class Nodes {
  private readonly number = new Map<string, number>();
  private readonly parent: number[] = [];

  of(key: string): number {
    let n = this.number.get(key);
    if (n === undefined) {
      n = this.parent.length;
      this.parent.push(n);
      this.number.set(key, n);
    }
    return n;
  }

  join(a: string, b: string): void {
    this.parent[this.root(this.of(a))] = this.root(this.of(b));
  }

  private root(n: number): number {
    while (this.parent[n] !== n) {
      this.parent[n] = this.parent[this.parent[n]];
      n = this.parent[n];
    }
    return n;
  }

  finish(raw: readonly TraceEdge[], sources: readonly Terminal[], destinations: readonly Terminal[], controls: readonly ControlRef[]): TraceGraph {
    const compact = new Map<number, number>();
    const small = (n: number): number => {
      const root = this.root(n);
      let id = compact.get(root);
      if (id === undefined) compact.set(root, (id = compact.size));
      return id;
    };
    const edges: TraceEdge[] = raw.map(({ index, device, section, label, from, to, active, gain, when, governedBy, effect }) => ({ index, device, section, label, from: small(from), to: small(to), active, gain, when, governedBy, effect }));
    const ends = (list: readonly Terminal[]) => list.map((end) => ({ device: end.device, node: small(end.node) }));
    const starts = ends(sources);
    const finishes = ends(destinations);
    const nodeOf = new Map([...this.number].map(([key, n]) => [key, small(n)]));
    const leaving: number[][] = Array.from({ length: compact.size }, () => []);
    const arriving: number[][] = Array.from({ length: compact.size }, () => []);
    const from = new Int32Array(edges.length);
    const to = new Int32Array(edges.length);
    const active = new Uint8Array(edges.length);
    for (const edge of edges) {
      const { index } = edge;
      leaving[edge.from].push(index);
      arriving[edge.to].push(index);
      from[index] = edge.from;
      to[index] = edge.to;
      active[index] = edge.active ? 1 : 0;
    }
    return {
      nodeCount: compact.size,
      edges,
      from,
      to,
      active,
      leaving,
      arriving,
      sources: starts,
      destinations: finishes,
      nodeOf,
      controls,
    };
  }
}
