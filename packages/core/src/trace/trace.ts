import type { ControlRef, Sound } from '../model/rig.ts';
import { type Loop, loopsOf } from '../model/switching.ts';
import type { Wiring } from '../model/wiring.ts';
import type { ControlValue } from '../model/anatomy.ts';
import { type Cycle, cyclesOf } from './feedback.ts';
import { type TraceEdge, type TraceGraph, traceGraph } from './graph.ts';
import { feedsOf } from './feeds.ts';
import { type Live, ReachabilitySearch } from './live.ts';
import { noPass, type Pass, Passes } from './passes.ts';
import { type Widths, widthsOf } from './widths.ts';
import { isUnknown, type PlannedValue, PlannedStates, type UnknownContent } from './planned-state.ts';

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
  /** Whether anything is heard; where contents decide that nobody entered, whether anything may be. */
  readonly sounds: boolean;
  /** Contents that nobody entered and that decide where the line runs: it is followed both ways. */
  readonly undecided: readonly UnknownContent[];
  /** The run; where nothing is heard, as far as the signal gets. */
  readonly passes: readonly Pass[];
  readonly jumpers: readonly Jumper[];
  readonly deadEnds: readonly DeadEnd[];
  readonly sums: readonly Sum[];
  /** Where the signal comes back to itself, with how much of it. */
  readonly cycles: readonly Cycle[];
  /** How wide it goes from pass to pass, and where stereo ends. */
  readonly widths: Widths;
}

/** Resolves a rig once; then one pure function a question. */
export class Tracer {
  readonly graph: TraceGraph;
  readonly loops: readonly Loop[];
  private readonly passes: Passes;
  /** The wires that jump a loop with something in it when it is out. */
  private readonly bypasses: readonly Bypass[];
  /** Room for the jumpers of one trace. */
  private readonly jumping: Jumper[] = [];
  private readonly lives = new WeakMap<Sound, Heard>();
  private readonly traced = new WeakMap<Sound, Trace>();
  private readonly hears = new WeakMap<Sound, string>();
  private readonly planned: PlannedStates;
  /** Sections that a control opens and closes. */
  private readonly switched: readonly TraceEdge[];
  private readonly numbers = new Map<PlannedValue, number>();
  private readonly worldsOf = new WeakMap<Sound, readonly Trace[]>();
  private readonly search: ReachabilitySearch;
  /** Sections that nothing holds open now; used again for each sound. */
  private readonly closed: Uint8Array;

  constructor(readonly wiring: Wiring) {
    this.graph = traceGraph(wiring);
    this.search = new ReachabilitySearch(this.graph);
    this.loops = loopsOf(wiring);
    this.passes = new Passes(wiring, this.graph);
    this.bypasses = bypasses(wiring, this.graph, this.loops);
    this.switched = this.graph.edges.filter((edge) => edge.when.length > 0);
    this.closed = new Uint8Array(this.graph.edges.length).fill(1);
    this.planned = new PlannedStates(wiring);
  }

  trace(sound: Sound | null): Trace {
    const known = sound && this.traced.get(sound);
    if (known) return known;
    const trace = this.computeTrace(this.liveIn(sound));
    if (sound) this.traced.set(sound, trace);
    return trace;
  }

  /**
   * What a sound may be, one trace for each thing that contents which nobody entered may come to: what is so in all of
   * them is known. Past `mostWorlds` the two in which all or none of what is open lets the signal through.
   */
  worlds(sound: Sound): readonly Trace[] {
    const trace = this.trace(sound);
    if (trace.undecided.length === 0) return [trace];
    let worlds = this.worldsOf.get(sound);
    if (!worlds) this.worldsOf.set(sound, (worlds = this.findWorlds(sound, trace.undecided)));
    return worlds;
  }

  private findWorlds(sound: Sound, undecided: readonly UnknownContent[]): readonly Trace[] {
    const state = this.stateOf(sound);
    const traceAs = (decide: Decide) => this.computeTrace(this.liveAt(state, decide));
    let assumed: ReadonlyMap<UnknownContent, ControlValue>[] = [new Map()];
    for (const content of undecided) {
      if (assumed.length * content.options.length > mostWorlds) return [traceAs(() => 1), traceAs(() => 0)];
      assumed = assumed.flatMap((before) => content.options.map((option) => new Map([...before, [content, option]])));
    }
    return assumed.map((contents) =>
      traceAs((content, allowed) => {
        const value = contents.get(content);
        return value === undefined || allowed.includes(value) ? 1 : 0;
      }),
    );
  }

