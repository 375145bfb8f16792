import type { EffectKind } from '../model/anatomy.ts';
import type { JackKind } from '../model/jack-kinds.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';
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
  readonly activeSections: readonly string[];
  /** What that is, as far as it is told. */
  readonly effects: readonly EffectKind[];
  /** In line but doing nothing: bypassed by its own switch. */
  readonly bypassed: boolean;
  readonly next: readonly number[];
}

/** A pass before its place in the run is known: live sections of one device that hang together. */
interface PassShape extends Omit<Pass, 'index' | 'column' | 'next'> {
  /** Its sections, in the order of the device. */
  readonly sections: readonly number[];
  /** Nodes with jacks that its sections begin and end at. */
  readonly from: readonly number[];
  readonly to: readonly number[];
}

/** A device with its sections, which follow each other in the graph. */
interface DeviceSections {
  readonly wired: WiredDevice;
  readonly first: number;
  readonly end: number;
  /** What was found before, by which of its sections are live: the very same in every run that takes them so. */
  readonly known: Map<number | string, readonly PassShape[]>;
}

/** Stands where a section is in no pass. */
export const noPass = -1;

/** Finds the passes that some sections of a graph make up. */
export class Passes {
  private readonly devices: readonly DeviceSections[];
  /** Met so far, by their first section: a switcher takes the same ones in ever new sets. */
  private readonly met: (PassShape[] | undefined)[];
  /** Of the last run the pass of each section; `noPass` where it is in none. */
  private readonly passAt: Int32Array;

  constructor(
    wiring: Wiring,
    private readonly graph: TraceGraph,
  ) {
    const { edges } = graph;
    const devices: DeviceSections[] = [];
    for (let first = 0; first < edges.length;) {
      const { device } = edges[first];
      let end = first;
      while (end < edges.length && edges[end].device === device) end += 1;
      devices.push({ wired: wiring.device.get(device)!, first, end, known: new Map() });
      first = end;
    }
    this.devices = devices;
    this.met = new Array<PassShape[] | undefined>(edges.length);
    this.passAt = new Int32Array(edges.length);
  }

  /** `run[e]` is 1 for each section of the run. Passes stand by their columns, those of one in document order. */
  of(run: Uint8Array): readonly Pass[] {
    let shapes: PassShape[] = [];
    for (const device of this.devices) shapes.push(...this.shapes(device, run));
    let after = follow(shapes, this.graph.nodeCount);
    if (comesRound(after)) {
      shapes = shapes.flatMap((shape) => this.apart(shape));
      after = follow(shapes, this.graph.nodeCount);
    }
    const columns = findColumns(after);
    const places = findPlaces(columns);
    const passes = new Array<Pass>(shapes.length);
    this.passAt.fill(noPass);
    for (let i = 0; i < shapes.length; i += 1) {
      const { device, entries, exits, activeSections, effects, bypassed, sections } = shapes[i];
      const index = places[i];
      for (const section of sections) this.passAt[section] = index;
      const next = after[i].map((other) => places[other]);
      if (next.length > 1) next.sort((a, b) => a - b);
      passes[index] = { index, device, column: columns[i], entries, exits, activeSections, effects, bypassed, next };
    }
    return passes;
  }

  /** The pass of the last run that a section is in, or `noPass`. */
  passOf(edge: number): number {
    return this.passAt[edge];
  }

  private shapes({ wired, first, end, known }: DeviceSections, run: Uint8Array): readonly PassShape[] {
    const key = end - first <= bits ? numberOf(run, first, end) : run.subarray(first, end).join('');
    let found = known.get(key);
    if (!found) {
      const live: number[] = [];
      for (let edge = first; edge < end; edge += 1) if (run[edge] === 1) live.push(edge);
      known.set(key, (found = connected(this.graph, live).map((sections) => this.shape(wired, sections))));
    }
    return found;
  }

