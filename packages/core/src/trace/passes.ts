import type { WiredDevice, Wiring } from '../model/wiring.ts';
import type { EffectKind } from '../model/anatomy.ts';
import type { TraceGraph } from './graph.ts';

/** A maximal run of the signal inside one device between arriving and leaving by cable. */
export interface Pass {
  readonly index: number;
  readonly device: string;
  /** Column of the signal's time: the longest way from a source, counted in passes. */
  readonly column: number;
  /** Jacks by which it comes in and goes out; empty at the line's ends. */
  readonly entries: readonly string[];
  readonly exits: readonly string[];
  /** Sections that do something here, in the order of the device. */
  readonly does: readonly string[];
  /** What that is, as far as it is told. */
  readonly effects: readonly EffectKind[];
  /** In line but doing nothing: bypassed by its own switch. */
  readonly bypassed: boolean;
  readonly next: readonly number[];
}

/** Live sections of one device that hang together: what a pass is before its place in the run is known. */
interface Way {
  readonly device: number;
  readonly edges: readonly number[];
  readonly froms: readonly number[];
  readonly tos: readonly number[];
  readonly told: Omit<Pass, 'index' | 'column' | 'next'>;
}

/** A device with its sections, which follow each other in the graph. */
interface Stretch {
  readonly wired: WiredDevice;
  readonly first: number;
  readonly end: number;
}

/** Ways found so far, by their sections one after the other. */
interface Known {
  way?: Way;
  readonly then: Map<number, Known>;
}

/** Finds the passes that some sections of a graph make up. What a way through a device is gets worked out once. */
export class Passes {
  private readonly stretches: readonly Stretch[];
  private readonly known: Known = { then: new Map() };
  private readonly parent: Int32Array;
  private readonly groupAt: Int32Array;

  constructor(
    wiring: Wiring,
    private readonly graph: TraceGraph,
    private readonly jackAt: ReadonlyMap<number, readonly { readonly device: string; readonly jack: string }[]>,
  ) {
    const stretches: Stretch[] = [];
    for (let first = 0; first < graph.edges.length; ) {
      const { device } = graph.edges[first];
      let end = first;
      while (end < graph.edges.length && graph.edges[end].device === device) end += 1;
      stretches.push({ wired: wiring.device.get(device)!, first, end });
      first = end;
    }
    this.stretches = stretches;
    this.parent = new Int32Array(graph.nodeCount);
    this.groupAt = new Int32Array(graph.nodeCount);
  }

  /** `run[e]` is 1 for each section of the run; `passOf[e]` is its pass, or −1. */
  of(run: Uint8Array): { readonly passes: readonly Pass[]; readonly passOf: Int32Array } {
    const ways: Way[] = [];
    for (let i = 0; i < this.stretches.length; i += 1) for (const group of this.groups(this.stretches[i], run)) ways.push(this.wayOf(i, group));
    const next = this.follow(ways);
    const column = longest(next);
    const order = Int32Array.from(ways, (_, i) => column[i] * ways.length + i).sort();
    const place = new Int32Array(ways.length);
    for (let index = 0; index < order.length; index += 1) {
      order[index] %= ways.length;
      place[order[index]] = index;
    }
    const passOf = new Int32Array(this.graph.edges.length).fill(-1);
    const passes = new Array<Pass>(ways.length);
    for (let index = 0; index < order.length; index += 1) {
      const way = ways[order[index]];
      for (const edge of way.edges) passOf[edge] = index;
      const after = next[order[index]].map((other) => place[other]);
      const { device, entries, exits, does, effects, bypassed } = way.told;
      passes[index] = { index, device, column: column[order[index]], entries, exits, does, effects, bypassed, next: after.length > 1 ? after.sort((a, b) => a - b) : after };
    }
    return { passes, passOf };
  }

