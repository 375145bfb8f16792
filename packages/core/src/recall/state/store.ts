import type { Pins } from './values.ts';

/** Where variables are read and written while an event runs. */
export interface Store {
  readonly pins: Pins;
  has(variable: number): boolean;
  get(variable: number): number;
  set(variable: number, value: number): void;
  /** A key of everything held, for recognising a configuration that repeats. */
  key(): string;
}

/**
 * Thrown where a space's effect reads a variable that it does not hold: the space must take it in. Not an Error: it
 * is thrown often, and nobody reads its stack.
 */
export class NeedVariable {
  constructor(readonly variable: number) {}
}

/** A state of some of the rig's variables: writes to others fall away, reads of others are refused. */
export class PartialStore implements Store {
  private state: number[] = [];

  constructor(
    private readonly place: Int32Array,
    readonly pins: Pins,
  ) {}

  /** `place[v]` is the row's column for variable v, or −1. */
  static places(variableCount: number, variables: readonly number[]): Int32Array {
    const place = new Int32Array(variableCount).fill(-1);
    variables.forEach((variable, column) => (place[variable] = column));
    return place;
  }

  open(state: number[]): this {
    this.state = state;
    return this;
  }

  has(variable: number): boolean {
    return this.place[variable] >= 0;
  }

  get(variable: number): number {
    const column = this.place[variable];
    if (!(column >= 0)) throw new NeedVariable(variable);
    return this.state[column];
  }

  set(variable: number, value: number): void {
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
  get(variable: number): number {
    return this.state[variable];
  }
  set(variable: number, value: number): void {
    this.state[variable] = value;
  }
  key(): string {
    return this.state.join(',');
  }
}
