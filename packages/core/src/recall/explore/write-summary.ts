import { memoised } from '../../model/memo.ts';
import { loadedBy } from '../device/loading.ts';
import { type Recording } from '../device/recording.ts';
import { type Probe, type Running, type Update } from '../device/update.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import { NeedVariable, type Store } from '../state/store.ts';
import { NeedPin, type Pins } from '../state/values.ts';

/** Stands where an event may change a variable in a way that depends on what was there before. */
export const mayChange = -1;

/** Stands where no operation has written a variable yet. */
const unwritten = -2;

/** What an event leaves the variables on that it may change: a value whatever was there before, or `mayChange`. */
export class WriteSummary {
  constructor(
    private readonly known: Int32Array,
    /** The variables that it may change, each once. */
    readonly written: Int32Array,
  ) {}

  /** Of an event of which no more is known than what it may change. */
  static open(variables: number, written: Iterable<number>): WriteSummary {
    const known = new Int32Array(variables).fill(unwritten);
    const list = Int32Array.from(new Set(written));
    for (const variable of list) known[variable] = mayChange;
    return new WriteSummary(known, list);
  }

  /** Whether it may leave a variable on one value or another. */
  isOpen(): boolean {
    const { known, written } = this;
    for (let i = 0; i < written.length; i += 1) if (known[written[i]] === mayChange) return true;
    return false;
  }

  mayWrite(variable: VariableId): boolean {
    return variable >= 0 && this.known[variable] !== unwritten;
  }

  /** The value that it leaves a variable on; negative where that is not known, or the variable is not written. */
  leaves(variable: VariableId): number {
    return variable < 0 ? unwritten : this.known[variable];
  }
}

/**
 * What operations, one after the other, leave each variable that they touch on, whatever the state was. Each
 * operation is tried on the one variable alone, with what is known by then; one that has to read anything else
 * leaves it open.
 */
export function summarise(model: StateModel, done: Recording): WriteSummary {
  return new Summariser(model).of(done);
}

const probeStoreOf = memoised(
  ({ modelMemo }: StateModel) => modelMemo,
  ({ variables }) => new ProbeStore(variables.length),
);

const emptyProbe = (known: number, other: Probe | undefined): Probe => ({
  known,
  done: undefined,
  next: undefined,
  other,
});

/** Of some alternatives the one where so much is known. */
function where(known: number, first: Probe | undefined): Probe | undefined {
  let found = first;
  while (found && found.known !== known) found = found.other;
  return found;
}

class Summariser {
  private readonly known: Int32Array;
  private count = 0;
  private readonly running: Running;
  /** Devices of which it is not known until when they load. */
  private readonly unsure: Set<number>;
  private readonly probe: ProbeStore;

  constructor(private readonly model: StateModel) {
    this.known = new Int32Array(model.variables.length).fill(unwritten);
    this.probe = probeStoreOf(model);
    this.running = this.probe.running;
    this.unsure = this.probe.unsure;
    if (this.running.busyUntil.size > 0) this.running.busyUntil.clear();
    if (this.unsure.size > 0) this.unsure.clear();
  }

  of({ updates, times, count }: Recording): WriteSummary {
    for (let i = 0; i < count; i += 1) {
      const update = updates[i];
      const { constant } = update;
      if (constant) this.note(constant.variable, constant.value);
      else if (update.isClosed && this.isFree(update.device, times[i])) this.repeat(update, times[i]);
      else this.tryOut(update, times[i]);
    }
    return new WriteSummary(this.known, this.probe.written.slice(0, this.count));
  }

  private note(variable: VariableId, value: ValueId): void {
    if (this.known[variable] === unwritten) this.probe.written[this.count++] = variable;
    this.known[variable] = value;
  }

  /** Whether a device surely is not loading. */
  private isFree(device: number, time: number): boolean {
    return !this.unsure.has(device) && (this.running.busyUntil.get(device) ?? 0) <= time;
  }