  /** The live sections of a device, those together that hang together (union–find over its nodes). */
  private groups({ first, end }: Stretch, run: Uint8Array): readonly number[][] {
    const { parent, groupAt } = this;
    const { from, to } = this.graph;
    for (let edge = first; edge < end; edge += 1) {
      if (run[edge] !== 1) continue;
      parent[from[edge]] = from[edge];
      parent[to[edge]] = to[edge];
    }
    const root = (node: number): number => {
      let here = node;
      while (parent[here] !== here) here = parent[here] = parent[parent[here]];
      return here;
    };
    for (let edge = first; edge < end; edge += 1) {
      if (run[edge] !== 1) continue;
      const [a, b] = [root(from[edge]), root(to[edge])];
      parent[a] = b;
      groupAt[a] = groupAt[b] = -1;
    }
    const groups: number[][] = [];
    for (let edge = first; edge < end; edge += 1) {
      if (run[edge] !== 1) continue;
      const at = root(from[edge]);
      if (groupAt[at] < 0) groupAt[at] = groups.push([]) - 1;
      groups[groupAt[at]].push(edge);
    }
    return groups;
  }

  private wayOf(stretch: number, group: readonly number[]): Way {
    let known = this.known;
    for (const edge of group) {
      let next = known.then.get(edge);
      if (!next) known.then.set(edge, (next = { then: new Map() }));
      known = next;
    }
    return (known.way ??= this.way(stretch, group));
  }

  private way(stretch: number, group: readonly number[]): Way {
    const { wired } = this.stretches[stretch];
    const edges = group.map((edge) => this.graph.edges[edge]);
    const froms = [...new Set(edges.map((edge) => edge.from))];
    const tos = [...new Set(edges.map((edge) => edge.to))];
    const active = edges.filter((edge) => edge.active);
    return {
      device: stretch,
      edges: group,
      froms,
      tos,
      told: {
        device: wired.device.id,
        entries: froms.filter((node) => !tos.includes(node)).flatMap((node) => this.jacksOf(wired, node, 'signal-in')),
        exits: tos.filter((node) => !froms.includes(node)).flatMap((node) => this.jacksOf(wired, node, 'signal-out')),
        does: active.map((edge) => edge.label),
        effects: active.flatMap((edge) => (edge.effect === undefined ? [] : [edge.effect])),
        bypassed: active.length === 0 && wired.anatomy.ownSwitch !== undefined,
      },
    };
  }

  private jacksOf(wired: WiredDevice, node: number, kind: string): string[] {
    return (this.jackAt.get(node) ?? []).filter((one) => one.device === wired.device.id && wired.jack.get(one.jack)!.kind === kind).map((one) => one.jack);
  }

  /** For each way, those of other devices that begin where it ends. */
  private follow(ways: readonly Way[]): number[][] {
    const starts: (number[] | undefined)[] = new Array(this.graph.nodeCount);
    for (let i = 0; i < ways.length; i += 1) for (const node of ways[i].froms) (starts[node] ??= []).push(i);
    const added = new Int32Array(ways.length).fill(-1);
    return ways.map((way, i) => {
      const next: number[] = [];
      for (const node of way.tos) {
        const there = starts[node];
        if (!there) continue;
        for (const other of there) {
          if (added[other] === i || ways[other].device === way.device) continue;
          added[other] = i;
          next.push(other);
        }
      }
      return next;
    });
  }
}

/** Longest distance from a start, circles cut where they close. */
function longest(next: readonly (readonly number[])[]): Int32Array {
  const distance = new Int32Array(next.length);
  const left = new Int32Array(next.length);
  for (const list of next) for (const to of list) left[to] += 1;
  const queue: number[] = [];
  for (let i = 0; i < next.length; i += 1) if (left[i] === 0) queue.push(i);
  if (queue.length === 0 && next.length > 0) queue.push(0);
  for (let at = 0; at < queue.length; at += 1) {
    const here = queue[at];
    for (const to of next[here]) {
      if (distance[to] <= distance[here]) distance[to] = distance[here] + 1;
      left[to] -= 1;
      if (left[to] === 0) queue.push(to);
    }
  }
  return distance;
}