  /**
   * What sums in itself what it sent out before (a band split, a parallel loop) is passed twice: from its first input
   * on, and again from where the signal comes back, with all that lies behind the sum.
   */
  private apart(shape: PassShape): readonly PassShape[] {
    if (shape.from.length < 2) return [shape];
    const { from, to } = this.graph;
    const reached = new Set([shape.from[0]]);
    const first = new Set<number>();
    for (let size = -1; size !== first.size;) {
      size = first.size;
      for (const section of shape.sections)
        if (reached.has(from[section]) && !first.has(section)) {
          first.add(section);
          reached.add(to[section]);
        }
    }
    const back = new Set(shape.sections.filter((section) => !first.has(section)));
    if (back.size === 0) return [shape];
    const sums = new Set([...back].map((section) => to[section]));
    for (let size = -1; size !== back.size;) {
      size = back.size;
      for (const section of first)
        if (sums.has(from[section])) {
          back.add(section);
          first.delete(section);
          sums.add(to[section]);
        }
    }
    if (first.size === 0) return [shape];
    const { wired } = this.devices.find((device) => device.wired.device.id === shape.device)!;
    return [
      [...first].sort((a, b) => a - b),
      ...connected(
        this.graph,
        [...back].sort((a, b) => a - b),
      ),
    ].map((own) => this.shape(wired, own));
  }

  private shape(wired: WiredDevice, sections: readonly number[]): PassShape {
    const met = (this.met[sections[0]] ??= []);
    let shape = met.find((shape) => isSame(shape.sections, sections));
    if (!shape) met.push((shape = shapeOf(this.graph, wired, sections)));
    return shape;
  }
}

const isSame = (some: readonly number[], others: readonly number[]): boolean =>
  some.length === others.length && some.every((index, i) => index === others[i]);

/** Sections that one number has bits for. */
const bits = 30;

function numberOf(run: Uint8Array, first: number, end: number): number {
  let number = 0;
  for (let edge = first; edge < end; edge += 1) number = number * 2 + run[edge];
  return number;
}

/** Sections that share nodes or are sides of one thing, each with the others, in order of the first of each. */
function connected({ from, to, edges }: TraceGraph, sections: readonly number[]): readonly (readonly number[])[] {
  /** The group that each node is in. Where a section joins two, the later goes into the earlier. */
  const groupAt = new Map<number, number[]>();
  const groups: number[][] = [];
  const groupOf = new Map<string, number[]>();
  const join = (one: number[], other: number[]) => {
    for (const moved of other) {
      groupAt.set(from[moved], one).set(to[moved], one);
      const { pair } = edges[moved];
      if (pair !== undefined) groupOf.set(pair, one);
    }
    one.push(...other.splice(0));
  };
  for (const edge of sections) {
    const { pair } = edges[edge];
    const met = [groupAt.get(from[edge]), groupAt.get(to[edge]), pair === undefined ? undefined : groupOf.get(pair)];
    const group = met[0] ?? met[1] ?? met[2] ?? [];
    if (group.length === 0) groups.push(group);
    group.push(edge);
    groupAt.set(from[edge], group);
    groupAt.set(to[edge], group);
    if (pair !== undefined) groupOf.set(pair, group);
    for (const other of met) if (other && other !== group && other.length > 0) join(group, other);
  }
  // Joining may have put a group's sections out of order; a group that was joined to another is empty.
  const isJoined = groups.some((group) => group.length === 0);
  if (!isJoined) return groups;
  const left = groups.filter((group) => group.length > 0);
  for (const group of left) group.sort((a, b) => a - b);
  return left.sort((a, b) => a[0] - b[0]);
}