  /** Does to a device that is not loading what was found out before, or finds it out. */
  private repeat(update: Update, time: number): void {
    const { device, writes } = update;
    let found = (update.found ??= emptyProbe(unwritten, undefined));
    for (let i = 0; i < writes.length; i += 1) {
      const known = Math.max(mayChange, this.known[writes[i]]);
      found = where(known, found.next) ?? (found.next = emptyProbe(known, found.next));
    }
    const { done } = found;
    if (!done) {
      this.tryOut(update, time);
      const loads = this.unsure.has(device) ? 'unsure' : this.isFree(device, time) ? 'no' : 'yes';
      found.done = { left: writes.map((variable) => this.known[variable]), loads };
      return;
    }
    for (let i = 0; i < writes.length; i += 1) this.note(writes[i], done.left[i]);
    if (done.loads === 'unsure') this.unsure.add(device);
    else if (done.loads === 'yes') this.running.busyUntil.set(device, loadedBy(this.model.devices[device], time));
  }

  private tryOut(update: Update, time: number): void {
    const { device, writes } = update;
    const isUnsure = this.unsure.has(device);
    if (!isUnsure && this.together(update, time)) {
      for (const variable of writes) this.note(variable, this.probe.value(variable));
      return;
    }
    const found = writes.map((variable) => (isUnsure ? mayChange : this.left(update, time, variable)));
    if (update.mayBlock && !this.tried(update, time, null, this.running)) this.unsure.add(device);
    writes.forEach((variable, i) => this.note(variable, found[i]));
  }

  /**
   * All that an update writes at once, where it reads nothing that is not known. It begins to load no device but its
   * own.
   */
  private together(update: Update, time: number): boolean {
    const { device } = update;
    const until = this.running.busyUntil.get(device);
    this.probe.begin();
    for (const variable of update.writes) this.probe.hold(variable, this.known[variable]);
    try {
      update.apply(this.probe, this.running, time);
      return true;
    } catch (reason) {
      if (!(reason instanceof NeedVariable) && !(reason instanceof NeedPin)) throw reason;
      if (until === undefined) this.running.busyUntil.delete(device);
      else this.running.busyUntil.set(device, until);
      return false;
    }
  }

  private left(update: Update, time: number, variable: VariableId): number {
    return this.tried(update, time, variable, { busyUntil: new Map() }) ? this.probe.value(variable) : mayChange;
  }

  /**
   * Applies an update to one variable (null: to none, to learn whether its device begins to load), taking in what it
   * turns out to read as a space does; false where that is not known. What it leaves in `into` is what the device
   * is then busy with.
   */
  private tried(update: Update, time: number, variable: VariableId | null, into: Running): boolean {
    const { probe, known, running } = this;
    const held = variable === null ? [] : [variable];
    for (;;) {
      probe.begin();
      for (const variableId of held) probe.hold(variableId, known[variableId]);
      const busy: Running = { busyUntil: new Map(running.busyUntil) };
      try {
        update.apply(probe, busy, time);
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

/** A state of a few variables, some of whose values are not known; used again for each try. */
class ProbeStore implements Store {
  readonly pins: Pins = new Map();
  private round = 0;
  private readonly heldIn: Int32Array;
  private readonly knownIn: Int32Array;
  private readonly values: Int32Array;
  // Room for what operations do, one event at a time: the variables that they touch, and what is loading.
  readonly written: Int32Array;
  readonly running: Running = { busyUntil: new Map() };
  readonly unsure = new Set<number>();

  constructor(variables: number) {
    this.heldIn = new Int32Array(variables);
    this.knownIn = new Int32Array(variables);
    this.values = new Int32Array(variables);
    this.written = new Int32Array(variables);
  }

  /** Forgets everything. */
  begin(): void {
    this.round += 1;
  }

  /** Takes a variable in; a negative value is one that is not known. */
  hold(variable: VariableId, value: ValueId): void {
    this.heldIn[variable] = this.round;
    if (value < 0) return;
    this.knownIn[variable] = this.round;
    this.values[variable] = value;
  }

  /** What a variable is by now, or `mayChange`. */
  value(variable: VariableId): number {
    return this.knownIn[variable] === this.round ? this.values[variable] : mayChange;
  }

  has(variable: VariableId): boolean {
    return this.heldIn[variable] === this.round;
  }

  get(variable: VariableId): number {
    if (this.knownIn[variable] !== this.round) throw new NeedVariable(variable);
    return this.values[variable];
  }

  set(variable: VariableId, value: ValueId): void {
    if (this.heldIn[variable] !== this.round) return;
    this.knownIn[variable] = this.round;
    this.values[variable] = value;
  }

  key(): string {
    return '';
  }
}
