import type { Hearing, HearingEdge } from './hearing.ts';
import { type Laid, unwanted } from './laid.ts';
import { Liveness } from './liveness.ts';
import { type Overlay, type Packed, Packing } from './packing.ts';
import type { Pins } from './values.ts';

/** Values that a variable may have; null where it may have any. */
export type Range = readonly number[] | null;
export type Possible = (variable: number) => Range;

/**
 * What is already settled of a sound when only some variables are known: `wrong` whatever the others are,
 * `harmless` (what differs here cannot be heard, whatever the others are), or still `open`.
 */
export type Status = 'wrong' | 'harmless' | 'open';

/** A judgement from a few variables alone, sound whatever the rest of the rig is doing. */
export class Outlook {
  /** Ways through that are there whatever value a control has (a loop passes in or out): node pairs. */
  private readonly always: readonly (readonly [number, number])[];
  private readonly pairs = new Set<number>();
  private readonly onwards: readonly (readonly number[])[];
  private readonly back: readonly (readonly number[])[];
  private readonly conditioned = new Map<number, HearingEdge[]>();
  private readonly governed = new Map<number, HearingEdge[]>();
  private readonly packing: Packing;
  private readonly liveness: Liveness;
  /** What each sound wants, packed, without and with what is obeyed. */
  private readonly overlays = new WeakMap<Laid, { readonly wanted: Overlay; readonly free: Overlay }>();
  private readonly classes = new Map<number, Map<number, string>>();
  private readonly muted: boolean[] = [];
  /** Every variable may be anything. */
  private readonly anything: Packed;

  constructor(private readonly hearing: Hearing) {
    for (const edge of hearing.edges) {
      for (const condition of edge.when) push(this.conditioned, condition.variable, edge);
      if (!edge.active) continue;
      for (const variable of edge.governedBy) {
        push(this.governed, variable, edge);
        const preset = hearing.presetOf.get(variable);
        if (preset !== undefined) push(this.governed, preset, edge);
      }
    }
    this.always = this.waysThrough();
    const onwards = new Array<readonly number[]>(hearing.graph.nodeCount).fill(nowhere);
    const back = new Array<readonly number[]>(hearing.graph.nodeCount).fill(nowhere);
    for (const [from, to] of this.always) {
      onwards[from] = [...onwards[from], to];
      back[to] = [...back[to], from];
    }
    this.onwards = onwards;
    this.back = back;
    this.packing = new Packing(hearing.edges, (value) => hearing.plant.values.isSymbolic(value));
    this.anything = this.packing.ranges(() => null);
    this.liveness = new Liveness(hearing, this.packing, onwards, back);
  }

  private overlayOf(laid: Laid): { readonly wanted: Overlay; readonly free: Overlay } {
    let known = this.overlays.get(laid);
    if (!known) {
      const wanted = this.packing.overlay(laid.variables, laid.wanted, () => false);
      known = { wanted, free: laid.obeyed.size === 0 ? wanted : this.packing.overlay(laid.variables, laid.wanted, (variable) => laid.obeyed.has(variable)) };
      this.overlays.set(laid, known);
    }
    return known;
  }

  /** Whether sound surely reaches a destination. */
  surelySounds(possible: Possible): boolean {
    return this.liveness.surelySounds(this.packing.ranges(possible));
  }

  /** Multi-valued variables that the sound does not name and that may cut the line. */
  silencers(laid: Pick<Laid, 'has'>, possible: Possible): readonly number[] {
    return [...this.conditioned.keys()].filter((variable) => {
      if (variable < 0 || laid.has(variable)) return false;
      const range = possible(variable);
      return range === null || range.length !== 1;
    }).filter((variable) => !this.passes(variable));
  }

  /** What decides, beside a variable itself, whether it is heard: switches of its device, the loop that holds it, switches in its loop. */
  relatives(variable: number): readonly number[] {
    return this.hearing.relatives(variable);
  }

  /** What every variable may be, to judge from: made once, asked often. */
  ground(possible: Possible): Packed {
    return this.packing.ranges(possible);
  }

  /** The same where each variable has one known value (negative: it may have any). */
  settledGround(valueOf: (variable: number) => number): Packed {
    return this.packing.settled(valueOf);
  }

  /** The same but for some variables. */
  groundWith(ground: Packed, variables: Iterable<number>, possible: Possible): Packed {
    const made = this.packing.copy(ground);
    for (const variable of variables) this.packing.putOn(made, variable, possible(variable));
    return made;
  }

  /** Whether all that a variable opens, closes or colours is shut by other variables; `stays`: the value that a variable surely has, negative where there is none. */
  isShut(variable: number, stays: (variable: number) => number): boolean {
    return this.areShut(this.conditioned.get(variable), variable, stays) && this.areShut(this.governed.get(variable), variable, stays);
  }