function shapeOf({ edges, jacks }: TraceGraph, wired: WiredDevice, sections: readonly number[]): PassShape {
  const begins: number[] = [];
  const ends: number[] = [];
  const activeSections: string[] = [];
  const effects: EffectKind[] = [];
  for (const section of sections) {
    const { from, to, active, label, effect } = edges[section];
    if (!begins.includes(from)) begins.push(from);
    if (!ends.includes(to)) ends.push(to);
    if (active && !activeSections.includes(label)) activeSections.push(label);
    if (active && effect !== undefined && !effects.includes(effect)) effects.push(effect);
  }
  const from = begins.filter((node) => jacks[node].length > 0);
  const to = ends.filter((node) => jacks[node].length > 0);
  const jacksOf = (nodes: readonly number[], others: readonly number[], kind: JackKind): string[] => {
    const found: string[] = [];
    for (const node of nodes)
      for (const { device, jack } of others.includes(node) ? [] : jacks[node])
        if (device === wired.device.id && wired.jack.get(jack)!.kind === kind) found.push(jack);
    return found;
  };
  return {
    sections,
    device: wired.device.id,
    entries: jacksOf(from, ends, 'signal-in'),
    exits: jacksOf(to, begins, 'signal-out'),
    activeSections,
    effects,
    bypassed: activeSections.length === 0 && wired.anatomy.ownSwitch !== undefined,
    from,
    to,
  };
}

/** After each shape, those of other devices that begin where it ends. */
function follow(shapes: readonly PassShape[], nodeCount: number): readonly (readonly number[])[] {
  // The shapes that begin at a node, as a chain: the last one's link; of each link its shape and the link before.
  const lastAt = new Int32Array(nodeCount).fill(-1);
  const links: { readonly shape: number; readonly before: number }[] = [];
  for (let shape = 0; shape < shapes.length; shape += 1)
    for (const node of shapes[shape].from) lastAt[node] = links.push({ shape, before: lastAt[node] }) - 1;
  return shapes.map(({ to, device }) => {
    const others: number[] = [];
    for (const node of to)
      for (let link = lastAt[node]; link >= 0; link = links[link].before) {
        const { shape } = links[link];
        if (shapes[shape].device !== device && !others.includes(shape)) others.push(shape);
      }
    return others;
  });
}

/** Whether some shape comes after itself. */
function comesRound(after: readonly (readonly number[])[]): boolean {
  const left = new Int32Array(after.length);
  for (const list of after) for (const to of list) left[to] += 1;
  const queue: number[] = [];
  for (let i = 0; i < left.length; i += 1) if (left[i] === 0) queue.push(i);
  for (const here of queue) for (const to of after[here]) if ((left[to] -= 1) === 0) queue.push(to);
  return queue.length < after.length;
}

/**
 * The column of each: the longest distance from a start. Where ways come round, the one that sound comes to first is
 * where the way in is, and the way back is cut.
 */
function findColumns(after: readonly (readonly number[])[]): readonly number[] {
  const columns = after.map(() => 0);
  const left = after.map(() => 0);
  for (const list of after) for (const to of list) left[to] += 1;
  const queue = after.flatMap((_, i) => (left[i] === 0 ? [i] : []));
  const done = new Uint8Array(after.length);
  for (let at = 0; at < after.length; at += 1) {
    if (at === queue.length) queue.push(firstReached(columns, done));
    const here = queue[at];
    done[here] = 1;
    for (const to of after[here]) {
      if (done[to] === 1) continue;
      columns[to] = Math.max(columns[to], columns[here] + 1);
      left[to] -= 1;
      if (left[to] === 0) queue.push(to);
    }
  }
  return columns;
}

/** Of those that wait for each other the one that sound has come to, else the first. */
function firstReached(columns: readonly number[], done: Uint8Array): number {
  let first = noPass;
  for (let i = 0; i < columns.length; i += 1) {
    if (done[i] === 1) continue;
    const isNearer = first === noPass || (columns[i] > 0 && (columns[first] === 0 || columns[i] < columns[first]));
    if (isNearer) first = i;
  }
  return first;
}

/** The place of each by its column, those of one column as they came. */
function findPlaces(columns: readonly number[]): Int32Array {
  const first = new Int32Array(columns.length + 1);
  for (const column of columns) first[column + 1] += 1;
  for (let column = 1; column < first.length; column += 1) first[column] += first[column - 1];
  return Int32Array.from(columns, (column) => first[column]++);
}
