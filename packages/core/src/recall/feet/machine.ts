import type { CompiledEvent } from '../explore/event-table.ts';
import { type Row, rowKey, TooManyStates } from '../explore/row.ts';
import { Stepper } from '../explore/stepper.ts';
import type { VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import { NeedVariable } from '../state/store.ts';

/**
 * What a machine may be: one row, or several where power-up leaves a choice. The very same object for the same rows.
 */
export interface Belief {
  readonly rows: readonly Row[];
  readonly key: string;
}

/** Thrown where an event of one machine reads a variable of another: they are one. */
export class OneMachine {
  constructor(readonly variables: readonly VariableId[]) {}
}

/** Thrown where an event may never fall quiet: nothing is known after it. */
export class Unsettled extends Error {}

const mostRows = 20_000;
const noFaults: ReadonlySet<never> = new Set();

/** Some variables of a rig that no other variable moves. */
export class Machine {
  private readonly stepper: Stepper;
  private readonly beliefs = new Map<string, Belief>();
  private readonly steps = new Map<CompiledEvent, Map<Belief, Belief>>();
  private first: Belief | undefined;

  constructor(
    readonly index: number,
    readonly model: StateModel,
    readonly variables: readonly VariableId[],
  ) {
    this.stepper = new Stepper(model, variables, new Map());
  }

  /** What power-up leaves. */
  get initial(): Belief {
    return (this.first ??= this.within(() => {
      const starts = this.stepper.initial(noFaults);
      if (starts.some(({ outcome }) => outcome !== 'settled')) throw new Unsettled();
      return this.belief(starts.map(({ row }) => row));
    }));
  }

  after(belief: Belief, compiled: CompiledEvent): Belief {
    let known = this.steps.get(compiled);
    if (!known) this.steps.set(compiled, (known = new Map()));
    let next = known.get(belief);
    if (!next) known.set(belief, (next = this.within(() => this.step(belief, compiled))));
    return next;
  }

  valueIn(row: Row, variable: VariableId): number {
    return row[this.stepper.place[variable]];
  }

  /** The values that a variable may have. */
  valuesOf({ rows }: Belief, variable: VariableId): readonly number[] {
    const column = this.stepper.place[variable];
    return rows.length === 1 ? [rows[0][column]] : [...new Set(rows.map((row) => row[column]))];
  }

  belief(rows: readonly Row[]): Belief {
    if (rows.length > mostRows) throw new TooManyStates();
    const byKey = new Map(rows.map((row) => [String(rowKey(row)), row]));
    const key = [...byKey.keys()].sort().join(';');
    let belief = this.beliefs.get(key);
    if (!belief) this.beliefs.set(key, (belief = { rows: [...byKey.values()], key }));
    return belief;
  }

  private step({ rows }: Belief, compiled: CompiledEvent): Belief {
    return this.belief(
      rows.flatMap((row) => {
        if (!this.stepper.canHappen(row, compiled)) return [row];
        return this.stepper.step(row, compiled, noFaults).map((reached) => {
          if (reached.outcome !== 'settled') throw new Unsettled();
          // Whether a stray foot was used is of no account here.
          reached.row[this.stepper.width - 1] = 0;
          return reached.row;
        });
      }),
    );
  }

  private within<T>(ask: () => T): T {
    try {
      return ask();
    } catch (reason) {
      if (reason instanceof NeedVariable) throw new OneMachine([...this.variables, reason.variable]);
      throw reason;
    }
  }
}
