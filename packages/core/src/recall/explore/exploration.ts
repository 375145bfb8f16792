import type { FaultKind } from '../../model/rig.ts';
import { comesUpAs } from '../device/power-up.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noValue } from '../state/ids.ts';
import { NeedVariable } from '../state/store.ts';
import type { DependencyTracker } from './dependency-tracker.ts';
import type { Effect } from './effect.ts';
import type { CompiledEvent, EventTable } from './event-table.ts';
import { type Row, rowKey } from './row.ts';
import { type Question, type Reached, StateSpace } from './state-space.ts';
import { widening } from './widening.ts';

/** Values that a variable may have, and the variables that this turns on: itself, and what decides about it. */
interface ValueSet {
  readonly values: readonly ValueId[];
  readonly dependsOn: readonly VariableId[];
}

/**
 * All that is explored for one question: its spaces, and what was read from them. Notes what each answer turns on.
 */
export class Exploration {
  readonly faults: ReadonlySet<FaultKind>;
  private readonly spaces = new Map<string, StateSpace>();
  /** Of single variables the space that they came to, alone or with what they turned out to need. */
  private readonly alone: (StateSpace | undefined)[] = [];
  /** Variables that spaces turned out to need beside their own, by the space: taken in at once the next time. */
  private readonly needed = new Map<string, number>();
  private readonly quiet = new Map<number, StateSpace>();
  private readonly jointly = new Set<string>();
  private readonly everywhere: (ValueSet | undefined)[] = [];
  /** By variable, and by what a press does to its own space, where that is all that it reads; else by the press. */
  private readonly afterwards: (Map<Effect | CompiledEvent, ValueSet> | undefined)[] = [];
  /**
   * For each variable the one value that it has in every state, where nothing that may happen writes it; −1 where that
   * is not so, −2 where nobody asked yet.
   */
  private readonly resting: Int32Array;

  constructor(
    private readonly table: EventTable,
    readonly question: Question,
    private readonly consulted: DependencyTracker,
  ) {
    this.faults = question.level === 4 ? new Set(table.model.wiring.rig.settings.faults) : none;
    this.resting = new Int32Array(table.model.variables.length).fill(notAsked);
  }

  /**
   * What was explored for the same question before an edit, of variables that no changed slot leaves otherwise than
   * before. At levels 2 and 3 only: what a lost message leaves turns on every message of a slot, not on what the whole
   * press leaves.
   */
  takeOver(kept: Exploration, touched: ReadonlySet<number>): void {
    const isSame = (variable: VariableId) => !touched.has(variable);
    for (const [key, space] of kept.spaces) if (space.variables.every(isSame)) this.spaces.set(key, space);
    kept.alone.forEach((space, variable) => {
      if (space?.variables.every(isSame)) this.alone[variable] = space;
    });
    kept.everywhere.forEach((found, variable) => {
      if (found?.dependsOn.every(isSame)) this.everywhere[variable] = found;
    });
  }

  /** Machines explored so far, and whether several wanted variables had to be followed together. */
  *sizes(): Iterable<{ readonly variables: number; readonly states: number; readonly joint: boolean }> {
    for (const [key, { variables, reached }] of this.spaces)
      yield { variables: variables.length, states: reached.length, joint: this.jointly.has(key) };
    for (const { variables, reached } of this.quiet.values())
      yield { variables: variables.length, states: reached.length, joint: false };
  }

  /** Says that these variables have to be followed together. */
  noteJoint(variables: readonly VariableId[]): void {
    this.jointly.add(keyOf(variables));
  }

  /** Whether any event may change a variable. */
  mayWrite(variable: VariableId): boolean {
    return this.table.mayWrite(this.question.level, this.faults, variable);
  }

  /** Events that may change one of these variables, in document order. */
  concerning(variables: readonly VariableId[]): readonly CompiledEvent[] {
    return this.table.concerning(this.question.level, this.faults, variables);
  }

  /** Every value that a variable may have. */
  reachable(variable: VariableId): readonly number[] {
    this.someReachable(variable, never);
    return this.everywhere[variable]!.values;
  }

  isKnown(variable: VariableId): boolean {
    return this.everywhere[variable] !== undefined;
  }

  /** The same where somebody asked already. */
  reachableIfKnown(variable: VariableId): readonly number[] | undefined {
    return this.everywhere[variable] && this.reachable(variable);
  }

