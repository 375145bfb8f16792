import type { Literal } from '../model/anatomy.ts';
import { type ControlRef, type Sound, splitRef } from '../model/documents.ts';
import { type Loop, loopsOf, type Switching, switchingOf, wantsOf } from '../model/switching.ts';
import { powerUpOf, type Wiring } from '../model/wiring.ts';
import { type TraceEdge, type TraceGraph, traceGraph } from './graph.ts';
import { type Circle, circlesOf } from './howl.ts';
import { type Live, liveEdges } from './live.ts';
import { type Pass, Passes } from './passes.ts';

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
  private readonly passes: Passes;
  private readonly switching: ReadonlyMap<string, Switching>;
  /** The wires that jump a loop with something in it when it is out. */
  private readonly bypasses: readonly Bypass[];
  private readonly states = new WeakMap<Sound, State>();
  private readonly traced = new WeakMap<Sound, Trace>();
  private readonly hears = new WeakMap<Sound, string>();
  private readonly comesUp: readonly Literal[];
  /** Sections that a control opens and closes. */
  private readonly switched: readonly TraceEdge[];
  private readonly literals = new Map<Literal, number>();

  constructor(readonly wiring: Wiring) {
    this.graph = traceGraph(wiring);
    this.loops = loopsOf(wiring);
    this.jackAt = jacksByNode(wiring, this.graph);
    this.passes = new Passes(wiring, this.graph, this.jackAt);
    this.switching = switchingOf(wiring, this.loops);
    this.bypasses = bypasses(wiring, this.graph, this.loops);
    this.switched = this.graph.edges.filter((edge) => edge.when.length > 0);
    this.comesUp = this.graph.controls.map((ref) => comesUp(wiring, ref));
  }

  trace(sound: Sound | null): Trace {
    const known = sound && this.traced.get(sound);
    if (known) return known;
    const trace = this.traceAnew(this.stateIn(sound));
    if (sound) this.traced.set(sound, trace);
    return trace;
  }

  /** What is heard of a sound: each section that the signal passes and that does something, with what is wanted in it. Two sounds are the same in effect where these are the same text. */
  heard(sound: Sound): string {
    let heard = this.hears.get(sound);
    if (heard === undefined) this.hears.set(sound, (heard = this.listen(this.stateIn(sound))));
    return heard;
  }

  private listen({ wants, live }: State): string {
    let heard = '';
    for (const edge of this.graph.edges) {
      if (!edge.active || live.edges[edge.index] !== 1) continue;
      heard += `${edge.index}`;
      for (const ref of edge.governedBy) heard += `,${this.numberOf(wants.get(ref))}`;
      heard += ';';
    }
    return heard;
  }

  private numberOf(literal: Literal | undefined): number {
    if (literal === undefined) return -1;
    let number = this.literals.get(literal);
    if (number === undefined) this.literals.set(literal, (number = this.literals.size));
    return number;
  }

  /** What each control of the graph is in a sound: as wanted, else as it comes up, else the first of its values. */
  private stateIn(sound: Sound | null): State {
    const known = sound && this.states.get(sound);
    if (known) return known;
    const { graph } = this;
    const wants: ReadonlyMap<ControlRef, Literal> = sound ? wantsOf(sound, this.switching) : new Map();
    const values = graph.controls.map((ref, i) => wants.get(ref) ?? this.comesUp[i]);
    const closed = new Uint8Array(graph.edges.length).fill(1);
    for (const { index, when } of this.switched) if (!isClosed(when, values)) closed[index] = 0;
    const state = { wants, closed, live: liveEdges(graph, (index) => closed[index] === 1) };
    if (sound) this.states.set(sound, state);
    return state;
  }

  private traceAnew({ closed, live }: State): Trace {
    const { from } = this.graph;
    const reached = new Uint8Array(closed.length);
    for (let edge = 0; edge < reached.length; edge += 1) reached[edge] = closed[edge] & live.forward[from[edge]];
    // Where nothing is heard, the run is shown as far as it gets.
    const { passes, passOf } = this.passes.of(live.sounds ? live.edges : reached);
    return {
      sounds: live.sounds,
      passes,
      jumpers: this.jumpers(passOf),
      deadEnds: this.deadEnds(live, closed),
      sums: sumsOf(passes),
      circles: circlesOf(this.graph, reached),
    };
  }

  /** Loops with something in them whose bypass the signal takes. */
  private jumpers(passOf: Int32Array): Jumper[] {
    const jumpers: Jumper[] = [];
    for (const { loop, label, holds, edges } of this.bypasses)
      for (const edge of edges) {
        if (passOf[edge] < 0) continue;
        jumpers.push({ loop, label, holds, pass: passOf[edge] });
        break;
      }
    return jumpers;
  }

  private deadEnds(live: Live, closed: Uint8Array): DeadEnd[] {
    const { graph } = this;
    const alive = new Uint8Array(graph.nodeCount);
    const { from, to } = graph;
    for (let edge = 0; edge < from.length; edge += 1) if (live.edges[edge] === 1) alive[from[edge]] = alive[to[edge]] = 1;
    const ends: DeadEnd[] = [];
    for (let node = 0; node < graph.nodeCount; node += 1) {
      if (live.forward[node] !== 1 || alive[node] === 1 || graph.leaving[node].some((index) => closed[index] === 1)) continue;
      if (this.comesFromLiveLine(node, live, closed, alive)) continue;
      const jack = (this.jackAt.get(node) ?? [])[0];
      if (jack) ends.push(jack);
    }
    return ends;
  }

  /** Whether something else carries on what this branch was split from. */
  private comesFromLiveLine(end: number, live: Live, closed: Uint8Array, alive: Uint8Array): boolean {
    const seen = new Set([end]);
    const stack = [end];
    while (stack.length > 0) {
      const node = stack.pop()!;
      if (alive[node] === 1) return true;
      for (const index of this.graph.arriving[node]) {
        const { from } = this.graph.edges[index];
        if (live.forward[from] !== 1 || closed[index] !== 1 || seen.has(from)) continue;
        seen.add(from);
        stack.push(from);
      }
    }
    return false;
  }
}

interface Bypass extends Omit<Jumper, 'pass'> {
  readonly edges: readonly number[];
}

/** A rig as one sound wants it: what is wanted, which sections that closes, and which of them the signal passes. */
interface State {
  readonly wants: ReadonlyMap<ControlRef, Literal>;
  readonly closed: Uint8Array;
  readonly live: Live;
}

function isClosed(when: TraceEdge['when'], values: readonly Literal[]): boolean {
  for (const condition of when) if (!condition.values.includes(values[condition.control])) return false;
  return true;
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

function bypasses(wiring: Wiring, graph: TraceGraph, loops: readonly Loop[]): Bypass[] {
  const found = new Map<ControlRef, number[]>(loops.map((loop) => [loop.ref, []]));
  for (const edge of graph.edges)
    if (!edge.active) for (const condition of edge.when) if (condition.values.includes(0)) found.get(condition.ref)?.push(edge.index);
  return loops.flatMap(({ ref, controller, control, holds }) =>
    holds.length === 0 ? [] : [{ loop: ref, label: wiring.device.get(controller)!.control.get(control)!.label, holds, edges: found.get(ref)! }],
  );
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
