import type { FaultKind } from '../model/documents.ts';
import { Delivery, DependsOnState, type LossyPoint, type Outcome } from './delivery.ts';
import { begin, enabled, ordinaryEvents, restartEvents, type RigEvent, strayEvents } from './events.ts';
import type { Operation, Running } from './operations.ts';
import type { Plant } from './plant.ts';
import { type Fork, powerUp } from './power.ts';
import { NeedVariable, PartialStore, type Store } from './store.ts';
import type { Pins } from './values.ts';

/** What may have happened before the judged press: 2 from anywhere, 3 with a stray foot, 4 after a fault. */
export type FreeLevel = 2 | 3 | 4;

export interface Limits {
  /** States of one machine past which an exploration gives up. */
  readonly states: number;
  /** Ways to assume unknown contents past which the answer stays *cannot be known*. */
  readonly contents: number;
}
export const defaultLimits: Limits = { states: 60_000, contents: 2_000 };

export class TooManyStates extends Error {}

/** An event compiled once: its operations where they do not depend on the state, else what it may touch. */
export interface CompiledEvent {
  readonly event: RigEvent;
  readonly index: number;
  readonly touches: ReadonlySet<number>;
  readonly operations: readonly Operation[] | null;
  readonly outcome: Outcome;
  readonly points: readonly LossyPoint[];
  /** The value that this event leaves a variable on, whatever it was before. */
  readonly leaves: ReadonlyMap<number, number>;
}

export function compileEvent(plant: Plant, event: RigEvent, index: number): CompiledEvent {
  if (event.kind === 'restart') return { event, index, touches: restartTouches(plant, event), operations: null, outcome: 'quiet', points: [], leaves: new Map() };
  const nowhere = new PartialStore(PartialStore.places(plant.variables.length, []), new Map());
  try {
    const delivery = new Delivery(plant, nowhere, { record: true });
    begin(plant, event, delivery);
    const outcome = delivery.settle();
    const touches = new Set(delivery.operations.flatMap((operation) => operation.touches));
    // A press that never falls quiet may do so where one of its messages is lost: it is delivered each time.
    if (outcome !== 'quiet') return { event, index, touches, operations: null, outcome, points: [], leaves: new Map() };
    return { event, index, touches, operations: delivery.operations, outcome, points: delivery.points, leaves: leavesOf(delivery.operations) };
  } catch (reason) {
    if (!(reason instanceof DependsOnState)) throw reason;
  }
  const survey = new Delivery(plant, nowhere, { record: true, survey: true });
  begin(plant, event, survey);
  survey.settle();
  return { event, index, touches: new Set(survey.operations.flatMap((operation) => operation.touches)), operations: null, outcome: 'quiet', points: [], leaves: new Map() };
}

function leavesOf(operations: readonly Operation[]): ReadonlyMap<number, number> {
  const leaves = new Map<number, number>();
  for (const operation of operations) {
    if (operation.constant) leaves.set(operation.constant.variable, operation.constant.value);
    else for (const variable of operation.touches) leaves.delete(variable);
  }
  return leaves;
}

function restartTouches(plant: Plant, event: Extract<RigEvent, { kind: 'restart' }>): ReadonlySet<number> {
  const touches = new Set(event.device.variables);
  for (const links of event.device.controller?.wires.values() ?? [])
    for (const link of links) for (const variable of plant.device.get(link.device)!.variables) touches.add(variable);
  const slot = event.device.controller?.powerUpSlot;
  if (slot !== undefined) for (const variable of slotTouches(plant, slot)) touches.add(variable);
  return touches;
}

function slotTouches(plant: Plant, slotId: string): ReadonlySet<number> {
  const slot = plant.slot.get(slotId);
  return slot ? compileEvent(plant, { kind: 'press', slot }, -1).touches : new Set();
}

/** A row of a machine: its variables' values, and last whether the one stray foot or fault has been used. */
export type Row = Int32Array;

/** A way to come from one row to another, for telling the sequence. */
export interface Move {
  readonly event: RigEvent;
  /** What was lost on the way, in words. */
  readonly lost?: string;
}

/** Runs events on rows of a chosen set of variables. Reading any other variable throws NeedVariable. */
export class Stepper {
  readonly place: Int32Array;
  readonly width: number;
  private readonly store: PartialStore;

  constructor(
    readonly plant: Plant,
    readonly variables: readonly number[],
    readonly pins: Pins,
  ) {
    this.place = PartialStore.places(plant.variables.length, variables);
    this.width = variables.length + 1;
    this.store = new PartialStore(this.place, pins);
  }

