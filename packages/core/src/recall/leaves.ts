import type { Operation, Running } from './operations.ts';
import type { Plant } from './plant.ts';
import { NeedVariable, type Store } from './store.ts';
import { NeedPin, type Pins } from './values.ts';

/** Stands where an event may change a variable in a way that depends on what was there before. */
export const mayChange = -1;

/**
 * What operations, one after the other, leave each variable that they touch on, whatever the state was: a value, or
 * `mayChange`. Each operation is tried on the one variable alone, with what is known by then; one that has to read
 * anything else leaves it open.
 */
export function after(plant: Plant, operations: readonly Operation[]): ReadonlyMap<number, number> {
  const known = new Map<number, number>();
  const running: Running = { busyUntil: new Map() };
  const unsure = new Set<number>();
  for (const operation of operations) {
    if (operation.constant) {
      known.set(operation.constant.variable, operation.constant.value);
      continue;
    }
    const device = operation.touches.length > 0 ? plant.device.get(plant.variables[operation.touches[0]].device)!.index : -1;
    const whole = unsure.has(device) ? undefined : together(operation, known, running);
    if (whole) {
      for (const variable of operation.touches) known.set(variable, whole.get(variable) ?? mayChange);
      continue;
    }
    const found = operation.touches.map((variable) => [variable, unsure.has(device) ? mayChange : left(operation, variable, known, running)] as const);
    if (operation.gates && !runs(operation, known, running)) unsure.add(device);
    for (const [variable, value] of found) known.set(variable, value);
  }
  return known;
}

/** All that an operation touches at once, where it reads nothing that is not known. */
function together(operation: Operation, known: ReadonlyMap<number, number>, running: Running): ReadonlyMap<number, number> | undefined {
  const state = new Map<number, number>();
  for (const variable of operation.touches) if (isKnown(known, variable)) state.set(variable, known.get(variable)!);
  const before = [...running.busyUntil];
  try {
    operation.apply(new Trial(new Set(operation.touches), state), running);
    return state;
  } catch (reason) {
    if (!(reason instanceof NeedVariable) && !(reason instanceof NeedPin)) throw reason;
    running.busyUntil.clear();
    for (const [device, until] of before) running.busyUntil.set(device, until);
    return undefined;
  }
}

/** Whether it can be told that its device begins to load; if so, it is noted in `running`. */
function runs(operation: Operation, known: ReadonlyMap<number, number>, running: Running): boolean {
  return tried(operation, null, known, running, running) !== undefined;
}

function left(operation: Operation, variable: number, known: ReadonlyMap<number, number>, running: Running): number {
  return tried(operation, variable, known, running, { busyUntil: new Map() })?.get(variable) ?? mayChange;
}

/**
 * Applies an operation to one variable, taking in what it turns out to read as a machine does; undefined where that
 * is not known. What it leaves in `into` is what the device is then busy with.
 */
function tried(operation: Operation, variable: number | null, known: ReadonlyMap<number, number>, running: Running, into: Running): ReadonlyMap<number, number> | undefined {
  const held = new Set(variable === null ? [] : [variable]);
  for (;;) {
    const state = new Map([...held].flatMap((one) => (isKnown(known, one) ? [[one, known.get(one)!] as const] : [])));
    const trial: Running = { busyUntil: new Map(running.busyUntil) };
    try {
      operation.apply(new Trial(held, state), trial);
      for (const [device, until] of trial.busyUntil) into.busyUntil.set(device, until);
      return state;
    } catch (reason) {
      if (reason instanceof NeedPin) return undefined;
      if (!(reason instanceof NeedVariable)) throw reason;
      if (held.has(reason.variable) || !isKnown(known, reason.variable)) return undefined;
      held.add(reason.variable);
    }
  }
}

const isKnown = (known: ReadonlyMap<number, number>, variable: number): boolean => (known.get(variable) ?? mayChange) !== mayChange;

/** A state of a few variables, some of whose values are not known. */
class Trial implements Store {
  readonly pins: Pins = new Map();

  constructor(
    private readonly held: ReadonlySet<number>,
    private readonly state: Map<number, number>,
  ) {}

  has(variable: number): boolean {
    return this.held.has(variable);
  }

  get(variable: number): number {
    const value = this.state.get(variable);
    if (value === undefined) throw new NeedVariable(variable);
    return value;
  }

  set(variable: number, value: number): void {
    if (this.held.has(variable)) this.state.set(variable, value);
  }

  key(): string {
    return '';
  }
}