  /** Whether one of the values that a variable may have is enough; looks no further than that. */
  someReachable(variable: VariableId, isEnough: (value: ValueId) => boolean): boolean {
    const valuesOf = ({ stepper: { place } }: StateSpace, { row }: Reached) => [row[place[variable]]];
    return this.some(
      variable,
      isEnough,
      valuesOf,
      this.everywhere[variable],
      (found) => (this.everywhere[variable] = found),
    );
  }

  /**
   * Every value that a variable may have after a press, delivered whole, that writes it; from its own space alone.
   */
  after(variable: VariableId, press: CompiledEvent): readonly number[] {
    this.someAfter(variable, press, never);
    return this.foundAfter(variable, press)!.values;
  }

  /** The same where somebody asked already of a press that does the same. */
  afterIfKnown(variable: VariableId, press: CompiledEvent): readonly number[] | undefined {
    return this.foundAfter(variable, press) && this.after(variable, press);
  }

  /** Whether one of the values that a variable may have after a press is enough; looks no further than that. */
  someAfter(variable: VariableId, press: CompiledEvent, isEnough: (value: ValueId) => boolean): boolean {
    let searched: StateSpace | undefined;
    const valuesOf = (space: StateSpace, from: Reached): readonly number[] => {
      searched = space;
      const value = this.valueAfter(space, press, from, variable);
      return value === undefined
        ? this.postRows(space, press, from).map((row) => row[space.stepper.place[variable]])
        : [value];
    };
    return this.some(variable, isEnough, valuesOf, this.foundAfter(variable, press), (found) => {
      // Presses that do the same in the variable's own space may differ where the press was found to read more.
      const isInItsOwn = searched === this.alone[variable];
      const key = (isInItsOwn && this.effectOn(variable, press)) || press;
      (this.afterwards[variable] ??= new Map()).set(key, found);
    });
  }

  /** Looks through the values that a variable may have until one is enough; where none is, they are remembered. */
  private some(
    variable: VariableId,
    isEnough: (value: ValueId) => boolean,
    valuesOf: (space: StateSpace, from: Reached) => readonly number[],
    known: ValueSet | undefined,
    remember: (found: ValueSet) => void,
  ): boolean {
    if (known) {
      this.consulted.noteAll(known.dependsOn);
      return known.values.some(isEnough);
    }
    const values = new Set<number>();
    const { result, dependsOn } = this.consulted.track(() => {
      this.consulted.note(variable);
      return this.search([variable], (space, from) => {
        for (const value of valuesOf(space, from)) {
          if (values.has(value)) continue;
          values.add(value);
          if (isEnough(value)) return true;
        }
        return undefined;
      });
    });
    if (!result) remember({ values: [...values], dependsOn });
    return result === true;
  }

  /**
   * The one value that a variable has after a press from a row on which it can happen; undefined where there is none,
   * or several.
   */
  valueAfter(
    { stepper }: StateSpace,
    press: CompiledEvent,
    { row }: Reached,
    variable: VariableId,
  ): number | undefined {
    return this.table.model.mayHold || !stepper.canHappen(row, press)
      ? undefined
      : stepper.valueAfter(row, press, variable);
  }

  private foundAfter(variable: VariableId, press: CompiledEvent): ValueSet | undefined {
    const known = this.afterwards[variable];
    if (!known) return undefined;
    const effect = this.effectOn(variable, press);
    return (effect && known.get(effect)) ?? known.get(press);
  }

  /** What a press does to the rows of a variable's own space: the very same for presses that do the same there. */
  private effectOn(variable: VariableId, press: CompiledEvent): Effect | undefined {
    return this.table.model.mayHold ? undefined : this.alone[variable]?.stepper.effectFromAnywhere(press);
  }

  /** The one value that a variable has in every state, where nothing that may happen writes it; else negative. */
  restsOn(variable: VariableId): number {
    if (this.resting[variable] === notAsked) this.resting[variable] = this.findResting(variable);
    if (this.resting[variable] >= 0) this.consulted.note(variable);
    return this.resting[variable];
  }

  private findResting(variable: VariableId): number {
    if (this.mayWrite(variable)) return noValue;
    const value = comesUpAs(this.table.model, variable);
    if (value >= 0) return value;
    const values = this.reachable(variable);
    return values.length === 1 ? values[0] : noValue;
  }

