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

/** A device with its sections, which follow each other in the graph; its jacks at their nodes, as far as somebody asked. */
interface Stretch {
  readonly wired: WiredDevice;
  readonly first: number;
  readonly end: number;
  readonly jacks: Map<number, Jacks>;
  /** What its ways were before, by which of its sections are live, where they are few enough for the bits of a number. */
  readonly known: Map<number, Ways>;
}

/** The ways through one device: for each of its sections, counted from the device's first, its way or −1. */
interface Ways {
  readonly ways: readonly Way[];
  readonly wayOf: Int32Array;
}

interface Jacks {
  readonly ins: readonly string[];
  readonly outs: readonly string[];
}

/** A pass before its place in the run is known: live sections of one device that hang together. */
interface Way {
  readonly device: string;
  entries: readonly string[];
  exits: readonly string[];
  does: readonly string[];
  effects: readonly EffectKind[];
  isActive: boolean;
  /** Its number, different from every other's. */
  readonly mark: number;
  readonly hasOwnSwitch: boolean;
  /** Stretch that it is in; nodes with jacks that its sections begin and end at, each once. */
  readonly stretch: number;
  froms: readonly number[];
  tos: readonly number[];
}

const nothing: readonly never[] = [];
const noWays: Ways = { ways: nothing, wayOf: new Int32Array(0) };
const noJacks: Jacks = { ins: nothing, outs: nothing };

/** Finds the passes that some sections of a graph make up. */
export class Passes {
  private readonly stretches: readonly Stretch[];
  /** The stretch of each section. */
  private readonly stretchOf: Int32Array;
  // Scratch by node, used again for each run. A mark holds the number of the way that it was made for.
  private readonly parent: Int32Array;
  private readonly wayAt: Int32Array;
  private readonly begins: Int32Array;
  private readonly ends: Int32Array;
  private counted = 0;
  // Scratch of one run. The ways that begin at a node, as a chain: `chainAt` its first link; of each link the way and the link after it.
  private readonly chainAt: Int32Array;
  private readonly linked: Int32Array;
  private readonly linkAfter: Int32Array;
  private readonly added: Int32Array;
  private readonly column: Int32Array;
  private readonly place: Int32Array;
  private readonly left: Int32Array;
  private readonly queue: Int32Array;
  private readonly first: Int32Array;
  private readonly own: Int32Array;
  /** Of the last run: its ways (more may stand there, of longer runs), those through each stretch, and how many there were before its first. */
  private readonly ways: Way[] = [];
  private readonly through: Ways[];
  private readonly before: Int32Array;

  constructor(
    wiring: Wiring,
    private readonly graph: TraceGraph,
  ) {
    const stretches: Stretch[] = [];
    const { edges } = graph;
    this.stretchOf = new Int32Array(edges.length);
    for (let first = 0; first < edges.length; ) {
      const { device } = edges[first];
      let end = first;
      while (end < edges.length && edges[end].device === device) this.stretchOf[end++] = stretches.length;
      stretches.push({ wired: wiring.device.get(device)!, first, end, jacks: new Map(), known: new Map() });
      first = end;
    }
    this.stretches = stretches;
    this.parent = new Int32Array(graph.nodeCount);
    this.wayAt = new Int32Array(graph.nodeCount);
    this.begins = new Int32Array(graph.nodeCount);
    this.ends = new Int32Array(graph.nodeCount);
    this.chainAt = new Int32Array(graph.nodeCount);
    const most = edges.length + 2;
    this.linked = new Int32Array(most);
    this.linkAfter = new Int32Array(most);
    this.added = new Int32Array(most);
    this.column = new Int32Array(most);
    this.place = new Int32Array(most);
    this.left = new Int32Array(most);
    this.queue = new Int32Array(most);
    this.first = new Int32Array(most);
    this.own = new Int32Array(most);
    this.through = stretches.map(() => noWays);
    this.before = new Int32Array(stretches.length);
  }

