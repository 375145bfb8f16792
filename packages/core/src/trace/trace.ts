import type { EffectKind, Literal } from '../model/anatomy.ts';
import { type ControlRef, type Sound, splitRef } from '../model/documents.ts';
import { type Loop, loopsOf, type Switching, switchingOf, wantsOf } from '../model/switching.ts';
import { powerUpOf, type Wiring } from '../model/wiring.ts';
import { type TraceEdge, type TraceGraph, traceGraph } from './graph.ts';
import { type Circle, circlesOf } from './howl.ts';
import { type Live, liveEdges } from './live.ts';

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

/** A piece in a loop that is out: it hangs under the pass that jumps it. */
export interface Jumper {
  readonly loop: ControlRef;
  readonly label: string;
  readonly holds: readonly string[];
  readonly pass: number;
}

/** A branch that ends at an open jack though nothing else carries it on. */
export interface DeadEnd {
  readonly device: string;
  readonly jack: string;
}

/** A point where several live branches meet. */
export interface Sum {
  readonly pass: number;
  readonly from: readonly number[];
}

export interface Trace {
  /** Whether anything is heard. */
  readonly sounds: boolean;
  /** The run; where nothing is heard, as far as the signal gets. */
  readonly passes: readonly Pass[];
  readonly jumpers: readonly Jumper[];
  readonly deadEnds: readonly DeadEnd[];
  readonly sums: readonly Sum[];
  /** Where the signal comes back to itself, with how much of it. */
  readonly circles: readonly Circle[];
}

/** Resolves a rig once; then one pure function a question. */
export class Tracer {
  readonly graph: TraceGraph;
  readonly loops: readonly Loop[];
  private readonly jackAt: ReadonlyMap<number, readonly { readonly device: string; readonly jack: string }[]>;
  private readonly switching: ReadonlyMap<string, Switching>;
  /** The wire that jumps each loop when it is out, by the loop's control. */
  private readonly bypassOf: ReadonlyMap<ControlRef, readonly TraceEdge[]>;
  private readonly traced = new WeakMap<Sound, Trace>();
  private readonly comesUp: readonly Literal[];

  constructor(readonly wiring: Wiring) {
    this.graph = traceGraph(wiring);
    this.loops = loopsOf(wiring);
    this.jackAt = jacksByNode(wiring, this.graph);
    this.switching = switchingOf(wiring, this.loops);
    this.bypassOf = bypasses(this.graph, this.loops);
    this.comesUp = this.graph.controls.map((ref) => comesUp(wiring, ref));
  }

  /** What each control of the graph is in a sound: as wanted, else as it comes up, else the first of its values. */
  valuesIn(sound: Sound | null): readonly Literal[] {
    const wants = sound ? wantsOf(sound, this.switching) : new Map<ControlRef, Literal>();
    return this.graph.controls.map((ref, i) => wants.get(ref) ?? this.comesUp[i]);
  }

  trace(sound: Sound | null): Trace {
    const known = sound && this.traced.get(sound);
    if (known) return known;
    const trace = this.traceAnew(sound);
    if (sound) this.traced.set(sound, trace);
    return trace;
  }

  private readonly hears = new WeakMap<Sound, ReturnType<Tracer['listen']>>();

  /** What is heard of a sound: each section that the signal passes and that does something, with what is wanted in it. */
  heard(sound: Sound): ReturnType<Tracer['listen']> {
    let heard = this.hears.get(sound);
    if (!heard) this.hears.set(sound, (heard = this.listen(sound)));
    return heard;
  }

  private listen(sound: Sound): readonly (readonly [device: string, section: string, ...wanted: (Literal | null)[]])[] {
    const wants = wantsOf(sound, this.switching);
    const values = this.valuesIn(sound);
    const live = liveEdges(this.graph, (index) => this.graph.edges[index].when.every((condition) => condition.values.includes(values[condition.control])));
    return this.graph.edges.filter((edge) => edge.active && live.edges[edge.index] === 1).map((edge) => [edge.device, edge.section, ...edge.governedBy.map((ref) => wants.get(ref) ?? null)] as const);
  }

