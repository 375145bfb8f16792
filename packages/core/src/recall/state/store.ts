import type { ValueId, VariableId } from './ids.ts';
import type { Pins } from './values.ts';

/** Where variables are read and written while an event runs. */
export interface Store {
  readonly pins: Pins;
  has(variable: VariableId): boolean;
  get(variable: VariableId): ValueId;
  set(variable: VariableId, value: ValueId): void;
  /** A key of everything held, for recognising a configuration that repeats. */
  key(): string;
}

/**
 * Thrown where a space's effect reads a variable that it does not hold: the space must take it in. Not an Error: it
 * is thrown often, and nobody reads its stack.
 */
export class NeedVariable {
  constructor(readonly variable: VariableId) {}
}

/** A state of some of the rig's variables: writes to others fall away, reads of others are refused. */
export class PartialStore implements Store {
  private state: number[] = [];

  constructor(
    private readonly place: Int32Array,
    readonly pins: Pins,
  ) {}

  /** `place[v]` is the row's column for variable v; negative where it has none. */
  static places(variableCount: number, variables: readonly VariableId[]): Int32Array {
    const place = new Int32Array(variableCount).fill(-1);
    variables.forEach((variable, column) => (place[variable] = column));
    return place;
  }

  open(state: number[]): this {
    this.state = state;
    return this;
  }

  has(variable: VariableId): boolean {
    return this.place[variable] >= 0;
  }

  get(variable: VariableId): ValueId {
    const column = this.place[variable];
    if (!(column >= 0)) throw new NeedVariable(variable);
    return this.state[column];
  }

  set(variable: VariableId, value: ValueId): void {
    const column = this.place[variable];
    if (column >= 0) this.state[column] = value;
  }

  key(): string {
    return this.state.join(',');
  }
}

/** Every variable of the rig: the simulated rig, and the whole-rig enumeration that checks the proof. */
export class WholeStore implements Store {
  constructor(
    readonly state: Int32Array,
    readonly pins: Pins,
  ) {}
  has(): boolean {
    return true;
  }
  get(variable: VariableId): ValueId {
    return this.state[variable];
  }
  set(variable: VariableId, value: ValueId): void {
    this.state[variable] = value;
  }
  key(): string {
    return this.state.join(',');
  }
}
