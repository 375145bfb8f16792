import type { WiredDevice, Wiring } from '../model/wiring.ts';
import type { EffectKind } from '../model/anatomy.ts';
import type { TraceGraph } from './graph.ts';
import { also } from './csr.ts';

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

/**
 * A device with its sections, which follow each other in the graph; its jacks at their nodes, as far as somebody asked.
 */
interface DeviceSections {
  readonly wired: WiredDevice;
  readonly first: number;
  readonly end: number;
  readonly jacks: Map<number, Jacks>;
  /**
   * What its ways were before, by which of its sections are live, where they are few enough for the bits of a number;
   * else room for those of one run.
   */
  readonly known: Map<number, Ways>;
  readonly room: Ways | null;
}

/**
 * The ways through one device: for each of its sections, counted from the device's first, its way or −1. Where the room
 * is used again, more of an earlier run may stand behind them.
 */
interface Ways {
  readonly ways: Way[];
  count: number;
  readonly wayOf: number[];
}

const waysRoom = (): Ways => ({ ways: [], count: 0, wayOf: [] });

interface Jacks {
  readonly ins: readonly string[];
  readonly outs: readonly string[];
}

/**
 * A pass before its place in the run is known: live sections of one device that hang together. The very same in every
 * run that takes them so.
 */
interface Way {
  /** Its sections, in the order of the device. */
  readonly sections: readonly number[];
  /** Another way that begins with the same section. */
  readonly other: Way | undefined;
  readonly device: string;
  readonly entries: readonly string[];
  readonly exits: readonly string[];
  readonly does: readonly string[];
  readonly effects: readonly EffectKind[];
  readonly bypassed: boolean;
  /** DeviceSections that it is in; nodes with jacks that its sections begin and end at, each once. */
  readonly stretch: number;
  readonly froms: readonly number[];
  readonly tos: readonly number[];
}

const nothing: readonly never[] = [];
const noWays = waysRoom();
/** Sections that one number has bits for. */
const fewSections = 30;
const noJacks: Jacks = { ins: nothing, outs: nothing };

/** Finds the passes that some sections of a graph make up. */
export class Passes {
  private readonly stretches: readonly DeviceSections[];
  /** The stretch of each section. */
  private readonly stretchOf: Int32Array;
  /** The way met last by the first of its sections: it leads to the others that begin with that. */
  private readonly met: (Way | undefined)[];
  /** Room for the ways through a device with few sections. */
  private readonly room = waysRoom();
  // Scratch by node, used again for each run. A mark holds the number of the search that it was made in.
  private readonly parent: Int32Array;
  private readonly wayAt: Int32Array;
  private readonly begins: Int32Array;
  private readonly ends: Int32Array;
  private counted = 0;
  // Scratch of one run. The ways that begin at a node, as a chain: `chainAt` its first link; of each link the way and
  // the link after it.
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
  /** The next section of the same way, or −1; by way its first and its last. */
  private readonly nextOwn: Int32Array;
  private readonly firstOwn: Int32Array;
  private readonly lastOwn: Int32Array;
  // Of each way of a run those after it, one behind the other: where they begin, and which they are.
  private readonly start: Int32Array;
  private readonly after: number[] = [];
  /** The lists with one place in them: most passes lead to one. */
  private readonly alone: (readonly number[])[] = [];
  /**
   * Of the last run: its ways (more may stand there, of longer runs), those through each stretch, and how many there
   * were before its first.
   */
  private readonly ways: Way[] = [];
  private readonly through: Ways[];
  private readonly before: Int32Array;