  /**
   * What is heard of a sound: each section that the signal passes and that does something, with what governs it and in
   * which order. Two sounds are the same in effect where these are the same text.
   */
  heard(sound: Sound): string {
    let heard = this.hears.get(sound);
    if (heard === undefined) {
      const said: string[] = [];
      this.listen(sound, (number) => said.push(String(number)));
      this.hears.set(sound, (heard = `${said.join(',')}|${feedsOf(this.graph, this.liveIn(sound).live)}`));
    }
    return heard;
  }

  /**
   * A number of 32 bits, the same for sounds that are the same in effect, and mostly another for others (after FNV-1a:
   * Fowler, Noll, Vo).
   */
  digest(sound: Sound): number {
    let hash = 0x811c9dc5;
    this.listen(sound, (number) => (hash = Math.imul(hash ^ number, 0x01000193)));
    return hash >>> 0;
  }

  /**
   * Tells of each live section that does something its number, and then of each control heard in it its value; of one
   * that unknown content may shut off, what content.
   */
  private listen(sound: Sound, tell: (number: number) => void): void {
    const { edges, active } = this.graph;
    const { live, state, undecided } = this.liveIn(sound);
    for (let i = 0; i < undecided.length; i += 1) tell(this.numberOf(undecided[i]));
    for (let edge = 0; edge < active.length; edge += 1) {
      if (active[edge] === 0 || live.edges[edge] === 0) continue;
      tell(edge);
      const { parameters } = edges[edge];
      for (let i = 0; i < parameters.length; i += 1) tell(this.numberOf(state[parameters[i]]));
    }
  }

  private numberOf(value: PlannedValue): number {
    let number = this.numbers.get(value);
    if (number === undefined) this.numbers.set(value, (number = this.numbers.size));
    return number;
  }

  /** Whether a section, by its number in the graph, is on the way to an end in a sound. */
  passesThrough(sound: Sound | null, edge: number): boolean {
    return this.liveIn(sound).live.edges[edge] === 1;
  }

  /** The state that a sound is planned in, by the numbers of the rig's controls; without a sound as all comes up. */
  stateOf(sound: Sound | null): readonly PlannedValue[] {
    return this.planned.of(sound);
  }

  /** The sections that the signal passes in a sound's state. */
  private liveIn(sound: Sound | null): Heard {
    const known = sound && this.lives.get(sound);
    if (known) return known;
    const heard = this.liveAt(this.stateOf(sound), bothWays);
    if (sound) this.lives.set(sound, heard);
    return heard;
  }

  /** The same in a state; `decide`: what a condition on unknown content comes to. */
  private liveAt(state: readonly PlannedValue[], decide: Decide): Heard {
    const { closed, switched } = this;
    let open: TraceEdge[] | undefined;
    for (let i = 0; i < switched.length; i += 1) {
      const { index, when } = switched[i];
      const is = isClosed(when, state, decide);
      closed[index] = is === 0 ? 0 : 1;
      if (is === mayBe) (open ??= []).push(switched[i]);
    }
    const live = this.search.liveAmong(closed);
    return { live, state, undecided: open ? decisive(open, live, state) : nothing };
  }

  private computeTrace({ live, undecided }: Heard): Trace {
    // Where nothing is heard, the run is shown as far as it gets.
    const passes = this.passes.of(live.sounds ? live.edges : live.reached);
    return {
      sounds: live.sounds,
      undecided,
      passes,
      jumpers: this.jumpers(),
      deadEnds: live.isWhole ? nothing : this.deadEnds(live),
      widths: widthsOf(this.graph, live, passes, (edge) => this.passes.passOf(edge)),
      sums: live.isTree ? nothing : sumsOf(passes),
      cycles: live.isTree ? nothing : cyclesOf(this.graph, live.reached),
    };
  }

  /** Loops with something in them whose bypass the signal takes, in the passes found last. */
  private jumpers(): Jumper[] {
    const { bypasses, jumping } = this;
    let count = 0;
    for (let at = 0; at < bypasses.length; at += 1) {
      const { edges, inPass, loop, label, holds } = bypasses[at];
      let pass = noPass;
      for (let i = 0; i < edges.length && pass === noPass; i += 1) pass = this.passes.passOf(edges[i]);
      if (pass !== noPass) jumping[count++] = inPass[pass] ??= { loop, label, holds, pass };
    }
    return jumping.slice(0, count);
  }

