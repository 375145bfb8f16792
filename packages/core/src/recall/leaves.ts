import type { Operation, Running } from './operations.ts';
import type { Plant } from './plant.ts';
import { NeedVariable, type Store } from './store.ts';
import { NeedPin, type Pins } from './values.ts';

/** Stands where an event may change a variable in a way that depends on what was there before. */
export const mayChange = -1;

/** Stands where no operation has touched a variable yet. */
const untouched = -2;

/** What an event leaves the variables on that it may change: a value whatever was there before, or `mayChange`. */
export class Leaves {
  constructor(
    private readonly known: Int32Array,
    /** The variables that it may change. */
    readonly touched: readonly number[],
  ) {}

  /** Of an event of which no more is known than what it may change. */
  static open(variables: number, touched: Iterable<number>): Leaves {
    const known = new Int32Array(variables).fill(untouched);
    const list = [...new Set(touched)];
    for (const variable of list) known[variable] = mayChange;
    return new Leaves(known, list);
  }

  has(variable: number): boolean {
    return variable >= 0 && this.known[variable] !== untouched;
  }

  /** The value that it leaves a variable on; negative where that is not known, or the variable is not touched. */
  on(variable: number): number {
    return variable < 0 ? untouched : this.known[variable];
  }
}

/**
 * What operations, one after the other, leave each variable that they touch on, whatever the state was. Each
 * operation is tried on the one variable alone, with what is known by then; one that has to read anything else
 * leaves it open.
 */
export function after(plant: Plant, operations: readonly Operation[]): Leaves {
  return new Aftermath(plant).of(operations);
}

const trials = new WeakMap<Plant['variables'], Trial>();

/** What closed operations left before: by what was known of the variables that they touch. */
const closed = new WeakMap<Operation, Map<string, readonly number[]>>();

class Aftermath {
  private readonly known: Int32Array;
  private readonly touched: number[] = [];
  private readonly running: Running = { busyUntil: new Map() };
  /** Devices of which it is not known until when they load. */
  private readonly unsure = new Set<number>();
  private readonly trial: Trial;

  constructor(private readonly plant: Plant) {
    this.known = new Int32Array(plant.variables.length).fill(untouched);
    let trial = trials.get(plant.variables);
    if (!trial) trials.set(plant.variables, (trial = new Trial(plant.variables.length)));
    this.trial = trial;
  }

  of(operations: readonly Operation[]): Leaves {
    for (const operation of operations) {
      if (operation.constant) this.note(operation.constant.variable, operation.constant.value);
      else this.follow(operation);
    }
    return new Leaves(this.known, this.touched);
  }

  private note(variable: number, value: number): void {
    if (this.known[variable] === untouched) this.touched.push(variable);
    this.known[variable] = value;
  }

  private follow(operation: Operation): void {
    if (!operation.isClosed) return this.tryOut(operation);
    let before = closed.get(operation);
    if (!before) closed.set(operation, (before = new Map()));
    let key = '';
    for (const variable of operation.touches) key += `${Math.max(mayChange, this.known[variable])},`;
    const left = before.get(key);
    if (left) operation.touches.forEach((variable, i) => this.note(variable, left[i]));
    else {
      this.tryOut(operation);
      before.set(key, operation.touches.map((variable) => this.known[variable]));
    }
  }

  private tryOut(operation: Operation): void {
    const device = operation.touches.length > 0 ? this.plant.device.get(this.plant.variables[operation.touches[0]].device)!.index : -1;
    const isUnsure = this.unsure.has(device);
    if (!isUnsure && this.together(operation, device)) {
      for (const variable of operation.touches) this.note(variable, this.trial.value(variable));
      return;
    }
    const found = operation.touches.map((variable) => (isUnsure ? mayChange : this.left(operation, variable)));
    if (operation.gates && !this.begins(operation)) this.unsure.add(device);
    operation.touches.forEach((variable, i) => this.note(variable, found[i]));
  }

  /** All that an operation touches at once, where it reads nothing that is not known. It begins to load no device but its own. */
  private together(operation: Operation, device: number): boolean {
    const until = this.running.busyUntil.get(device);
    this.trial.begin();
    for (const variable of operation.touches) this.trial.hold(variable, this.known[variable]);
    try {
      operation.apply(this.trial, this.running);
      return true;
    } catch (reason) {
      if (!(reason instanceof NeedVariable) && !(reason instanceof NeedPin)) throw reason;
      if (until === undefined) this.running.busyUntil.delete(device);
      else this.running.busyUntil.set(device, until);
      return false;
    }
  }

  /** Whether it can be told that its device begins to load; if so, it is noted in `running`. */
  private begins(operation: Operation): boolean {
    return this.tried(operation, null, this.running);
  }

  private left(operation: Operation, variable: number): number {
    return this.tried(operation, variable, { busyUntil: new Map() }) ? this.trial.value(variable) : mayChange;
  }

  /**
   * Applies an operation to one variable, taking in what it turns out to read as a machine does; false where that
   * is not known. What it leaves in `into` is what the device is then busy with.
   */
  private tried(operation: Operation, variable: number | null, into: Running): boolean {
    const { trial, known, running } = this;
    const held = variable === null ? [] : [variable];
    for (;;) {
      trial.begin();
      for (const one of held) trial.hold(one, known[one]);
      const busy: Running = { busyUntil: new Map(running.busyUntil) };
      try {
        operation.apply(trial, busy);
        for (const [device, until] of busy.busyUntil) into.busyUntil.set(device, until);
        return true;
      } catch (reason) {
        if (reason instanceof NeedPin) return false;
        if (!(reason instanceof NeedVariable)) throw reason;
        if (held.includes(reason.variable) || known[reason.variable] < 0) return false;
        held.push(reason.variable);
      }
    }
  }
}

/** A state of a few variables, some of whose values are not known; used again for each trial. */
class Trial implements Store {
  readonly pins: Pins = new Map();
  private round = 0;
  private readonly heldIn: Int32Array;
  private readonly knownIn: Int32Array;
  private readonly values: Int32Array;

  constructor(variables: number) {
    this.heldIn = new Int32Array(variables);
    this.knownIn = new Int32Array(variables);
    this.values = new Int32Array(variables);
  }

  /** Forgets everything. */
  begin(): void {
    this.round += 1;
  }

  /** Takes a variable in; a negative value is one that is not known. */
  hold(variable: number, value: number): void {
    this.heldIn[variable] = this.round;
    if (value < 0) return;
    this.knownIn[variable] = this.round;
    this.values[variable] = value;
  }

  /** What a variable is by now, or `mayChange`. */
  value(variable: number): number {
    return this.knownIn[variable] === this.round ? this.values[variable] : mayChange;
  }

  has(variable: number): boolean {
    return this.heldIn[variable] === this.round;
  }

  get(variable: number): number {
    if (this.knownIn[variable] !== this.round) throw new NeedVariable(variable);
    return this.values[variable];
  }

  set(variable: number, value: number): void {
    if (this.heldIn[variable] !== this.round) return;
    this.knownIn[variable] = this.round;
    this.values[variable] = value;
  }

  key(): string {
    return '';
  }
}