  /**
   * Visits the reachable combinations of some variables, nearest first, until `visit` answers. Starts anew with one
   * variable more where an event or the visit turns out to read it.
   */
  search<T>(
    wanted: readonly number[],
    visit: (space: StateSpace, reached: Reached) => T | undefined,
    among: 'all' | 'power-up' = 'all',
  ): T | undefined {
    const variables = new Set(wanted);
    return widening(variables, () => {
      const space = this.spaceFor(wanted, variables);
      // What power-up leaves turns on no event.
      if (among === 'all') this.consulted.noteAll(space.variables);
      for (let i = 0; among === 'all' || i < space.starts; i += 1) {
        const reached = this.rowAt(space, i);
        if (!reached) return undefined;
        const answer = visit(space, reached);
        if (answer !== undefined) return answer;
      }
      return undefined;
    });
  }

  private spaceFor(wanted: readonly number[], variables: Set<VariableId>): StateSpace {
    const isAlone = wanted.length === 1 && variables.size === 1;
    const known = isAlone ? this.alone[wanted[0]] : undefined;
    if (known) return known;
    this.takeIn(variables);
    const space = this.space(sorted(variables));
    if (isAlone) this.alone[wanted[0]] = space;
    return space;
  }

  private takeIn(variables: Set<VariableId>): void {
    for (;;) {
      const more = this.needed.get(keyOf([...variables]));
      if (more === undefined) return;
      variables.add(more);
    }
  }

  private rowAt(space: StateSpace, i: number): Reached | undefined {
    return i < space.reached.length ? space.reached[i] : this.noting(space.variables, () => space.at(i));
  }

  private noting<T>(variables: readonly VariableId[], act: () => T): T {
    try {
      return act();
    } catch (reason) {
      if (reason instanceof NeedVariable) {
        const key = keyOf(variables);
        const space = this.spaces.get(key);
        this.spaces.delete(key);
        this.alone.forEach((stateSpace, variable) => {
          if (stateSpace === space) this.alone[variable] = undefined;
        });
        this.needed.set(key, reason.variable);
      }
      throw reason;
    }
  }

  private space(variables: readonly VariableId[]): StateSpace {
    const key = keyOf(variables);
    let space = this.spaces.get(key);
    if (!space)
      this.spaces.set(
        key,
        (space = this.noting(variables, () => new StateSpace(this.table, variables, this.question))),
      );
    return space;
  }

  /** Explored whole, with an event tried from each row to learn whether it settles. */
  settlingSpace(compiled: CompiledEvent, wanted: readonly number[]): StateSpace {
    let space = this.quiet.get(compiled.index);
    if (!space) {
      space = widening(new Set(wanted), (variables) =>
        new StateSpace(this.table, variables, { ...this.question, also: [compiled] }).complete(),
      );
      this.quiet.set(compiled.index, space);
    }
    return space;
  }

  /** The rows that a press, delivered whole, leads to from a row, everything held let go after it. */
  postRows({ stepper }: StateSpace, press: CompiledEvent, from: Reached): readonly Row[] {
    if (!stepper.canHappen(from.row, press)) return [];
    if (!this.table.model.mayHold) {
      const after = stepper.after(from.row, press);
      return after
        ? [after]
        : stepper.step(from.row, press, none).flatMap(({ row, outcome }) => (outcome === 'settled' ? [row] : []));
    }
    const seen = new Set<string | number>();
    return stepper.step(from.row, press, none).flatMap((item) =>
      item.outcome !== 'settled'
        ? []
        : stepper.released(item.row).flatMap(({ row, outcome }) => {
            const key = rowKey(row);
            if (outcome !== 'settled' || seen.has(key)) return [];
            seen.add(key);
            return [row];
          }),
    );
  }
}

/** Stands where nobody asked yet what a variable rests on. */
const notAsked = -2;
const none: ReadonlySet<never> = new Set();
const never = (): boolean => false;
const sorted = (variables: Iterable<number>): number[] => [...variables].sort((a, b) => a - b);
const keyOf = (variables: readonly VariableId[]): string =>
  variables.length === 1 ? String(variables[0]) : sorted(variables).join(',');