  open(row: Row): Store {
    return this.store.open(row);
  }

  isEnabled(row: Row, event: RigEvent): boolean {
    return enabled(this.plant, event, this.store.open(row));
  }

  /** Every row that power-up may leave, the slots that fire by themselves included. */
  initial(faults: ReadonlySet<FaultKind>): { readonly row: Row; readonly outcome: Outcome; readonly lost?: string }[] {
    const rows = this.forked(new Int32Array(this.width), (store, fork) => {
      for (const device of this.plant.devices) powerUp(this.plant, device, store, true, fork);
    });
    let reached: { row: Row; outcome: Outcome; lost?: string }[] = rows.map((row) => ({ row, outcome: 'quiet' }));
    for (const device of this.plant.devices) {
      const slot = device.controller?.powerUpSlot === undefined ? undefined : this.plant.slot.get(device.controller.powerUpSlot);
      if (!slot) continue;
      const fire = (delivery: Delivery) => delivery.fire(slot, 0, []);
      reached = reached.flatMap((from) => {
        const clean = { ...this.run(from.row, fire), ...(from.lost === undefined ? {} : { lost: from.lost }) };
        if (from.row[this.width - 1] === 1 || faults.size === 0) return [clean];
        return [clean, ...this.losses(from.row, fire, faults)];
      });
    }
    return unique(reached);
  }

  private forked(from: Row, act: (store: Store, fork: Fork) => void): Row[] {
    const rows: Row[] = [];
    let script: number[] = [];
    for (;;) {
      const sizes: number[] = [];
      const row = from.slice();
      act(this.store.open(row), (values) => {
        const at = sizes.length;
        sizes.push(values.length);
        return values[script[at] ?? 0];
      });
      rows.push(row);
      const next = sizes.map((_, i) => script[i] ?? 0);
      let i = sizes.length - 1;
      while (i >= 0 && next[i] + 1 >= sizes[i]) i -= 1;
      if (i < 0) return rows;
      script = [...next.slice(0, i), next[i] + 1];
      if (rows.length > 200_000) throw new TooManyStates();
    }
  }

  private run(from: Row, act: (delivery: Delivery) => void, lost?: number): { row: Row; outcome: Outcome; points: readonly LossyPoint[] } {
    const row = from.slice();
    const delivery = new Delivery(this.plant, this.store.open(row), lost === undefined ? {} : { lost });
    act(delivery);
    const outcome = delivery.settle();
    return { row, outcome, points: delivery.points };
  }

  private losses(from: Row, act: (delivery: Delivery) => void, faults: ReadonlySet<FaultKind>): { row: Row; outcome: Outcome; lost: string }[] {
    const whole = this.run(from, act);
    // An event that does not fall quiet makes everything after it unknown already; its first losses are tried.
    const points = whole.outcome === 'quiet' ? whole.points : whole.points.slice(0, 64);
    return points.flatMap((point, i) => {
      if (!faults.has(point.kind)) return [];
      const { row, outcome } = this.run(from, act, i);
      row[this.width - 1] = 1;
      return [{ row, outcome, lost: point.words }];
    });
  }

  /** The rows an enabled event leads to. With faults, those where one message or pulse of it is lost come after. */
  step(from: Row, compiled: CompiledEvent, faults: ReadonlySet<FaultKind>): { row: Row; outcome: Outcome; lost?: string }[] {
    const { event } = compiled;
    if (event.kind === 'restart') return this.restart(from, event);
    const act = (delivery: Delivery) => begin(this.plant, event, delivery);
    const reached: { row: Row; outcome: Outcome; lost?: string }[] = compiled.operations
      ? [{ row: this.replay(from, compiled.operations), outcome: compiled.outcome }]
      : [this.run(from, act)];
    if (event.kind === 'foot' && event.stray) for (const one of reached) one.row[this.width - 1] = 1;
    if (faults.size === 0 || from[this.width - 1] === 1) return reached;
    return [...reached, ...(compiled.operations ? this.replayLosses(from, compiled, faults) : this.losses(from, act, faults))];
  }

  private replay(from: Row, operations: readonly Operation[], without = -1): Row {
    const row = from.slice();
    const store = this.store.open(row);
    const running: Running = { busyUntil: new Map() };
    for (const operation of operations) if (without < 0 || !operation.points.includes(without)) operation.apply(store, running);
    return row;
  }

