import type { FaultKind } from '../../model/rig.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import { Delivery, type Outcome } from '../deliver/delivery.ts';
import { begin, enabled, type RigEvent } from '../deliver/events.ts';
import { type LossyPoint } from '../deliver/losses.ts';
import { openContacts } from '../deliver/power-cut.ts';
import { type Choose, powerUp } from '../device/power-up.ts';
import type { Operation, Recording } from '../device/recording.ts';
import type { Running, Update } from '../device/update.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { PartialStore, type Store } from '../state/store.ts';
import type { Pins } from '../state/values.ts';
import { Effect } from './effect.ts';
import type { CompiledEvent } from './event-table.ts';
import { type Row, rowKey, TooManyStates } from './row.ts';

/** An event that does the same operations from every state, and settles. */
type FixedEvent = CompiledEvent & { readonly operations: NonNullable<CompiledEvent['operations']> };
export const isFixed = (compiled: CompiledEvent): compiled is FixedEvent =>
  compiled.operations !== null && compiled.outcome === 'settled';

/** A way to come from one row to another, for telling the sequence. */
export interface Move {
  readonly compiled: CompiledEvent;
  /** What was lost on the way. */
  readonly lost?: LossyPoint;
}

/** A row that power-up may leave, and what it was before slots fired by themselves. */
export interface Initial {
  readonly row: Row;
  readonly cold: Row;
  readonly outcome: Outcome;
  readonly lost: InitialLoss | undefined;
}

/** What was lost while a controller's own slot fired. */
export interface InitialLoss {
  readonly firing: ModelDevice;
  readonly point: LossyPoint;
}

/** Runs events on rows of a chosen set of variables. Reading any other variable throws NeedVariable. */
export class Stepper {
  readonly place: Int32Array;
  readonly width: number;
  private readonly store: PartialStore;
  /** Emptied before each use. */
  private readonly running: Running = { busyUntil: new Map() };
  private readonly effects = new Map<CompiledEvent, Effect>();
  private readonly byValues = new Map<string, Effect>();
  private readonly byUpdates = new UpdateTrie();
  private readonly relevant = new Map<Recording, readonly Operation[]>();
  /** The one device whose variables these are; null where there are several. */
  private readonly onlyDevice: number | null;

  constructor(
    readonly model: StateModel,
    readonly variables: readonly VariableId[],
    readonly pins: Pins,
  ) {
    this.place = PartialStore.places(model.variables.length, variables);
    this.width = variables.length + 1;
    this.store = new PartialStore(this.place, pins);
    const devices = new Set(variables.map((variable) => model.variables[variable].owner));
    this.onlyDevice = devices.size === 1 ? [...devices][0] : null;
  }

  open(row: Row): Store {
    return this.store.open(row);
  }

  isEnabled(row: Row, event: RigEvent): boolean {
    return enabled(this.model, event, this.store.open(row));
  }

  /** The same of a compiled event: of most presses the bank alone decides. */
  canHappen(row: Row, { bank, event }: CompiledEvent): boolean {
    if (bank === null || event.kind !== 'press') return this.isEnabled(row, event);
    return this.place[bank] < 0 || this.model.values.number(row[this.place[bank]]) === event.slot.slot.bank;
  }

  /**
   * The one row that an event leads to, nothing lost; null where it has to be delivered anew from each state or may not
   * settles.
   */
  after(from: Row, compiled: CompiledEvent): Row | null {
    return isFixed(compiled) ? this.effectOf(compiled).after(from) : null;
  }

  /** The same for exploring, put into another row. */
  leadsTo(from: Row, compiled: FixedEvent, into: Row): void {
    for (let column = 0; column < from.length; column += 1) into[column] = from[column];
    this.effectOf(compiled).apply(into);
  }

  /**
   * What one variable is after an event, nothing lost, on rows from which it can happen; undefined where `after` does
   * not tell either.
   */
  valueAfter(from: Row, compiled: CompiledEvent, variable: VariableId): number | undefined {
    if (!isFixed(compiled)) return undefined;
    const known = compiled.summary.leaves(variable);
    if (known >= 0) return known;
    if (!compiled.summary.mayWrite(variable)) return from[this.place[variable]];
    return this.effectOf(compiled).after(from)[this.place[variable]];
  }

  /**
   * What an event does to rows of this space, where it can happen on each of them and always settles: of two that
   * do the same, the same.
   */
  effectFromAnywhere(compiled: CompiledEvent): Effect | undefined {
    if (!isFixed(compiled) || compiled.bank === null || this.place[compiled.bank] >= 0) return undefined;
    return this.effectOf(compiled);
  }