  /** `run[e]` is 1 for each section of the run. */
  of(run: Uint8Array): readonly Pass[] {
    const { through, before, ways } = this;
    let count = 0;
    for (let i = 0; i < through.length; i += 1) {
      const here = (through[i] = this.waysThrough(i, run));
      before[i] = count;
      for (let k = 0; k < here.ways.length; k += 1) ways[count++] = here.ways[k];
    }
    const next = this.follow(count);
    this.findColumns(next);
    this.findPlaces(count);
    const { column, place } = this;
    const passes = new Array<Pass>(count);
    for (let at = 0; at < count; at += 1) {
      const { device, entries, exits, does, effects, isActive, hasOwnSwitch } = ways[at];
      const index = place[at];
      const after = next[at];
      for (let i = 0; i < after.length; i += 1) after[i] = place[after[i]];
      if (after.length > 1) after.sort((a, b) => a - b);
      passes[index] = { index, device, column: column[at], entries, exits, does, effects, bypassed: !isActive && hasOwnSwitch, next: after };
    }
    return passes;
  }

  /** The pass of the last run that a section is in, or −1. */
  passOf(edge: number): number {
    const stretch = this.stretchOf[edge];
    const here = this.through[stretch];
    const way = here === noWays ? -1 : here.wayOf[edge - this.stretches[stretch].first];
    return way < 0 ? -1 : this.place[this.before[stretch] + way];
  }

  /** The ways through a device whose live sections are those of a run. */
  private waysThrough(stretch: number, run: Uint8Array): Ways {
    const { first, end, known } = this.stretches[stretch];
    if (end - first > 30) return this.findWays(stretch, run);
    let bits = 0;
    for (let edge = first; edge < end; edge += 1) if (run[edge] === 1) bits |= 1 << (edge - first);
    if (bits === 0) return noWays;
    let ways = known.get(bits);
    if (!ways) known.set(bits, (ways = this.findWays(stretch, run)));
    return ways;
  }

  /** Live sections that hang together are one way (union–find over the device's nodes). */
  private findWays(stretch: number, run: Uint8Array): Ways {
    const { parent, wayAt, begins, ends, own } = this;
    const { edges, from, to, jacks } = this.graph;
    const { wired, first, end } = this.stretches[stretch];
    const ways: Way[] = [];
    const wayOf = new Int32Array(end - first).fill(-1);
    let count = 0;
    for (let edge = first; edge < end; edge += 1) if (run[edge] === 1) own[count++] = edge;
    for (let i = 0; i < count; i += 1) {
      const edge = own[i];
      parent[from[edge]] = from[edge];
      parent[to[edge]] = to[edge];
      wayAt[from[edge]] = wayAt[to[edge]] = -1;
    }
    for (let i = 0; i < count; i += 1) parent[this.root(from[own[i]])] = this.root(to[own[i]]);
    for (let i = 0; i < count; i += 1) {
      const edge = own[i];
      const root = this.root(from[edge]);
      if (wayAt[root] < 0) {
        wayAt[root] = ways.length;
        this.counted += 1;
        ways.push({ device: wired.device.id, entries: nothing, exits: nothing, does: nothing, effects: nothing, isActive: false, mark: this.counted, hasOwnSwitch: wired.anatomy.ownSwitch !== undefined, stretch, froms: nothing, tos: nothing });
      }
      const way = ways[wayAt[root]];
      wayOf[edge - first] = wayAt[root];
      if (begins[from[edge]] !== way.mark) {
        begins[from[edge]] = way.mark;
        if (jacks[from[edge]].length > 0) way.froms = also(way.froms, from[edge]);
      }
      if (ends[to[edge]] !== way.mark) {
        ends[to[edge]] = way.mark;
        if (jacks[to[edge]].length > 0) way.tos = also(way.tos, to[edge]);
      }
      if (!edges[edge].active) continue;
      way.isActive = true;
      way.does = also(way.does, edges[edge].label);
      if (edges[edge].effect !== undefined) way.effects = also(way.effects, edges[edge].effect!);
    }
    for (const way of ways) {
      for (const node of way.froms) if (ends[node] !== way.mark) way.entries = joined(way.entries, this.jacks(stretch, node).ins);
      for (const node of way.tos) if (begins[node] !== way.mark) way.exits = joined(way.exits, this.jacks(stretch, node).outs);
    }
    return { ways, wayOf };
  }