  private replayLosses(from: Row, compiled: CompiledEvent, faults: ReadonlySet<FaultKind>): { row: Row; outcome: Outcome; lost: string }[] {
    const here = (operation: Operation) => [...operation.touches, ...(operation.gates ?? [])].some((variable) => this.place[variable] >= 0);
    const concerned = new Set(compiled.operations!.filter(here).flatMap((operation) => operation.points));
    return compiled.points.flatMap((point, i) => {
      if (!concerned.has(i) || !faults.has(point.kind)) return [];
      const row = this.replay(from, compiled.operations!, i);
      row[this.width - 1] = 1;
      return [{ row, outcome: compiled.outcome, lost: point.words }];
    });
  }

  private restart(from: Row, event: Extract<RigEvent, { kind: 'restart' }>): { row: Row; outcome: Outcome }[] {
    const { device } = event;
    const base = from.slice();
    if (device.controller) {
      const opening = new Delivery(this.plant, this.store.open(base));
      for (const contact of device.controller.contact.keys()) opening.setContact(device, device.controller, contact, 0, 0, []);
    }
    const rows = this.forked(base, (store, fork) => powerUp(this.plant, device, store, false, fork));
    for (const row of rows) row[this.width - 1] = 1;
    const slot = device.controller?.powerUpSlot === undefined ? undefined : this.plant.slot.get(device.controller.powerUpSlot);
    return rows.map((row) => (slot ? this.run(row, (delivery) => delivery.fire(slot, 0, [])) : { row, outcome: 'quiet' as const }));
  }

  /** After a judged press: everything held is let go, in every order. */
  released(from: Row): { row: Row; outcome: Outcome }[] {
    const held: { controller: Extract<RigEvent, { kind: 'release' }>['controller']; momentary: string }[] = [];
    const store = this.store.open(from);
    for (const controller of this.plant.devices)
      for (const [momentary, variable] of controller.controller?.held ?? [])
        if (store.has(variable) && this.plant.values.number(store.get(variable)) === 1) held.push({ controller, momentary });
    if (held.length === 0) return [{ row: from, outcome: 'quiet' }];
    return unique(
      held.flatMap((one) => {
        const next = this.run(from, (delivery) => begin(this.plant, { kind: 'release', ...one }, delivery));
        return next.outcome === 'quiet' ? this.released(next.row) : [next];
      }),
    );
  }
}

export const rowKey = (row: Row): string => row.join(',');