  private areShut(edges: readonly HearingEdge[] | undefined, variable: number, stays: (variable: number) => number): boolean {
    if (edges) for (let i = 0; i < edges.length; i += 1) if (!this.isEdgeShut(edges[i], variable, stays)) return false;
    return true;
  }

  private isEdgeShut({ when }: HearingEdge, but: number, stays: (variable: number) => number): boolean {
    for (let i = 0; i < when.length; i += 1) {
      const { variable, values } = when[i];
      if (variable === but || variable < 0) continue;
      const value = stays(variable);
      if (value >= 0 && !this.hearing.plant.values.isSymbolic(value) && !values.includes(value)) return true;
    }
    return false;
  }

  /** Whether nothing of a variable can be heard while the loop that holds its device is out, whatever all else is. */
  isMutedByItsLoop(variable: number): boolean {
    return (this.muted[variable] ??= this.findMuted(variable));
  }

  /** The loop that holds a variable's device, or −1. */
  loopAround(variable: number): number {
    return this.hearing.loopAround(variable);
  }

  private findMuted(variable: number): boolean {
    const loop = this.loopAround(variable);
    if (loop < 0 || loop === variable) return false;
    const { packing, anything } = this;
    packing.putOnOne(anything, loop, this.hearing.plant.values.id(0));
    const isReached = (edge: HearingEdge): boolean => this.liveness.mayArrive(edge.from, anything);
    const isMuted = !(this.conditioned.get(variable) ?? []).some(isReached) && !(this.governed.get(variable) ?? []).some(isReached);
    packing.putOn(anything, loop, null);
    return isMuted;
  }

  /** Of some variables, those that may be heard at all, whatever each of them is and whatever the ground leaves open. */
  audible(laid: Laid, variables: readonly number[], ground: Packed): readonly number[] {
    const now = this.packing.copy(ground);
    for (const variable of variables) this.packing.putOn(now, variable, null);
    this.obey(now, laid);
    this.packing.widen(now, this.overlayOf(laid).free);
    const { edges } = this.liveness.may(now);
    const isLive = (edge: HearingEdge) => edges[edge.index] === 1;
    return variables.filter((variable) => (this.conditioned.get(variable) ?? []).some(isLive) || (this.governed.get(variable) ?? []).some(isLive));
  }

  /** What tells values of a variable apart in a status: which sections each closes, and whether it is the wanted one. */
  classOf(laid: Laid, variable: number, value: number): string {
    let classes = this.classes.get(variable);
    if (!classes) this.classes.set(variable, (classes = new Map()));
    let pattern = classes.get(value);
    if (pattern === undefined) {
      const { values } = this.hearing.plant;
      const closed = (this.conditioned.get(variable) ?? []).flatMap((edge) => edge.when.filter((condition) => condition.variable === variable).map((condition) => (condition.values.includes(value) ? '1' : '0')));
      classes.set(value, (pattern = values.isSymbolic(value) ? `?${value}` : closed.join('')));
    }
    const wanted = laid.wants(variable);
    return wanted === unwanted ? pattern : `${pattern}${wanted === value ? '=' : '#'}`;
  }

  private obey(now: Packed, { obeyed }: Laid): void {
    if (obeyed.size > 0) for (const [variable, value] of obeyed) this.packing.putOnOne(now, variable, value);
  }

  /** Judges one combination of a few variables; every other one may be anything that the ground allows. */
  status(laid: Laid, at: ReadonlyMap<number, number>, ground: Packed, pins: Pins): Status {
    const { values } = this.hearing.plant;
    const differing = [...at].filter(([variable, value]) => !laid.obeyed.has(variable) && laid.has(variable) && laid.wants(variable) !== value).map(([variable]) => variable);
    const now = this.packing.copy(ground);
    for (const [variable, value] of at) this.packing.putOnOne(now, variable, value);
    this.obey(now, laid);
    const mayNow = this.liveness.may(now);
    if (!laid.sound.silence && !mayNow.sounds) return 'wrong';
    if (differing.length === 0) return 'harmless';
    const { wanted, free } = this.overlayOf(laid);
    const then = this.packing.replaced(now, wanted);
    const mustThen = this.liveness.mustLive(then);
    const isDifferent = (edge: HearingEdge): boolean =>
      edge.governedBy.some((variable) => {
        const value = at.get(variable);
        return value !== undefined && differing.includes(variable) && values.compare(value, laid.wants(variable), pins) === 'different';
      });
    for (const edge of this.hearing.activeEdges) if (mustThen[edge.index] === 1 && (mayNow.edges[edge.index] === 0 || isDifferent(edge))) return 'wrong';
    const mayEither = this.mayEither(now, free);
    if (differing.every((variable) => this.cannotBeHeard(variable, laid, at, mayEither))) return 'harmless';
    const mustNow = this.liveness.mustLive(now);
    const mayThen = this.liveness.may(then);
    for (const edge of this.hearing.activeEdges) if (mustNow[edge.index] === 1 && (mayThen.edges[edge.index] === 0 || isDifferent(edge))) return 'wrong';
    return 'open';
  }