  /** Every row that power-up may leave, the slots that fire by themselves included; some perhaps more than once. */
  initial(faults: ReadonlySet<FaultKind>): readonly Initial[] {
    let reached: Initial[] = this.comesUp().map((row) => ({ row, cold: row, outcome: 'settled', lost: undefined }));
    if (!this.model.devices.some(({ controller }) => controller?.powerUpSlot !== undefined)) return reached;
    for (const device of this.model.devices) {
      const slot =
        device.controller?.powerUpSlot === undefined ? undefined : this.model.slot.get(device.controller.powerUpSlot);
      if (!slot) continue;
      const fire = (delivery: Delivery) => delivery.fire(slot, 0, []);
      reached = reached.flatMap((from) => {
        const { row, outcome } = this.run(from.row, fire);
        const clean = { ...from, row, outcome };
        if (from.row[this.width - 1] === 1 || faults.size === 0) return [clean];
        return [
          clean,
          ...this.losses(from.row, fire, faults).map((loss) => ({
            row: loss.row,
            outcome: loss.outcome,
            cold: from.cold,
            lost: { firing: device, point: loss.lost },
          })),
        ];
      });
    }
    return unique(reached);
  }

  private cold: readonly Row[] | undefined;

  /** Every row that power-up itself may leave. Devices of which nothing is followed come up unseen. */
  comesUp(): readonly Row[] {
    if (this.cold) return this.cold;
    const followed = new Set(
      this.variables.map((variable) => this.model.device.get(this.model.variables[variable].device)!),
    );
    const devices = [...followed].sort((a, b) => a.index - b.index);
    this.cold = this.forked(new Array<number>(this.width).fill(0), (store, fork) => {
      for (const device of devices) powerUp(this.model, device, store, true, fork);
    });
    return this.cold;
  }

  private forked(from: Row, act: (store: Store, fork: Choose) => void): Row[] {
    const rows: Row[] = [];
    const choices = new ChoiceSequence();
    const fork: Choose = (values) => values[choices.of(values.length)];
    do {
      if (rows.length > 200_000) throw new TooManyStates();
      choices.begin();
      const row = from.slice();
      act(this.store.open(row), fork);
      rows.push(row);
    } while (choices.next());
    return rows;
  }

  private run(
    from: Row,
    act: (delivery: Delivery) => void,
    lost?: number,
  ): { row: Row; outcome: Outcome; points: readonly LossyPoint[] } {
    const row = from.slice();
    const delivery = new Delivery(this.model, this.store.open(row), lost === undefined ? {} : { lost });
    act(delivery);
    const outcome = delivery.settle();
    return { row, outcome, points: delivery.points };
  }

  private losses(
    from: Row,
    act: (delivery: Delivery) => void,
    faults: ReadonlySet<FaultKind>,
  ): { row: Row; outcome: Outcome; lost: LossyPoint }[] {
    const whole = this.run(from, act);
    // An event that does not settles makes everything after it unknown already; its first losses are tried.
    const points = whole.outcome === 'settled' ? whole.points : whole.points.slice(0, 64);
    return points.flatMap((point, i) => {
      if (!faults.has(point.kind)) return [];
      const { row, outcome } = this.run(from, act, i);
      row[this.width - 1] = 1;
      return [{ row, outcome, lost: point }];
    });
  }

  /** The rows an enabled event leads to. With faults, those where one message or pulse of it is lost come after. */
  step(
    from: Row,
    compiled: CompiledEvent,
    faults: ReadonlySet<FaultKind>,
  ): { row: Row; outcome: Outcome; lost?: LossyPoint }[] {
    const { event } = compiled;
    if (event.kind === 'restart') return this.restart(from, event);
    const act = (delivery: Delivery) => begin(this.model, event, delivery);
    const reached: { row: Row; outcome: Outcome; lost?: LossyPoint }[] = isFixed(compiled)
      ? [{ row: this.effectOf(compiled).after(from), outcome: compiled.outcome }]
      : [this.run(from, act)];
    if (event.kind === 'foot' && event.stray) for (const item of reached) item.row[this.width - 1] = 1;
    if (faults.size === 0 || from[this.width - 1] === 1) return reached;
    return [
      ...reached,
      ...(isFixed(compiled) ? this.replayLosses(from, compiled, faults) : this.losses(from, act, faults)),
    ];
  }

  /** What an event does to rows of this space: the very same for events that do the same here. */
  private effectOf(compiled: FixedEvent): Effect {
    let effect = this.effects.get(compiled);
    if (!effect)
      this.effects.set(
        compiled,
        (effect = this.effectBySummary(compiled) ?? this.effectByUpdates(compiled.operations())),
      );
    return effect;
  }

  /** Told by what it leaves, where that is a known value or what was there before. */
  private effectBySummary({ summary }: FixedEvent): Effect | undefined {
    const { variables } = this;
    let key = '';
    for (let i = 0; i < variables.length; i += 1) {
      const value = summary.leaves(variables[i]);
      if (value < 0 && summary.mayWrite(variables[i])) return undefined;
      key += `${value},`;
    }
    let effect = this.byValues.get(key);
    if (!effect) {
      const written = variables.filter((variable) => summary.mayWrite(variable));
      this.byValues.set(
        key,
        (effect = new Effect(this.store, (store) => {
          for (const variable of written) store.set(variable, summary.leaves(variable));
        })),
      );
    }
    return effect;
  }

