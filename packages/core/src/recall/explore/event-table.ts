import { memoised } from '../../model/memo.ts';
import type { CastAction, FaultKind } from '../../model/rig.ts';
import { type Csr, listsOf, transpose } from '../../trace/csr.ts';
import { Delivery, DependsOnState, type Outcome } from '../deliver/delivery.ts';
import { begin, ordinaryEvents, restartEvents, type RigEvent, strayEvents } from '../deliver/events.ts';
import { type LossyPoint } from '../deliver/losses.ts';
import { Recording } from '../device/recording.ts';
import type { VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import { PartialStore } from '../state/store.ts';
import { mayChange, summarise, WriteSummary } from './write-summary.ts';

/** What may have happened before the judged press: 2 from anywhere, 3 with a stray foot, 4 after a fault. */
export type FreeLevel = 2 | 3 | 4;

/** An event compiled once: its operations where they do not depend on the state, else what it may touch. */
export interface CompiledEvent {
  readonly event: RigEvent;
  readonly index: number;
  /**
   * In the order of time, put together when first asked: mostly what they leave is enough. Null where the event is
   * delivered anew from each state.
   */
  readonly operations: (() => Recording) | null;
  readonly outcome: Outcome;
  readonly summary: WriteSummary;
  /**
   * Of a press that can be made from every state and settles: the bank of its controller, the one variable that
   * decides whether it is made. Null for every other event.
   */
  readonly bank: number | null;
  /** The operations again, each with the points at which it can be lost; worked out when first asked. */
  readonly losses: () => { readonly operations: Recording; readonly points: readonly LossyPoint[] };
}

export function compileEvent(model: StateModel, event: RigEvent, index: number): CompiledEvent {
  if (event.kind === 'restart') return uncompiled(model, event, index, restartWrites(model, event), 'settled');
  try {
    const { done, outcome } = record(model, event, { straight: model.isStraight });
    // A press that never settles may do so where one of its messages is lost: it is delivered each time.
    if (outcome !== 'settled') return uncompiled(model, event, index, allWrittenBy(done), outcome);
    const summary = summarise(model, done);
    // What it does is asked for where what it leaves is not enough.
    return new Fixed(model, event, index, summary, summary.isOpen() ? done.copy() : undefined);
  } catch (reason) {
    if (!(reason instanceof DependsOnState)) throw reason;
  }
  return uncompiled(model, event, index, allWrittenBy(record(model, event, { survey: true }).done), 'settled');
}

/** An event that does the same from every state, and settles. */
class Fixed implements CompiledEvent {
  readonly outcome = 'settled';
  readonly bank: number | null;
  private full: ReturnType<CompiledEvent['losses']> | undefined;

  constructor(
    private readonly model: StateModel,
    readonly event: Exclude<RigEvent, { readonly kind: 'restart' }>,
    readonly index: number,
    readonly summary: WriteSummary,
    private done: Recording | undefined,
  ) {
    this.bank = freeBank(model, event);
  }

  operations(): Recording {
    return (this.done ??= record(this.model, this.event, { straight: this.model.isStraight }).done.copy());
  }

  losses(): ReturnType<CompiledEvent['losses']> {
    if (!this.full) {
      const { done, points } = record(this.model, this.event, {});
      this.full = { operations: done.copy(), points };
    }
    return this.full;
  }
}

const uncompiled = (
  model: StateModel,
  event: RigEvent,
  index: number,
  touched: Iterable<number>,
  outcome: Outcome,
): CompiledEvent => ({
  event,
  index,
  operations: null,
  outcome,
  summary: WriteSummary.open(model.variables.length, touched),
  bank: outcome === 'settled' ? freeBank(model, event) : null,
  losses: () => ({ operations: new Recording(), points: [] }),
});

/** What an event does, in room that the next one takes. */
function record(
  model: StateModel,
  event: Exclude<RigEvent, { readonly kind: 'restart' }>,
  how: { readonly survey?: boolean; readonly straight?: boolean },
): { readonly done: Recording; readonly outcome: Outcome; readonly points: readonly LossyPoint[] } {
  const done = recordingOf(model).begin();
  const delivery = new Delivery(model, nowhere, { into: done, ...how });
  begin(model, event, delivery);
  return { done, outcome: delivery.settle(), points: delivery.points };
}

/** Room for one event of a model at a time. */
const recordingOf = memoised(
  ({ modelMemo }: StateModel) => modelMemo,
  () => new Recording(),
);

function freeBank(model: StateModel, event: RigEvent): number | null {
  if (event.kind !== 'press') return null;
  const { facts, held, bank } = model.device.get(event.slot.slot.controller)!.controller!;
  return (facts.firesWhileHeld || held.size === 0) && facts.bankMove !== 'fires' ? bank : null;
}

/** While an event is recorded, nothing is read. */
const noPlaces = new Int32Array(0);
const nowhere = new PartialStore(noPlaces, new Map());
const allWrittenBy = ({ updates, count }: Recording): ReadonlySet<number> =>
  new Set(updates.slice(0, count).flatMap(({ writes }) => writes));

function restartWrites(model: StateModel, event: Extract<RigEvent, { kind: 'restart' }>): ReadonlySet<number> {
  const writes = new Set(event.device.variables);
  for (const links of event.device.controller?.wires.values() ?? [])
    for (const link of links) for (const variable of model.device.get(link.device)!.variables) writes.add(variable);
  const slot =
    event.device.controller?.powerUpSlot === undefined
      ? undefined
      : model.slot.get(event.device.controller.powerUpSlot);
  if (slot)
    for (const variable of compileEvent(model, { kind: 'press', slot }, 0).summary.written) writes.add(variable);
  return writes;
}

/** The same event of the same model; a press only where its slot does the same. */
const isSame = (a: RigEvent, b: RigEvent): boolean =>
  a.kind === b.kind && (a.kind !== 'press' || (b.kind === 'press' && a.slot === b.slot));

/** Whether an event, compiled anew, surely does to a variable what it did before. */
export function doesTheSame(
  before: CompiledEvent | undefined,
  now: CompiledEvent | undefined,
  variable: VariableId,
): boolean {
  const was = before?.summary.leaves(variable);
  const is = now?.summary.leaves(variable);
  if (was !== is || was !== mayChange) return was === is;
  const a = signsOn(before!, variable);
  const b = signsOn(now!, variable);
  return a.length > 0 && a.length === b.length && a.every((sign, i) => sign !== undefined && sign === b[i]);
}

const signsOn = (compiled: CompiledEvent, variable: VariableId): readonly (string | undefined)[] =>
  (compiled.operations?.().operations() ?? [])
    .filter(({ update }) => update.writes.includes(variable))
    .map(({ update }) => (update.constant ? `=${update.constant.value}` : update.sign));

/** The events of a level, compiled once a model and shared by every space. */
export class EventTable {
  /** Ordinary events, slots set aside among them. */
  private readonly all: readonly CompiledEvent[];
  readonly ordinary: readonly CompiledEvent[];
  readonly press: ReadonlyMap<number, CompiledEvent>;
  /** By level; and by level and variable, found when first asked for. A rig's faults are the same each time. */
  private readonly events = new Map<FreeLevel, readonly CompiledEvent[]>();
  private readonly touching = new Map<FreeLevel, Csr>();
  private readonly touched = new Map<FreeLevel, Uint8Array>();
  /** What only levels 3 and 4 ask for, compiled when they do. */
  private late: { readonly strays: readonly CompiledEvent[]; readonly restarts: readonly CompiledEvent[] } | undefined;
  private readonly known: ReadonlyMap<number, CompiledEvent>;

  /**
   * `before`: the table of the same model with other actions in its slots; events that they do not touch are taken
   * over.
   */
  constructor(
    readonly model: StateModel,
    setAside: ReadonlySet<number>,
    before?: EventTable,
    /** What feet and hands do for parts without a slot. */
    private readonly derived: readonly CastAction[] = [],
  ) {
    this.known = new Map(
      (before ? [...before.all, ...(before.late?.strays ?? []), ...(before.late?.restarts ?? [])] : []).map(
        (compiled) => [compiled.index, compiled],
      ),
    );
    const all = this.compile(ordinaryEvents(model, derived), 0);
    this.all = all;
    this.press = new Map(
      all.flatMap((compiled) =>
        compiled.event.kind === 'press' ? [[compiled.event.slot.index, compiled] as const] : [],
      ),
    );
    this.ordinary = all.filter(
      (compiled) => !(compiled.event.kind === 'press' && setAside.has(compiled.event.slot.index)),
    );
  }

  /** Compiles events, numbered on from `before`. */
  private compile(events: readonly RigEvent[], before: number): CompiledEvent[] {
    return events.map((event, i) => {
      const index = before + i + 1;
      const old = this.known.get(index);
      return old && isSame(old.event, event) ? old : compileEvent(this.model, event, index);
    });
  }

  private afterOrdinary(): NonNullable<EventTable['late']> {
    if (!this.late) {
      const strays = this.compile(strayEvents(this.model, this.derived), this.all.length);
      this.late = { strays, restarts: this.compile(restartEvents(this.model), this.all.length + strays.length) };
    }
    return this.late;
  }

  get strays(): readonly CompiledEvent[] {
    return this.afterOrdinary().strays;
  }

  /** Whether this table serves another model, since no slot of it does anything else. */
  serves(model: StateModel): boolean {
    const mine = this.model;
    return (
      mine.devices === model.devices &&
      mine.wiring.rig.settings === model.wiring.rig.settings &&
      mine.slots.length === model.slots.length &&
      mine.slots.every((slot, i) => slot === model.slots[i])
    );
  }

  at(level: FreeLevel, faults: ReadonlySet<FaultKind>): readonly CompiledEvent[] {
    let events = this.events.get(level);
    if (!events) this.events.set(level, (events = this.eventsAt(level, faults)));
    return events;
  }

  private eventsAt(level: FreeLevel, faults: ReadonlySet<FaultKind>): readonly CompiledEvent[] {
    if (level === 3) return [...this.ordinary, ...this.strays];
    if (level === 4 && faults.has('restart')) return [...this.ordinary, ...this.afterOrdinary().restarts];
    return this.ordinary;
  }

  /** Whether any event of a level may change a variable. */
  mayWrite(level: FreeLevel, faults: ReadonlySet<FaultKind>, variable: VariableId): boolean {
    let touched = this.touched.get(level);
    if (!touched) {
      this.touched.set(level, (touched = new Uint8Array(this.model.variables.length)));
      for (const { summary } of this.at(level, faults))
        for (let i = 0; i < summary.written.length; i += 1) touched[summary.written[i]] = 1;
    }
    return touched[variable] === 1;
  }

  /** Events of a level that may change one of these variables, in document order. */
  concerning(
    level: FreeLevel,
    faults: ReadonlySet<FaultKind>,
    variables: readonly VariableId[],
  ): readonly CompiledEvent[] {
    const events = this.at(level, faults);
    let touching = this.touching.get(level);
    if (!touching)
      this.touching.set(
        level,
        (touching = transpose(listsOf(events.map(({ summary }) => summary.written)), this.model.variables.length)),
      );
    const { start, items: places } = touching;
    const found: CompiledEvent[] = [];
    if (variables.length === 1) {
      const [variable] = variables;
      for (let i = start[variable]; i < start[variable + 1]; i += 1) found.push(events[places[i]]);
      return found;
    }
    const chosen = new Uint8Array(events.length);
    for (const variable of variables)
      for (let i = start[variable]; i < start[variable + 1]; i += 1) chosen[places[i]] = 1;
    for (let i = 0; i < events.length; i += 1) if (chosen[i] === 1) found.push(events[i]);
    return found;
  }
}
