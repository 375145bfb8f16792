import type { FaultKind } from '../../model/rig.ts';
import type { Outcome } from '../deliver/delivery.ts';
import { isStray } from '../deliver/events.ts';
import type { VariableId } from '../state/ids.ts';
import type { Pins } from '../state/values.ts';
import type { CompiledEvent, EventTable, FreeLevel } from './event-table.ts';
import { type Row, rowKey, TooManyStates } from './row.ts';
import { type Initial, type InitialLoss, isFixed, type Move, Stepper } from './stepper.ts';

export interface Limits {
  /** States of one space past which an exploration gives up. */
  readonly states: number;
  /** Events tried on states of one space past which it gives up. */
  readonly steps: number;
  /** Ways to assume unknown contents past which the answer stays *cannot be known*. */
  readonly contents: number;
}
export const defaultLimits: Limits = { states: 30_000, steps: 400_000, contents: 500 };

export interface Question {
  readonly level: FreeLevel;
  readonly pins: Pins;
  readonly limits: Limits;
  /** At level 3: the one stray switch that counts; all of them when absent. */
  readonly stray?: number;
  /** Events to try from each row, to learn whether they settles; they lead nowhere. */
  readonly also?: readonly CompiledEvent[];
}

/** One row of an explored space with the way that first led to it. */
export interface Reached {
  readonly row: Row;
  readonly depth: number;
  readonly from: Reached | null;
  readonly move: Move | null;
  /** Of a first row: what it was before slots fired by themselves, and what was lost as they did. */
  readonly cold?: Row;
  readonly initialLost?: InitialLoss;
}

/**
 * A few variables followed from power-up, breadth first and only as far as asked: the first way to each row is a
 * shortest one, earliest events first. Covers exactly the reachable combinations of its variables. Throws
 * NeedVariable where an event turns out to read another variable, TooManyStates past the limits.
 */
export class StateSpace {
  readonly reached: Reached[] = [];
  /** Presses that did not settles, from where. */
  readonly unsettled: {
    readonly from: Reached;
    readonly compiled: CompiledEvent;
    readonly outcome: Outcome;
    readonly whole: boolean;
  }[] = [];
  /** Whether power-up itself, by a slot that it fires, may not settles. */
  readonly startsUnsettled: boolean;
  /** How many rows power-up leaves: the first ones. */
  readonly starts: number;
  readonly stepper: Stepper;
  private readonly seen = new Set<string | number>();
  private readonly once = new Set<CompiledEvent>();
  private readonly alike = new Map<CompiledEvent, readonly CompiledEvent[]>();
  private known: readonly CompiledEvent[] | undefined;
  /** Those of them that may lead on from a row though they have been tried from another; found after the first row. */
  private varying: readonly CompiledEvent[] | undefined;
  private readonly faults: ReadonlySet<FaultKind>;
  private readonly losable: ReadonlySet<FaultKind>;
  /** A row that may not have been reached before. */
  private readonly ahead: Row = [];
  private next = 0;
  private steps = 0;
  /** Given up: whoever asks again is told again, for the row that was one too many is not kept. */
  private isTooLarge = false;

  constructor(
    private readonly table: EventTable,
    readonly variables: readonly VariableId[],
    private readonly question: Question,
  ) {
    this.faults = new Set(question.level === 4 ? table.model.wiring.rig.settings.faults : []);
    this.losable = new Set([...this.faults].filter((kind) => kind !== 'restart'));
    this.stepper = new Stepper(table.model, variables, question.pins);
    const starts = this.stepper.initial(this.losable);
    this.startsUnsettled = starts.some(({ outcome }) => outcome !== 'settled');
    for (const start of starts) if (start.outcome === 'settled') this.add(start.row, null, null, start);
    this.starts = this.reached.length;
  }

  /** The events to try, found when the first row is left: often it alone is asked for. */
  private get events(): readonly CompiledEvent[] {
    return (this.known ??= this.eventsConcerned());
  }

  private eventsConcerned(): readonly CompiledEvent[] {
    const { level, stray } = this.question;
    if (!this.variables.some((variable) => this.table.mayWrite(level, this.faults, variable))) return [];
    const touching = this.table.concerning(level, this.faults, this.variables);
    const concerned =
      stray === undefined
        ? touching
        : touching.filter(({ event, index }) => event.kind !== 'foot' || !event.stray || index === stray);
    return this.losable.size > 0 ? concerned : this.distinct(concerned);
  }