  private deadEnds(live: Live): DeadEnd[] {
    const { reached } = live;
    const { from, to, nodeCount, jacks } = this.graph;
    /** 2 where something is live, 1 where the signal at least goes on. */
    const goesOn = new Uint8Array(nodeCount);
    for (let edge = 0; edge < from.length; edge += 1)
      if (live.edges[edge] === 1) goesOn[from[edge]] = goesOn[to[edge]] = 2;
      else if (reached[edge] === 1 && goesOn[from[edge]] === 0) goesOn[from[edge]] = 1;
    const ends: DeadEnd[] = [];
    for (let node = 0; node < nodeCount; node += 1) {
      if (live.forward[node] !== 1 || goesOn[node] !== 0 || jacks[node].length === 0) continue;
      if (!this.comesFromLiveLine(node, reached, goesOn)) ends.push(jacks[node][0]);
    }
    return ends;
  }

  /** Whether something else carries on what this branch was split from. */
  private comesFromLiveLine(end: number, reached: Uint8Array, goesOn: Uint8Array): boolean {
    const { from, arriving } = this.graph;
    const seen = new Set([end]);
    const stack = [end];
    while (stack.length > 0) {
      const node = stack.pop()!;
      if (goesOn[node] === 2) return true;
      for (let k = arriving.start[node]; k < arriving.start[node + 1]; k += 1) {
        const edge = arriving.items[k];
        if (reached[edge] !== 1 || seen.has(from[edge])) continue;
        seen.add(from[edge]);
        stack.push(from[edge]);
      }
    }
    return false;
  }
}

interface Bypass extends Omit<Jumper, 'pass'> {
  readonly edges: readonly number[];
  /** By the pass that jumps it, as far as one did. */
  readonly inPass: Jumper[];
}

/** What a state lets through, and the contents that decide it where nobody entered them. */
interface Heard {
  readonly live: Live;
  readonly state: readonly PlannedValue[];
  readonly undecided: readonly UnknownContent[];
}

/** Whether unknown content lets the signal through where these values do: 1, 0, or that it may be either. */
type Decide = (content: UnknownContent, allowed: readonly ControlValue[]) => 0 | 1 | typeof mayBe;
const mayBe = 2;
/** Contents that may come to so many things are followed one by one. */
const mostWorlds = 16;

const bothWays: Decide = ({ options }, allowed) => {
  const some = options.some((option) => allowed.includes(option));
  return !some ? 0 : options.every((option) => allowed.includes(option)) ? 1 : mayBe;
};

function isClosed(when: TraceEdge['when'], values: readonly PlannedValue[], decide: Decide): 0 | 1 | typeof mayBe {
  let is: 1 | typeof mayBe = 1;
  for (let i = 0; i < when.length; i += 1) {
    const value = values[when[i].control] ?? 0;
    const allowed = when[i].values;
    if (isUnknown(value)) {
      const open = decide(value, allowed);
      if (open === 0) return 0;
      if (open === mayBe) is = mayBe;
    }
    // Mostly it is the first.
    else if (allowed[0] !== value && !allowed.includes(value, 1)) return 0;
  }
  return is;
}

/** Of sections that may be shut off the contents that decide, where sound comes to them at all. */
function decisive(open: readonly TraceEdge[], live: Live, state: readonly PlannedValue[]): readonly UnknownContent[] {
  const contents = new Set<UnknownContent>();
  for (const { index, when } of open)
    if (live.reached[index] === 1)
      for (const { control, values } of when) {
        const value = state[control];
        if (isUnknown(value) && bothWays(value, values) === mayBe) contents.add(value);
      }
  return [...contents];
}

/** Passes that several others lead to. */
function sumsOf(passes: readonly Pass[]): readonly Sum[] {
  const leading = new Int32Array(passes.length);
  let several = false;
  for (const { next } of passes)
    for (let i = 0; i < next.length; i += 1) several = (leading[next[i]] += 1) > 1 || several;
  if (!several) return nothing;
  return passes.flatMap(({ index }) =>
    leading[index] > 1
      ? [{ pass: index, from: passes.flatMap((pass) => (pass.next.includes(index) ? [pass.index] : [])) }]
      : [],
  );
}
const nothing: readonly never[] = [];

function bypasses(wiring: Wiring, graph: TraceGraph, loops: readonly Loop[]): Bypass[] {
  const found = new Map<ControlRef, number[]>(loops.map((loop) => [loop.ref, []]));
  for (const edge of graph.edges)
    if (!edge.active)
      for (const condition of edge.when)
        if (condition.values.includes(0) && !condition.values.includes(1)) found.get(condition.ref)?.push(edge.index);
  return loops.flatMap(({ ref, controller, control, holds }) =>
    holds.length === 0
      ? []
      : [
          {
            loop: ref,
            label: wiring.device.get(controller)!.control.get(control)!.label,
            holds,
            edges: found.get(ref)!,
            inPass: [],
          },
        ],
  );
}
