import { buildCsr, type Csr } from '../../trace/csr.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { Pins } from '../state/values.ts';
import { type GuaranteedPaths, guaranteedThrough } from './guaranteed-paths.ts';
import { type Overlay, type Possible, type Ranges, RangeTable } from './range-table.ts';
import { Reachability } from './reachability.ts';
import type { SoundComparison, SoundEdge } from './sound-comparison.ts';
import { type SoundTarget, unwanted } from './sound-target.ts';

/**
 * What is already settled of a sound when only some variables are known: `wrong` whatever the others are,
 * `inaudible` (what differs here cannot be heard, whatever the others are), or still `open`.
 */
export type Status = 'wrong' | 'inaudible' | 'open';

/** A judgement from a few variables alone, sound whatever the rest of the rig is doing. */
export class ThreeValuedJudge {
  private readonly always: GuaranteedPaths;
  /** The sections that each variable opens and closes, and those that it is heard in. */
  private readonly conditioned: Csr;
  private readonly governed: Csr;
  /** Variables that open or close any, in the order in which they are met. */
  private readonly switching: readonly number[];
  private readonly table: RangeTable;
  private readonly liveness: Reachability;
  /** What each sound wants, packed, without and with its cues. */
  private readonly overlays = new WeakMap<SoundTarget, { readonly wanted: Overlay; readonly free: Overlay }>();
  private readonly classes = new Map<number, Map<number, string>>();
  private readonly muted: boolean[] = [];
  /** Every variable may be anything. */
  private readonly anything: Ranges;

  constructor(private readonly comparison: SoundComparison) {
    const { edges, activeEdges, presetOf } = comparison;
    const size = comparison.model.variables.length;
    this.conditioned = buildCsr(size, (tell) => {
      for (const { index, when } of edges)
        for (let i = 0; i < when.length; i += 1) if (when[i].variable >= 0) tell(when[i].variable, index);
    });
    this.governed = buildCsr(size, (tell) => {
      for (const { index, parameters } of activeEdges)
        for (let i = 0; i < parameters.length; i += 1) {
          tell(parameters[i], index);
          const preset = presetOf.get(parameters[i]);
          if (preset !== undefined) tell(preset, index);
        }
    });
    this.switching = variablesIn(edges);
    this.always = guaranteedThrough(comparison, this.conditioned, this.switching);
    this.table = new RangeTable(comparison.edges, (value) => comparison.model.values.isSymbolic(value));
    this.anything = this.table.ranges(() => null);
    this.liveness = new Reachability(comparison, this.table, this.always);
  }

  private overlayOf(target: SoundTarget): { readonly wanted: Overlay; readonly free: Overlay } {
    let known = this.overlays.get(target);
    if (!known) {
      const wanted = this.table.overlay(target.variables, target.wanted, () => false);
      known = {
        wanted,
        free:
          target.cues.size === 0
            ? wanted
            : this.table.overlay(target.variables, target.wanted, (variable) => target.cues.has(variable)),
      };
      this.overlays.set(target, known);
    }
    return known;
  }

  /** Whether sound surely reaches a destination. */
  surelySounds(possible: Possible): boolean {
    return this.liveness.surelySounds(this.table.ranges(possible));
  }

  /** Multi-valued variables that the sound does not name and that may cut the line. */
  mayCut(target: Pick<SoundTarget, 'has'>, possible: Possible): readonly number[] {
    return this.switching
      .filter((variable) => {
        if (target.has(variable)) return false;
        const range = possible(variable);
        return range === null || range.length !== 1;
      })
      .filter((variable) => !this.passes(variable));
  }

  /**
   * What decides, beside a variable itself, whether it is heard: switches of its device, the loop that holds it,
   * switches in its loop.
   */
  relatedControls(variable: VariableId): readonly number[] {
    return this.comparison.relatedControls(variable);
  }

  /** What every variable may be, to judge from: made once, asked often. */
  ground(possible: Possible): Ranges {
    return this.table.ranges(possible);
  }

  /** The same where each variable has one known value (negative: it may have any). */
  settledGround(valueOf: (variable: VariableId) => number): Ranges {
    return this.table.settled(valueOf);
  }