  private effectByUpdates(operations: Recording): Effect {
    const here = this.concerned(operations);
    let same = this.byUpdates;
    for (let i = 0; i < here.length; i += 1) same = same.then(here[i], this.model);
    return (same.effect ??= new Effect(this.store, (store) => this.replayOn(store, here)));
  }

  private replay(from: Row, operations: readonly Operation[], without: number): Row {
    const row = from.slice();
    this.replayOn(this.store.open(row), operations, without);
    return row;
  }

  private replayOn(store: Store, operations: readonly Operation[], without?: number): void {
    const { running } = this;
    if (running.busyUntil.size > 0) running.busyUntil.clear();
    for (let i = 0; i < operations.length; i += 1) {
      const { update, time, points } = operations[i];
      if (without === undefined || !points.includes(without)) update.apply(store, running, time);
    }
  }

  private replayLosses(
    from: Row,
    compiled: CompiledEvent,
    faults: ReadonlySet<FaultKind>,
  ): { row: Row; outcome: Outcome; lost: LossyPoint }[] {
    const { operations, points } = compiled.losses();
    const here = this.concerned(operations);
    // What the whole event leaves may be known without what its operations read: a bank select that stands before a
    // program change, say. Where it is lost the rest turns on it, so that it has to be followed.
    this.replay(from, here, nothing);
    const concerned = new Set(here.flatMap((operation) => operation.points));
    return points.flatMap((point, i) => {
      if (!concerned.has(i) || !faults.has(point.kind)) return [];
      const row = this.replay(from, here, i);
      row[this.width - 1] = 1;
      return [{ row, outcome: compiled.outcome, lost: point }];
    });
  }

  /** The operations that can change a variable of this space, or decide whether another does. */
  private concerned(operations: Recording): readonly Operation[] {
    let some = this.relevant.get(operations);
    if (!some) {
      const isHere = (variable: VariableId) => this.place[variable] >= 0;
      const nearby = this.onlyDevice === null ? operations.operations() : operations.on(this.onlyDevice);
      some = nearby.filter(({ update }) => update.writes.some(isHere) || (update.mayBlock?.some(isHere) ?? false));
      this.relevant.set(operations, some);
    }
    return some;
  }

  private restart(from: Row, event: Extract<RigEvent, { kind: 'restart' }>): { row: Row; outcome: Outcome }[] {
    const { device } = event;
    const base = from.slice();
    openContacts(this.model, device, this.store.open(base));
    const rows = this.forked(base, (store, fork) => powerUp(this.model, device, store, false, fork));
    for (const row of rows) row[this.width - 1] = 1;
    const slot =
      device.controller?.powerUpSlot === undefined ? undefined : this.model.slot.get(device.controller.powerUpSlot);
    return rows.map((row) =>
      slot ? this.run(row, (delivery) => delivery.fire(slot, 0, [])) : { row, outcome: 'settled' as const },
    );
  }

  /** After a judged press: everything held is let go, in every order. */
  released(from: Row): { row: Row; outcome: Outcome }[] {
    const held: { controller: Extract<RigEvent, { kind: 'release' }>['controller']; momentary: string }[] = [];
    const store = this.store.open(from);
    for (const controller of this.model.devices)
      for (const [momentary, variable] of controller.controller?.held ?? [])
        if (store.has(variable) && this.model.values.number(store.get(variable)) === 1)
          held.push({ controller, momentary });
    if (held.length === 0) return [{ row: from, outcome: 'settled' }];
    return unique(
      held.flatMap((item) => {
        const next = this.run(from, (delivery) => begin(this.model, { kind: 'release', ...item }, delivery));
        return next.outcome === 'settled' ? this.released(next.row) : [next];
      }),
    );
  }
}

/** No point at which anything is lost. */
const nothing = -1;

/**
 * Tells apart what operations do, one after the other: by their updates, and by their times where a device may be
 * loading.
 */
class UpdateTrie {
  effect: Effect | undefined;
  private readonly next = new Map<Update | number, UpdateTrie>();

  then({ update, time }: Operation, { devices }: StateModel): UpdateTrie {
    const same = this.after(update);
    return update.device >= 0 && devices[update.device].wired.anatomy.busy ? same.after(time) : same;
  }

  private after(key: Update | number): UpdateTrie {
    let same = this.next.get(key);
    if (!same) this.next.set(key, (same = new UpdateTrie()));
    return same;
  }
}

function unique<T extends { readonly row: Row; readonly outcome: Outcome }>(list: readonly T[]): T[] {
  const seen = new Set<string | number>();
  return list.filter((initial) => {
    const key = initial.outcome === 'settled' ? rowKey(initial.row) : `${initial.outcome}|${rowKey(initial.row)}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}