function unique<T extends { readonly row: Row; readonly outcome: Outcome }>(list: readonly T[]): T[] {
  const seen = new Set<string>();
  return list.filter((one) => {
    const key = `${one.outcome}|${rowKey(one.row)}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/** One row of an explored machine with the way that first led to it. */
export interface Reached {
  readonly row: Row;
  readonly depth: number;
  readonly from: Reached | null;
  readonly move: Move | null;
  readonly initialLost?: string;
}

export interface Machine {
  readonly stepper: Stepper;
  /** Breadth first: the first way to each row is a shortest one, earliest events first. */
  readonly reached: readonly Reached[];
  /** Presses that did not fall quiet, from where. */
  readonly unquiet: readonly { readonly from: Reached; readonly compiled: CompiledEvent; readonly outcome: Outcome }[];
}

/** The events of a level, compiled once a plant and shared by every machine. */
export class EventTable {
  readonly ordinary: readonly CompiledEvent[];
  private readonly strays: readonly CompiledEvent[];
  private readonly restarts: readonly CompiledEvent[];
  readonly press: ReadonlyMap<number, CompiledEvent>;
  private readonly touching = new Map<string, CompiledEvent[]>();

  constructor(
    readonly plant: Plant,
    setAside: ReadonlySet<number>,
  ) {
    let index = 0;
    const compile = (event: RigEvent) => compileEvent(plant, event, (index += 1));
    const all = ordinaryEvents(plant).map(compile);
    this.press = new Map(all.flatMap((compiled) => (compiled.event.kind === 'press' ? [[compiled.event.slot.index, compiled] as const] : [])));
    this.ordinary = all.filter((compiled) => !(compiled.event.kind === 'press' && setAside.has(compiled.event.slot.index)));
    this.strays = strayEvents(plant).map(compile);
    this.restarts = restartEvents(plant).map(compile);
  }

  at(level: FreeLevel, faults: ReadonlySet<FaultKind>): readonly CompiledEvent[] {
    if (level === 3) return [...this.ordinary, ...this.strays];
    if (level === 4 && faults.has('restart')) return [...this.ordinary, ...this.restarts];
    return this.ordinary;
  }

  /** Events of a level that may change one of these variables. */
  concerning(level: FreeLevel, faults: ReadonlySet<FaultKind>, variables: readonly number[]): readonly CompiledEvent[] {
    const chosen = new Set<CompiledEvent>();
    for (const variable of variables) {
      const key = `${level}|${variable}`;
      let list = this.touching.get(key);
      if (!list) this.index(level, faults);
      list = this.touching.get(key) ?? [];
      for (const compiled of list) chosen.add(compiled);
    }
    return [...chosen].sort((a, b) => a.index - b.index);
  }

  private index(level: FreeLevel, faults: ReadonlySet<FaultKind>): void {
    if (this.touching.has(`${level}|done`)) return;
    this.touching.set(`${level}|done`, []);
    for (const compiled of this.at(level, faults))
      for (const variable of compiled.touches) {
        const key = `${level}|${variable}`;
        const list = this.touching.get(key);
        if (list) list.push(compiled);
        else this.touching.set(key, [compiled]);
      }
  }
}

export interface Question {
  readonly level: FreeLevel;
  readonly pins: Pins;
  readonly limits: Limits;
  /** Events to run even where they touch none of the variables (to learn whether they fall quiet). */
  readonly also?: readonly CompiledEvent[];
}

/**
 * Explores a set of variables from power-up, taking in whatever variables their events turn out to read.
 * The result covers exactly the reachable combinations of its variables. Throws TooManyStates past the limit.
 */
export function explore(table: EventTable, wanted: readonly number[], question: Question): Machine {
  const variables = new Set(wanted);
  for (;;) {
    try {
      return exploreExactly(table, [...variables].sort((a, b) => a - b), question);
    } catch (reason) {
      if (!(reason instanceof NeedVariable)) throw reason;
      variables.add(reason.variable);
    }
  }
}

function exploreExactly(table: EventTable, variables: readonly number[], question: Question): Machine {
  const { plant } = table;
  const faultList = question.level === 4 ? plant.wiring.rig.settings.faults : [];
  const faults = new Set(faultList);
  const losable = new Set([...faults].filter((kind) => kind !== 'restart'));
  const stepper = new Stepper(plant, variables, question.pins);
  const events = [...table.concerning(question.level, faults, variables), ...(question.also ?? [])];
  const reached: Reached[] = [];
  const unquiet: { from: Reached; compiled: CompiledEvent; outcome: Outcome }[] = [];
  const seen = new Set<string>();
  const add = (row: Row, from: Reached | null, move: Move | null, initialLost?: string) => {
    const key = rowKey(row);
    if (seen.has(key)) return;
    if (reached.length >= question.limits.states) throw new TooManyStates();
    seen.add(key);
    reached.push({ row, depth: from ? from.depth + 1 : 0, from, move, ...(initialLost === undefined ? {} : { initialLost }) });
  };
  for (const { row, lost } of stepper.initial(losable)) add(row, null, null, lost);
  const once = new Set<CompiledEvent>();
  for (let i = 0; i < reached.length; i += 1) {
    const here = reached[i];
    for (const compiled of events) {
      if (once.has(compiled)) continue;
      if (isSpent(here.row, stepper, compiled.event) || !stepper.isEnabled(here.row, compiled.event)) continue;
      if (sameFromAnywhere(compiled, variables, question, plant)) once.add(compiled);
      for (const { row, outcome, lost } of stepper.step(here.row, compiled, losable)) {
        if (outcome === 'quiet') add(row, here, { event: compiled.event, ...(lost === undefined ? {} : { lost }) });
        else unquiet.push({ from: here, compiled, outcome });
      }
    }
  }
  return { stepper, reached, unquiet };
}

/** The one stray foot or restart has been used. */
const isSpent = (row: Row, stepper: Stepper, event: RigEvent): boolean =>
  row[stepper.width - 1] === 1 && (event.kind === 'restart' || (event.kind === 'foot' && event.stray));

/** An event that leaves every variable of the machine on a known value need be tried from one row only. */
function sameFromAnywhere(compiled: CompiledEvent, variables: readonly number[], question: Question, plant: Plant): boolean {
  if (question.level !== 2 || compiled.event.kind !== 'press' || compiled.outcome !== 'quiet') return false;
  const { controller } = plant.device.get(compiled.event.slot.slot.controller)!;
  if (!controller!.facts.firesWhileHeld && controller!.held.size > 0) return false;
  if (controller!.facts.bankMove === 'fires' || variables.includes(controller!.bank)) return false;
  return variables.every((variable) => compiled.leaves.has(variable));
}