  private mayEither(now: Packed, free: Overlay): Uint8Array {
    const either = this.packing.copy(now);
    this.packing.widen(either, free);
    return this.liveness.may(either).edges;
  }

  /** Nothing that this variable closes, opens or colours can be live (`edges`: 1 where it may), neither as it is nor as wanted. */
  private cannotBeHeard(variable: number, laid: Laid, at: ReadonlyMap<number, number>, edges: Uint8Array): boolean {
    const now = at.get(variable)!;
    const wanted = laid.wants(variable);
    const { values } = this.hearing.plant;
    const symbolic = values.isSymbolic(now) || values.isSymbolic(wanted);
    const changes = (edge: HearingEdge) => symbolic || edge.when.some((condition) => condition.variable === variable && condition.values.includes(now) !== condition.values.includes(wanted));
    if ((this.conditioned.get(variable) ?? []).some((edge) => edges[edge.index] === 1 && changes(edge))) return false;
    return !(this.governed.get(variable) ?? []).some((edge) => edges[edge.index] === 1);
  }

  /** Whether every way that this variable opens and closes is one that is always there in some form. */
  private passes(variable: number): boolean {
    return (this.conditioned.get(variable) ?? []).filter((edge) => edge.when.length === 1).every((edge) => this.isAlways(edge.from, edge.to) || this.insideAlways(edge));
  }

  private isAlways(from: number, to: number): boolean {
    return this.pairs.has(from * this.hearing.graph.nodeCount + to);
  }

  /** A send or a return of a loop that passes either way: its ends lie between the ends of such a way. */
  private insideAlways(edge: HearingEdge): boolean {
    return this.onwards[edge.from].length > 0 || this.back[edge.to].length > 0;
  }

  /**
   * Pairs of nodes joined whatever one control is, found from the inside out: a pedal's own switch first, then the
   * loop that holds it. Only controls that stay inside their domain count.
   */
  private waysThrough(): (readonly [number, number])[] {
    const { edges, graph } = this.hearing;
    const free = edges.filter((edge) => edge.when.length === 0);
    const found: [number, number][] = [];
    const single = [...this.conditioned].map(([variable, list]) => [variable, list.filter((edge) => edge.when.length === 1)] as const).filter(([variable, list]) => variable >= 0 && list.length > 1 && this.hearing.staysInDomain(variable));
    const next = new Array<readonly number[]>(graph.nodeCount).fill(nowhere);
    for (const { from, to } of free) next[from] = [...next[from], to];
    const open: { readonly start: number; readonly end: number; readonly options: readonly (readonly HearingEdge[])[] }[] = [];
    for (const [variable, list] of single) {
      const options = this.hearing.optionsOf(variable).map((option) => list.filter((edge) => edge.when[0].values.includes(option)));
      const starts = new Set<number>();
      const ends = new Set<number>();
      for (const { from, to } of list) {
        starts.add(from);
        ends.add(to);
      }
      for (const start of starts) for (const end of ends) if (end !== start) open.push({ start, end, options });
    }
    const search = new Search(graph.nodeCount, next);
    for (let left = open, before = Infinity; left.length < before; ) {
      before = left.length;
      left = left.filter(({ start, end, options }) => {
        if (this.isAlways(start, end)) return false;
        for (let i = 0; i < options.length; i += 1) if (!search.reaches(start, end, options[i])) return true;
        this.pairs.add(start * graph.nodeCount + end);
        found.push([start, end]);
        next[start] = [...next[start], end];
        return false;
      });
    }
    return found;
  }
}

const nowhere: readonly number[] = [];

/** Asks again and again what can be reached from a node, along ways that are always there and a few that are closed. */
class Search {
  private readonly seen: Int32Array;
  private readonly stack: Int32Array;
  private round = 0;

  constructor(
    nodeCount: number,
    private readonly next: readonly (readonly number[])[],
  ) {
    this.seen = new Int32Array(nodeCount);
    this.stack = new Int32Array(nodeCount);
  }

  reaches(start: number, end: number, closed: readonly HearingEdge[]): boolean {
    const { seen, stack, next } = this;
    this.round += 1;
    const { round } = this;
    let height = 0;
    stack[height++] = start;
    seen[start] = round;
    while (height > 0 && seen[end] !== round) {
      const node = stack[--height];
      const ways = next[node];
      for (let i = 0; i < ways.length; i += 1) {
        if (seen[ways[i]] === round) continue;
        seen[ways[i]] = round;
        stack[height++] = ways[i];
      }
      for (let i = 0; i < closed.length; i += 1) {
        if (closed[i].from !== node || seen[closed[i].to] === round) continue;
        seen[closed[i].to] = round;
        stack[height++] = closed[i].to;
      }
    }
    return seen[end] === round;
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (!list) map.set(key, [value]);
  else if (!list.includes(value)) list.push(value);
}