  private traceAnew(sound: Sound | null): Trace {
    const values = this.valuesIn(sound);
    const isClosed = (edge: TraceEdge) => edge.when.every((condition) => condition.values.includes(values[condition.control]));
    const live = liveEdges(this.graph, (index) => isClosed(this.graph.edges[index]));
    // Where nothing is heard, the run is shown as far as it gets.
    const { passes, passOf } = this.passes(this.graph.edges.filter((edge) => (live.sounds ? live.edges[edge.index] === 1 : live.forward[edge.from] === 1 && isClosed(edge))));
    return {
      sounds: live.sounds,
      passes,
      jumpers: this.jumpers(passOf),
      deadEnds: this.deadEnds(live, isClosed),
      sums: sumsOf(passes),
      circles: circlesOf(this.graph.nodeCount, this.graph.edges.filter((edge) => live.forward[edge.from] && isClosed(edge))),
    };
  }

  private passes(run: readonly TraceEdge[]): { passes: Pass[]; passOf: ReadonlyMap<number, number> } {
    const groups = groupByDevice(run);
    const starts = new Map<number, number[]>();
    groups.forEach((group, i) => {
      for (const node of new Set(group.map((edge) => edge.from))) starts.set(node, [...(starts.get(node) ?? []), i]);
    });
    const next = groups.map((group, i) => [...new Set(group.flatMap((edge) => (starts.get(edge.to) ?? []).filter((other) => other !== i && groups[other][0].device !== group[0].device)))]);
    const column = longest(next);
    const order = groups.map((_, i) => i).sort((a, b) => column[a] - column[b] || a - b);
    const place = new Map(order.map((group, index) => [group, index]));
    const passOf = new Map<number, number>();
    const passes = order.map((group, index): Pass => {
      const edges = groups[group];
      for (const edge of edges) passOf.set(edge.index, index);
      const own = edges[0].device;
      const froms = new Set(edges.map((edge) => edge.from));
      const tos = new Set(edges.map((edge) => edge.to));
      return {
        index,
        device: own,
        column: column[group],
        entries: [...froms].filter((node) => !tos.has(node)).flatMap((node) => this.jacksOf(own, node, 'signal-in')),
        exits: [...tos].filter((node) => !froms.has(node)).flatMap((node) => this.jacksOf(own, node, 'signal-out')),
        does: edges.filter((edge) => edge.active).map((edge) => edge.label),
        effects: edges.flatMap((edge) => (edge.active && edge.effect !== undefined ? [edge.effect] : [])),
        bypassed: !edges.some((edge) => edge.active) && this.wiring.device.get(own)!.anatomy.ownSwitch !== undefined,
        next: next[group].map((other) => place.get(other)!).sort((a, b) => a - b),
      };
    });
    return { passes, passOf };
  }

  private jacksOf(device: string, node: number, kind: string): string[] {
    return (this.jackAt.get(node) ?? []).filter((one) => one.device === device && this.wiring.device.get(device)!.jack.get(one.jack)!.kind === kind).map((one) => one.jack);
  }

  /** Loops with something in them whose bypass the signal takes. */
  private jumpers(passOf: ReadonlyMap<number, number>): Jumper[] {
    return this.loops.flatMap((loop) => {
      if (loop.holds.length === 0) return [];
      const bypass = this.bypassOf.get(loop.ref)?.find((edge) => passOf.has(edge.index));
      const label = this.wiring.device.get(loop.controller)!.control.get(loop.control)!.label;
      return bypass ? [{ loop: loop.ref, label, holds: loop.holds, pass: passOf.get(bypass.index)! }] : [];
    });
  }

  private deadEnds(live: Live, isClosed: (edge: TraceEdge) => boolean): DeadEnd[] {
    const { graph } = this;
    const alive = new Set(graph.edges.filter((edge) => live.edges[edge.index]).flatMap((edge) => [edge.from, edge.to]));
    const ends: DeadEnd[] = [];
    for (let node = 0; node < graph.nodeCount; node += 1) {
      if (!live.forward[node] || alive.has(node) || graph.leaving[node].some((index) => isClosed(graph.edges[index]))) continue;
      if (this.comesFromLiveLine(node, live, isClosed, alive)) continue;
      const jack = (this.jackAt.get(node) ?? [])[0];
      if (jack) ends.push(jack);
    }
    return ends;
  }