  /** The same but for some variables. */
  groundWith(ground: Ranges, variables: Iterable<number>, possible: Possible): Ranges {
    const made = ground.slice();
    for (const variable of variables) this.table.putOn(made, variable, possible(variable));
    return made;
  }

  /**
   * Whether all that a variable opens, closes or colours is shut by other variables; `stays`: the value that a variable
   * surely has, negative where there is none.
   */
  isBlocked(variable: VariableId, stays: (variable: VariableId) => number): boolean {
    return this.areShut(this.conditioned, variable, stays) && this.areShut(this.governed, variable, stays);
  }

  private areShut({ start, items }: Csr, variable: VariableId, stays: (variable: VariableId) => number): boolean {
    const { edges } = this.comparison;
    for (let k = start[variable]; k < start[variable + 1]; k += 1)
      if (!this.isEdgeShut(edges[items[k]], variable, stays)) return false;
    return true;
  }

  /** Whether some section that a variable opens, closes or is heard in is such. */
  private some(variable: VariableId, isSuch: (edge: SoundEdge) => boolean): boolean {
    return this.someIn(this.conditioned, variable, isSuch) || this.someIn(this.governed, variable, isSuch);
  }

  private someIn({ start, items }: Csr, variable: VariableId, isSuch: (edge: SoundEdge) => boolean): boolean {
    const { edges } = this.comparison;
    for (let k = start[variable]; k < start[variable + 1]; k += 1) if (isSuch(edges[items[k]])) return true;
    return false;
  }

  private isEdgeShut({ when }: SoundEdge, but: number, stays: (variable: VariableId) => number): boolean {
    for (let i = 0; i < when.length; i += 1) {
      const { variable, values } = when[i];
      if (variable === but || variable < 0) continue;
      const value = stays(variable);
      if (value >= 0 && !this.comparison.model.values.isSymbolic(value) && !values.includes(value)) return true;
    }
    return false;
  }

  /** Whether nothing of a variable can be heard while the loop that holds its device is out, whatever all else is. */
  isMutedByItsLoop(variable: VariableId): boolean {
    return (this.muted[variable] ??= this.findMuted(variable));
  }

  /** The loop that holds a variable's device, or −1. */
  loopAround(variable: VariableId): number {
    return this.comparison.loopAround(variable);
  }

  private findMuted(variable: VariableId): boolean {
    const loop = this.loopAround(variable);
    if (loop < 0 || loop === variable) return false;
    const { table, anything } = this;
    table.setValue(anything, loop, this.comparison.model.values.id(0));
    const isReached = (edge: SoundEdge): boolean => this.liveness.mayArrive(edge.from, anything);
    const isMuted = !this.some(variable, isReached);
    table.putOn(anything, loop, null);
    return isMuted;
  }

  /**
   * Of some variables, those that may be heard at all, whatever each of them is and whatever the ground leaves open.
   */
  audible(target: SoundTarget, variables: readonly VariableId[], ground: Ranges): readonly number[] {
    const now = ground.slice();
    for (const variable of variables) this.table.putOn(now, variable, null);
    this.obey(now, target);
    this.table.widen(now, this.overlayOf(target).free);
    const { edges } = this.liveness.may(now);
    const isLive = (edge: SoundEdge) => edges[edge.index] === 1;
    return variables.filter((variable) => this.some(variable, isLive));
  }

  /**
   * What tells values of a variable apart in a status: which sections each closes, and whether it is the wanted one.
   */
  classOf(target: SoundTarget, variable: VariableId, value: ValueId): string {
    let classes = this.classes.get(variable);
    if (!classes) this.classes.set(variable, (classes = new Map()));
    let pattern = classes.get(value);
    if (pattern === undefined) {
      const { values } = this.comparison.model;
      classes.set(value, (pattern = values.isSymbolic(value) ? `?${value}` : this.pattern(variable, value)));
    }
    const wanted = target.wants(variable);
    return wanted === unwanted ? pattern : `${pattern}${wanted === value ? '=' : '#'}`;
  }

  /** For each condition on a variable whether a value meets it. */
  private pattern(variable: VariableId, value: ValueId): string {
    let pattern = '';
    this.someIn(this.conditioned, variable, ({ when }) => {
      for (const condition of when)
        if (condition.variable === variable) pattern += condition.values.includes(value) ? '1' : '0';
      return false;
    });
    return pattern;
  }