  private jacks(stretch: number, node: number): Jacks {
    const { wired, jacks } = this.stretches[stretch];
    let here = jacks.get(node);
    if (!here) jacks.set(node, (here = jacksOf(wired, this.graph.jacks[node])));
    return here;
  }

  private root(node: number): number {
    const { parent } = this;
    let here = node;
    while (parent[here] !== here) here = parent[here] = parent[parent[here]];
    return here;
  }

  /** For each of the run's ways, those of other devices that begin where it ends. */
  private follow(count: number): number[][] {
    const { ways, chainAt, linked, linkAfter, added } = this;
    chainAt.fill(-1);
    let links = 0;
    for (let i = 0; i < count; i += 1) {
      added[i] = 0;
      const { froms } = ways[i];
      for (let k = 0; k < froms.length; k += 1) {
        linked[links] = i;
        linkAfter[links] = chainAt[froms[k]];
        chainAt[froms[k]] = links;
        links += 1;
      }
    }
    const next = new Array<number[]>(count);
    for (let i = 0; i < count; i += 1) {
      const { tos, stretch } = ways[i];
      // Mostly one: an array made with it is a tenth of one that it is pushed to.
      let after: number[] | undefined;
      for (let k = 0; k < tos.length; k += 1)
        for (let link = chainAt[tos[k]]; link >= 0; link = linkAfter[link]) {
          const other = linked[link];
          if (added[other] === i + 1 || ways[other].stretch === stretch) continue;
          added[other] = i + 1;
          if (after) after.push(other);
          else after = [other];
        }
      next[i] = after ?? [];
    }
    return next;
  }

  /** The column of each: the longest distance from a start, circles cut where they close. */
  private findColumns(next: readonly (readonly number[])[]): void {
    const { column, left, queue } = this;
    const count = next.length;
    column.fill(0, 0, count);
    left.fill(0, 0, count);
    for (let i = 0; i < count; i += 1) for (let k = 0; k < next[i].length; k += 1) left[next[i][k]] += 1;
    let queued = 0;
    for (let i = 0; i < count; i += 1) if (left[i] === 0) queue[queued++] = i;
    if (queued === 0 && count > 0) queue[queued++] = 0;
    for (let at = 0; at < queued; at += 1) {
      const here = queue[at];
      for (let k = 0; k < next[here].length; k += 1) {
        const to = next[here][k];
        if (column[to] <= column[here]) column[to] = column[here] + 1;
        left[to] -= 1;
        if (left[to] === 0) queue[queued++] = to;
      }
    }
  }

  /** The place of each of so many by its column, those of one column as they came. */
  private findPlaces(count: number): void {
    const { column, first, place } = this;
    first.fill(0, 0, count + 1);
    for (let i = 0; i < count; i += 1) first[column[i] + 1] += 1;
    for (let i = 1; i <= count; i += 1) first[i] += first[i - 1];
    for (let i = 0; i < count; i += 1) {
      place[i] = first[column[i]];
      first[column[i]] += 1;
    }
  }
}

const joined = <T>(list: readonly T[], more: readonly T[]): readonly T[] => (list.length === 0 ? more : more.length === 0 ? list : [...list, ...more]);
const also = <T>(list: readonly T[], one: T): readonly T[] => (list.length === 0 ? [one] : [...list, one]);

/** Those of a node's jacks that are a device's own. */
function jacksOf(wired: WiredDevice, jacks: TraceGraph['jacks'][number]): Jacks {
  let here = noJacks;
  for (const { device, jack } of jacks) {
    const kind = device === wired.device.id ? wired.jack.get(jack)!.kind : undefined;
    if (kind === 'signal-in') here = { ins: also(here.ins, jack), outs: here.outs };
    else if (kind === 'signal-out') here = { ins: here.ins, outs: also(here.outs, jack) };
  }
  return here;
}