  /** Whether something else carries on what this branch was split from. */
  private comesFromLiveLine(end: number, live: Live, isClosed: (edge: TraceEdge) => boolean, alive: ReadonlySet<number>): boolean {
    const seen = new Set([end]);
    const stack = [end];
    while (stack.length > 0) {
      const node = stack.pop()!;
      if (alive.has(node)) return true;
      for (const index of this.graph.arriving[node]) {
        const edge = this.graph.edges[index];
        if (!live.forward[edge.from] || seen.has(edge.from) || !isClosed(edge)) continue;
        seen.add(edge.from);
        stack.push(edge.from);
      }
    }
    return false;
  }
}

/** Passes that several others lead to. */
function sumsOf(passes: readonly Pass[]): Sum[] {
  const from: number[][] = passes.map(() => []);
  for (const pass of passes) for (const next of pass.next) from[next].push(pass.index);
  return passes.flatMap((pass) => (from[pass.index].length > 1 ? [{ pass: pass.index, from: from[pass.index] }] : []));
}

function comesUp(wiring: Wiring, ref: ControlRef): Literal {
  const { device, control: id } = splitRef(ref);
  const wired = wiring.device.get(device)!;
  const control = wired.control.get(id);
  if (!control) return 0;
  const after = powerUpOf(wired, control);
  return after.is === 'value' ? after.value : control.domain.kind === 'choice' ? control.domain.values[0] : control.domain.kind === 'switch' ? 0 : control.domain.min;
}

function bypasses(graph: TraceGraph, loops: readonly Loop[]): ReadonlyMap<ControlRef, readonly TraceEdge[]> {
  const found = new Map<ControlRef, TraceEdge[]>(loops.map((loop) => [loop.ref, []]));
  for (const edge of graph.edges)
    if (!edge.active) for (const condition of edge.when) if (condition.values.includes(0)) found.get(condition.ref)?.push(edge);
  return found;
}

function jacksByNode(wiring: Wiring, graph: TraceGraph) {
  const map = new Map<number, { device: string; jack: string }[]>();
  for (const wired of wiring.devices)
    for (const jack of wired.anatomy.jacks)
      for (const pole of jack.poles ?? ['tip']) {
        const node = graph.nodeOf.get(`${wired.device.id}:${jack.id}${pole === 'tip' ? '' : `.${pole}`}`);
        if (node === undefined) continue;
        const list = map.get(node) ?? [];
        if (!list.some((one) => one.device === wired.device.id && one.jack === jack.id)) map.set(node, [...list, { device: wired.device.id, jack: jack.id }]);
      }
  return map;
}

/** Live edges of one device that hang together. */
function groupByDevice(edges: readonly TraceEdge[]): TraceEdge[][] {
  const group = new Map<string, Map<number, number>>();
  const parent: number[] = [];
  const root = (n: number): number => (parent[n] === n ? n : (parent[n] = root(parent[n])));
  const groupOf = edges.map((edge) => {
    const ends = [edge.from, edge.to].map((node) => {
      let own = group.get(edge.device);
      if (!own) group.set(edge.device, (own = new Map()));
      let id = own.get(node);
      if (id === undefined) own.set(node, (id = parent.push(parent.length) - 1));
      return id;
    });
    parent[root(ends[0])] = root(ends[1]);
    return ends[0];
  });
  const groups = new Map<number, TraceEdge[]>();
  edges.forEach((edge, i) => {
    const id = root(groupOf[i]);
    const list = groups.get(id);
    if (list) list.push(edge);
    else groups.set(id, [edge]);
  });
  return [...groups.values()];
}

/** Longest distance from a start, circles cut where they close. */
function longest(next: readonly (readonly number[])[]): number[] {
  const distance = next.map(() => -1);
  const arriving = next.map(() => 0);
  for (const list of next) for (const to of list) arriving[to] += 1;
  const queue = next.flatMap((_, i) => (arriving[i] === 0 ? [i] : []));
  if (queue.length === 0 && next.length > 0) queue.push(0);
  for (const i of queue) distance[i] = 0;
  const left = [...arriving];
  while (queue.length > 0) {
    const here = queue.shift()!;
    for (const to of next[here]) {
      distance[to] = Math.max(distance[to], distance[here] + 1);
      left[to] -= 1;
      if (left[to] === 0) queue.push(to);
    }
  }
  return distance.map((d) => Math.max(0, d));
}