  constructor(
    wiring: Wiring,
    private readonly graph: TraceGraph,
  ) {
    const stretches: DeviceSections[] = [];
    const { edges } = graph;
    this.stretchOf = new Int32Array(edges.length);
    for (let first = 0; first < edges.length;) {
      const { device } = edges[first];
      let end = first;
      while (end < edges.length && edges[end].device === device) this.stretchOf[end++] = stretches.length;
      stretches.push({
        wired: wiring.device.get(device)!,
        first,
        end,
        jacks: new Map(),
        known: new Map(),
        room: end - first > fewSections ? waysRoom() : null,
      });
      first = end;
    }
    this.stretches = stretches;
    this.met = new Array<Way | undefined>(edges.length);
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
    this.nextOwn = new Int32Array(edges.length);
    this.firstOwn = new Int32Array(most);
    this.lastOwn = new Int32Array(most);
    this.start = new Int32Array(most + 1);
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
      for (let k = 0; k < here.count; k += 1) ways[count++] = here.ways[k];
    }
    this.follow(count);
    this.findColumns(count);
    this.findPlaces(count);
    const { column, place } = this;
    const passes = new Array<Pass>(count);
    for (let at = 0; at < count; at += 1) {
      const { device, entries, exits, does, effects, bypassed } = ways[at];
      const index = place[at];
      passes[index] = {
        index,
        device,
        column: column[at],
        entries,
        exits,
        does,
        effects,
        bypassed,
        next: this.placesAfter(at),
      };
    }
    return passes;
  }

  /** The places of the ways after one, in their order. */
  private placesAfter(at: number): readonly number[] {
    const { start, after, place, alone } = this;
    const count = start[at + 1] - start[at];
    if (count === 0) return nothing;
    if (count === 1) {
      const only = place[after[start[at]]];
      return (alone[only] ??= [only]);
    }
    const places: number[] = [];
    for (let i = start[at]; i < start[at + 1]; i += 1) places.push(place[after[i]]);
    return places.sort((a, b) => a - b);
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
    const { first, end, known, room } = this.stretches[stretch];
    if (room) return this.findWays(stretch, run, room);
    let bits = 0;
    for (let edge = first; edge < end; edge += 1) if (run[edge] === 1) bits |= 1 << (edge - first);
    if (bits === 0) return noWays;
    let ways = known.get(bits);
    if (!ways) {
      const found = this.findWays(stretch, run, this.room);
      known.set(
        bits,
        (ways = {
          ways: found.ways.slice(0, found.count),
          count: found.count,
          wayOf: found.wayOf.slice(0, end - first),
        }),
      );
    }
    return ways;
  }

  /** Live sections that hang together are one way (union–find over the device's nodes). */
  private findWays(stretch: number, run: Uint8Array, into: Ways): Ways {
    const { parent, wayAt, own, nextOwn, firstOwn, lastOwn } = this;
    const { from, to } = this.graph;
    const { first, end } = this.stretches[stretch];
    const { ways, wayOf } = into;
    for (let i = 0; i < end - first; i += 1) wayOf[i] = -1;
    let count = 0;
    for (let edge = first; edge < end; edge += 1) if (run[edge] === 1) own[count++] = edge;
    for (let i = 0; i < count; i += 1) {
      const edge = own[i];
      parent[from[edge]] = from[edge];
      parent[to[edge]] = to[edge];
      wayAt[from[edge]] = wayAt[to[edge]] = -1;
    }
    for (let i = 0; i < count; i += 1) parent[this.root(from[own[i]])] = this.root(to[own[i]]);
    let found = 0;
    for (let i = 0; i < count; i += 1) {
      const edge = own[i];
      const root = this.root(from[edge]);
      const way = wayAt[root] < 0 ? found : wayAt[root];
      if (way === found) {
        found += 1;
        wayAt[root] = way;
        firstOwn[way] = edge;
      } else nextOwn[lastOwn[way]] = edge;
      lastOwn[way] = edge;
      nextOwn[edge] = -1;
      wayOf[edge - first] = way;
    }
    for (let way = 0; way < found; way += 1) ways[way] = this.wayFrom(stretch, firstOwn[way]);
    into.count = found;
    return into;
  }

  /** The way of some sections, each of which leads to the next. */
  private wayFrom(stretch: number, first: number): Way {
    const { nextOwn } = this;
    for (let way = this.met[first]; way; way = way.other) {
      const { sections } = way;
      let at = 0;
      let edge = first;
      while (edge >= 0 && sections[at] === edge) {
        at += 1;
        edge = nextOwn[edge];
      }
      if (edge < 0 && at === sections.length) return way;
    }
    let count = 0;
    for (let edge = first; edge >= 0; edge = nextOwn[edge]) count += 1;
    const sections = new Array<number>(count);
    for (let edge = first, at = 0; edge >= 0; edge = nextOwn[edge]) sections[at++] = edge;
    return (this.met[first] = this.wayOver(stretch, sections, this.met[first]));
  }

  private wayOver(stretch: number, sections: readonly number[], other: Way | undefined): Way {
    const { begins, ends } = this;
    const { edges, from, to, jacks } = this.graph;
    const { device, anatomy } = this.stretches[stretch].wired;
    this.counted += 1;
    const mark = this.counted;
    let [froms, tos, does, effects]: [readonly number[], readonly number[], readonly string[], readonly EffectKind[]] =
      [nothing, nothing, nothing, nothing];
    let isActive = false;
    for (const edge of sections) {
      if (begins[from[edge]] !== mark) {
        begins[from[edge]] = mark;
        if (jacks[from[edge]].length > 0) froms = also(froms, from[edge]);
      }
      if (ends[to[edge]] !== mark) {
        ends[to[edge]] = mark;
        if (jacks[to[edge]].length > 0) tos = also(tos, to[edge]);
      }
      const { active, label, effect } = edges[edge];
      if (!active) continue;
      isActive = true;
      does = also(does, label);
      if (effect !== undefined) effects = also(effects, effect);
    }
    let [entries, exits]: (readonly string[])[] = [nothing, nothing];
    for (const node of froms) if (ends[node] !== mark) entries = joined(entries, this.jacks(stretch, node).ins);
    for (const node of tos) if (begins[node] !== mark) exits = joined(exits, this.jacks(stretch, node).outs);
    return {
      sections,
      other,
      device: device.id,
      entries,
      exits,
      does,
      effects,
      bypassed: !isActive && anatomy.ownSwitch !== undefined,
      stretch,
      froms,
      tos,
    };
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

  /** After each of the run's ways, those of other devices that begin where it ends. */
  private follow(count: number): void {
    const { ways, chainAt, linked, linkAfter, added, start, after } = this;
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
    let memoised = 0;
    for (let i = 0; i < count; i += 1) {
      start[i] = memoised;
      const { tos, stretch } = ways[i];
      for (let k = 0; k < tos.length; k += 1)
        for (let link = chainAt[tos[k]]; link >= 0; link = linkAfter[link]) {
          const other = linked[link];
          if (added[other] === i + 1 || ways[other].stretch === stretch) continue;
          added[other] = i + 1;
          after[memoised++] = other;
        }
    }
    start[count] = memoised;
  }

  /** The column of each: the longest distance from a start, circles cut where they close. */
  private findColumns(count: number): void {
    const { column, left, queue, start, after } = this;
    column.fill(0, 0, count);
    left.fill(0, 0, count);
    for (let k = 0; k < start[count]; k += 1) left[after[k]] += 1;
    let queued = 0;
    for (let i = 0; i < count; i += 1) if (left[i] === 0) queue[queued++] = i;
    if (queued === 0 && count > 0) queue[queued++] = 0;
    for (let at = 0; at < queued; at += 1) {
      const here = queue[at];
      for (let k = start[here]; k < start[here + 1]; k += 1) {
        const to = after[k];
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

const joined = <T>(list: readonly T[], more: readonly T[]): readonly T[] =>
  list.length === 0 ? more : more.length === 0 ? list : [...list, ...more];

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