  private obey(now: Ranges, { cues }: SoundTarget): void {
    if (cues.size > 0) for (const [variable, value] of cues) this.table.setValue(now, variable, value);
  }

  /** Judges one combination of a few variables; every other one may be anything that the ground allows. */
  status(target: SoundTarget, at: ReadonlyMap<VariableId, ValueId>, ground: Ranges, pins: Pins): Status {
    const { values } = this.comparison.model;
    const differing = [...at]
      .filter(
        ([variable, value]) => !target.cues.has(variable) && target.has(variable) && target.wants(variable) !== value,
      )
      .map(([variable]) => variable);
    const now = ground.slice();
    for (const [variable, value] of at) this.table.setValue(now, variable, value);
    this.obey(now, target);
    const mayNow = this.liveness.may(now);
    if (!target.sound.silence && !mayNow.sounds) return 'wrong';
    if (differing.length === 0) return 'inaudible';
    const { wanted, free } = this.overlayOf(target);
    const then = this.table.replaced(now, wanted);
    const mustThen = this.liveness.mustLive(then);
    const isDifferent = (edge: SoundEdge): boolean =>
      edge.parameters.some((variable) => {
        const value = at.get(variable);
        return (
          value !== undefined &&
          differing.includes(variable) &&
          values.compare(value, target.wants(variable), pins) === 'different'
        );
      });
    for (const edge of this.comparison.activeEdges)
      if (mustThen[edge.index] === 1 && (mayNow.edges[edge.index] === 0 || isDifferent(edge))) return 'wrong';
    const mayEither = this.mayEither(now, free);
    if (differing.every((variable) => this.cannotBeHeard(variable, target, at, mayEither))) return 'inaudible';
    const mustNow = this.liveness.mustLive(now);
    const mayThen = this.liveness.may(then);
    for (const edge of this.comparison.activeEdges)
      if (mustNow[edge.index] === 1 && (mayThen.edges[edge.index] === 0 || isDifferent(edge))) return 'wrong';
    return 'open';
  }

  private mayEither(now: Ranges, free: Overlay): Uint8Array {
    const either = now.slice();
    this.table.widen(either, free);
    return this.liveness.may(either).edges;
  }

  /**
   * Nothing that this variable closes, opens or colours can be live (`edges`: 1 where it may), neither as it is nor as
   * wanted.
   */
  private cannotBeHeard(
    variable: VariableId,
    target: SoundTarget,
    at: ReadonlyMap<VariableId, ValueId>,
    edges: Uint8Array,
  ): boolean {
    const now = at.get(variable)!;
    const wanted = target.wants(variable);
    const { values } = this.comparison.model;
    const symbolic = values.isSymbolic(now) || values.isSymbolic(wanted);
    const changes = (edge: SoundEdge) =>
      symbolic ||
      edge.when.some(
        (condition) =>
          condition.variable === variable && condition.values.includes(now) !== condition.values.includes(wanted),
      );
    if (this.someIn(this.conditioned, variable, (edge) => edges[edge.index] === 1 && changes(edge))) return false;
    return !this.someIn(this.governed, variable, (edge) => edges[edge.index] === 1);
  }

  /** Whether every way that this variable opens and closes is one that is always there in some form. */
  private passes(variable: VariableId): boolean {
    return !this.someIn(
      this.conditioned,
      variable,
      (edge) => edge.when.length === 1 && !this.isAlways(edge) && !this.insideAlways(edge),
    );
  }

  private isAlways({ from, to }: SoundEdge): boolean {
    const { start, items } = this.always.onwards;
    return items.subarray(start[from], start[from + 1]).includes(to);
  }

  /** A send or a return of a loop that passes either way: its ends lie between the ends of such a way. */
  private insideAlways(edge: SoundEdge): boolean {
    const { onwards, back } = this.always;
    return onwards.start[edge.from + 1] > onwards.start[edge.from] || back.start[edge.to + 1] > back.start[edge.to];
  }
}

/** The variables that open or close any of some sections, each once. */
function variablesIn(edges: readonly SoundEdge[]): readonly number[] {
  const met = new Set<number>();
  for (const { when } of edges)
    for (let i = 0; i < when.length; i += 1) if (when[i].variable >= 0) met.add(when[i].variable);
  return [...met];
}