  /** The i-th row in the order of discovery; undefined past the last. */
  at(i: number): Reached | undefined {
    while (i >= this.reached.length && this.next < this.reached.length) this.expand();
    return this.reached[i];
  }

  complete(): this {
    while (this.next < this.reached.length) this.expand();
    return this;
  }

  /** Presses that do to these variables just what this one does, itself among them, in document order. */
  equivalents(compiled: CompiledEvent): readonly CompiledEvent[] {
    return this.alike.get(compiled) ?? [compiled];
  }

  /** Of presses that leave these variables on the same values whatever was before, the first. */
  private distinct(events: readonly CompiledEvent[]): readonly CompiledEvent[] {
    const { variables } = this;
    const first = new Map<string | number, CompiledEvent[]>();
    return events.filter((compiled) => {
      if (!isConstant(compiled, variables)) return true;
      const { summary } = compiled;
      const key =
        variables.length === 1
          ? summary.leaves(variables[0])
          : variables.length === 2
            ? summary.leaves(variables[0]) * 0x4000000 + summary.leaves(variables[1])
            : variables.map((variable) => summary.leaves(variable)).join(',');
      const alike = first.get(key);
      if (alike) {
        alike.push(compiled);
        return false;
      }
      const list = [compiled];
      first.set(key, list);
      this.alike.set(compiled, list);
      return true;
    });
  }

  private add(row: Row, from: Reached | null, move: Move | null, start?: Initial): void {
    const key = rowKey(row);
    if (this.seen.has(key)) return;
    if (this.reached.length >= this.question.limits.states) {
      this.isTooLarge = true;
      throw new TooManyStates();
    }
    this.seen.add(key);
    this.reached.push({
      row: row === this.ahead ? row.slice() : row,
      depth: from ? from.depth + 1 : 0,
      from,
      move,
      cold: start?.cold,
      initialLost: start?.lost,
    });
  }

  private expand(): void {
    if (this.isTooLarge) throw new TooManyStates();
    const here = this.reached[this.next];
    const { stepper, question } = this;
    for (const compiled of question.also ?? []) {
      if (isSpent(here.row, stepper, compiled) || !stepper.canHappen(here.row, compiled)) continue;
      for (const { outcome, lost } of stepper.step(here.row, compiled, this.losable))
        if (outcome !== 'settled') this.unsettled.push({ from: here, compiled, outcome, whole: lost === undefined });
    }
    for (const compiled of this.varying ?? this.events) {
      if (this.once.has(compiled) || isSpent(here.row, stepper, compiled) || !stepper.canHappen(here.row, compiled))
        continue;
      if ((this.steps += 1) > question.limits.steps) throw new TooManyStates();
      if (sameFromAnywhere(compiled, this.variables, question)) this.once.add(compiled);
      if (this.losable.size === 0 && isFixed(compiled) && !isStray(compiled.event)) {
        stepper.leadsTo(here.row, compiled, this.ahead);
        this.add(this.ahead, here, { compiled });
        continue;
      }
      for (const { row, outcome, lost } of stepper.step(here.row, compiled, this.losable)) {
        if (outcome === 'settled') this.add(row, here, { compiled, lost });
        else if (!question.also?.includes(compiled))
          this.unsettled.push({ from: here, compiled, outcome, whole: lost === undefined });
      }
    }
    this.varying ??= this.events.filter((compiled) => !this.once.has(compiled));
    this.next += 1;
  }
}

/** The one stray foot or restart has been used. */
const isSpent = (row: Row, stepper: Stepper, compiled: CompiledEvent): boolean =>
  row[stepper.width - 1] === 1 && (compiled.event.kind === 'restart' || isStray(compiled.event));

/** An event that leaves every variable of the space on a known value need be tried from one row only. */
const sameFromAnywhere = (compiled: CompiledEvent, variables: readonly VariableId[], question: Question): boolean =>
  question.level === 2 && isConstant(compiled, variables);

/** Whether a press can be made from every row and leaves each of these variables on a known value. */
function isConstant({ bank, summary }: CompiledEvent, variables: readonly VariableId[]): boolean {
  if (bank === null || variables.includes(bank)) return false;
  for (let i = 0; i < variables.length; i += 1) if (summary.leaves(variables[i]) < 0) return false;
  return true;
}
