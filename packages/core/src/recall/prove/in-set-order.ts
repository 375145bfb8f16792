import type { Sound, Cast } from '../../model/documents.ts';
import { type CompiledEvent, compileEvent } from '../explore/event-table.ts';
import { type Row, rowKey, Stepper, TooManyStates } from '../explore/stepper.ts';
import { type RigEvent, eventOfCast } from '../deliver/events.ts';
import { NeedVariable } from '../state/store.ts';
import { type Answer, recallsAnswer, worst } from './verdict.ts';
import type { Prover } from './prover.ts';
import type { StateModel, ModelSlot } from '../state/state-model.ts';
import { choicesOf, stepOf, type Sequence } from './sequence.ts';
import type { ContentSymbol, Pins } from '../state/values.ts';

/** One thing that happens in set order, with the part whose sound is judged after it, if any. */
interface SetEvent {
  readonly compiled: CompiledEvent | null;
  readonly judged: Cast | null;
}

/** The set list's parts in order: bank moves, planned feet and cues included; judged after each part's own. */
function setEventsOf(model: StateModel, parts: readonly string[]): readonly SetEvent[] {
  const casts = new Map(Object.values(model.wiring.rig.casting).map((cast) => [cast.part, cast]));
  const follower = new BankFollower(model);
  const setEvents: SetEvent[] = [];
  let before: string | null = null;
  const happen = (event: RigEvent | undefined) => {
    if (!event) return;
    const compiled = compileEvent(model, event, setEvents.length);
    setEvents.push({ compiled, judged: null });
    follower.follow(compiled);
  };
  for (const part of parts) {
    const cast = casts.get(part);
    const slot = cast && model.slot.get(cast.slot);
    if (!cast || !slot) continue;
    for (const action of cast.before) happen(eventOfCast(model, action));
    if (cast.slot !== before || cast.again) {
      const { banks } = model.device.get(slot.slot.controller)!.controller!.facts;
      for (let moves = 0; moves < banks && follower.bankOf(slot) !== slot.slot.bank; moves += 1)
        happen(moveTowards(model, slot, follower.bankOf(slot)));
      happen({ kind: 'press', slot });
    }
    for (const action of cast.after) happen(eventOfCast(model, action));
    setEvents.push({ compiled: null, judged: cast });
    before = cast.slot;
  }
  return setEvents;
}

/** One bank move the shorter way round, up on a tie. */
function moveTowards(model: StateModel, slot: ModelSlot, from: number): RigEvent {
  const controller = model.device.get(slot.slot.controller)!;
  const { banks } = controller.controller!.facts;
  const up = (((slot.slot.bank - from) % banks) + banks) % banks;
  return { kind: 'bank', controller, by: up <= banks - up ? 1 : -1 };
}

/** Where each controller's bank is as the set goes on: moves, presses and calls alike. */
class BankFollower {
  private readonly variables = new Set<number>();
  private readonly happened: CompiledEvent[] = [];
  private rows: { readonly row: Row; readonly place: Int32Array } | null = null;

  constructor(private readonly model: StateModel) {
    for (const device of model.devices) if (device.controller) this.variables.add(device.controller.bank);
  }

  follow(compiled: CompiledEvent): void {
    this.happened.push(compiled);
    const last = this.rows;
    if (!last) return;
    this.rows = this.guarded(() => this.stepFrom(this.stepper(), last.row, compiled));
  }

  bankOf(slot: ModelSlot): number {
    this.rows ??= this.fromStart();
    return this.model.values.number(
      this.rows.row[this.rows.place[this.model.device.get(slot.slot.controller)!.controller!.bank]],
    );
  }

  private stepper(): Stepper {
    return new Stepper(
      this.model,
      [...this.variables].sort((a, b) => a - b),
      new Map(),
    );
  }

  private fromStart(): { row: Row; place: Int32Array } {
    for (;;) {
      const rows = this.guarded(() => {
        const stepper = this.stepper();
        let here = { row: stepper.initial(new Set())[0].row, place: stepper.place };
        for (const compiled of this.happened) here = this.stepFrom(stepper, here.row, compiled);
        return here;
      });
      if (rows) return rows;
    }
  }

  private stepFrom(stepper: Stepper, row: Row, compiled: CompiledEvent) {
    return { row: stepper.step(row, compiled, new Set())[0].row, place: stepper.place };
  }

  /** Null where a further variable turned out to matter: it is taken in, and the set followed anew. */
  private guarded<T>(act: () => T): T | null {
    try {
      return act();
    } catch (reason) {
      if (!(reason instanceof NeedVariable)) throw reason;
      this.variables.add(reason.variable);
      return null;
    }
  }
}

/** Level 1: the verdict over every part that plays this slot. */
export function proveInSetOrder(prover: Prover, slot: ModelSlot, sound: Sound, pins: Pins): Answer {
  const setEvents = prover.setEvents(() => setEventsOf(prover.model, prover.partsInOrder)) as readonly SetEvent[];
  const occurrences = setEvents.flatMap((setEvent, i) =>
    setEvent.judged && setEvent.judged.slot === slot.slot.id ? [i] : [],
  );
  if (occurrences.length === 0) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
  return worst(occurrences.map((at) => judgeAt(prover, setEvents, at, sound, pins)));
}

function judgeAt(prover: Prover, setEvents: readonly SetEvent[], at: number, sound: Sound, pins: Pins): Answer {
  const happened = setEvents.slice(0, at).flatMap((setEvent) => (setEvent.compiled ? [setEvent.compiled] : []));
  const sequence = (count = happened.length) => ({
    needs: [],
    steps: happened.slice(0, count).map((compiled) => stepOf(prover.model, compiled.event)),
  });
  const target = prover.targetOf(sound);
  const variables = new Set<number>();
  for (;;) {
    try {
      const { rows, starts, outcome, place, needs } = prover.inOrder([...variables], at, pins, () =>
        run(prover, [...variables], happened, pins),
      );
      if (outcome !== 'settled') return ownOrLater(happened, outcome, setEvents, at, sequence);
      const symbols: ContentSymbol[] = [];
      let open = -1;
      for (const [i, row] of rows.entries()) {
        const read = (variable: number): number =>
          place[variable] >= 0 ? row[place[variable]] : alone(prover, variable, happened, at, pins);
        const heard = prover.comparison.judge(read, target, { obey: false, pins });
        if (heard.is === 'wrong')
          return {
            verdict: 'does-not',
            length: happened.length,
            sequence: { ...sequence(), needs: needs(starts[i]) },
            symbols: [],
          };
        if (heard.is !== 'unknown') continue;
        symbols.push(...heard.symbols);
        if (open < 0) open = i;
      }
      return open >= 0
        ? {
            verdict: 'cannot-be-known',
            length: happened.length,
            sequence: { ...sequence(), needs: needs(starts[open]) },
            symbols,
          }
        : recallsAnswer;
    } catch (reason) {
      if (reason instanceof NeedVariable) variables.add(reason.variable);
      else if (reason instanceof TooManyStates)
        return {
          verdict: 'cannot-be-known',
          length: happened.length,
          sequence: sequence(),
          symbols: [],
          gaveUp: 'too many states',
        };
      else throw reason;
    }
  }
}

/** The one value that a variable has then; where it may have several it must be followed jointly. */
function alone(prover: Prover, variable: number, happened: readonly CompiledEvent[], at: number, pins: Pins): number {
  const { rows, outcome, place } = prover.inOrder([variable], at, pins, () => run(prover, [variable], happened, pins));
  if (outcome !== 'settled' || rows.some((row) => row[place[variable]] !== rows[0][place[variable]]))
    throw new NeedVariable(variable);
  return rows[0][place[variable]];
}

/**
 * Something of the part itself never settled, and there the sequence ends; or something before it did, and nothing
 * is known since.
 */
function ownOrLater(
  happened: readonly CompiledEvent[],
  outcome: Exclude<OrderRun['outcome'], 'settled'>,
  setEvents: readonly SetEvent[],
  at: number,
  sequence: (count?: number) => Answer['sequence'],
): Answer {
  const started = setEvents.slice(0, at).findLastIndex((setEvent) => setEvent.judged !== null);
  const own = setEvents
    .slice(started + 1, at)
    .some((setEvent) => setEvent.compiled !== null && setEvent.compiled === outcome.compiled);
  if (!own) return { verdict: 'cannot-be-known', length: happened.length, sequence: sequence(), symbols: [] };
  const length = happened.indexOf(outcome.compiled!) + 1;
  return {
    verdict: outcome.is === 'never-settles' ? 'does-not' : 'cannot-be-known',
    length,
    sequence: sequence(length),
    symbols: [],
  };
}

export interface OrderRun {
  readonly rows: readonly Row[];
  /**
   * For each of them a row of power-up that leads to it, and what such a row says of the choices that power-up leaves.
   */
  readonly starts: readonly Row[];
  readonly needs: (start: Row) => Sequence['needs'];
  readonly place: Int32Array;
  readonly outcome: 'settled' | { readonly is: 'never-settles' | 'gave-up'; readonly compiled: CompiledEvent | null };
}

/** Every row that the happenings may end on, from every row that power-up may leave. */
function run(prover: Prover, wanted: readonly number[], happened: readonly CompiledEvent[], pins: Pins): OrderRun {
  const variables = new Set(wanted);
  for (;;) {
    try {
      return runExactly(
        prover,
        [...variables].sort((a, b) => a - b),
        happened,
        pins,
      );
    } catch (reason) {
      if (!(reason instanceof NeedVariable)) throw reason;
      variables.add(reason.variable);
    }
  }
}

function runExactly(
  prover: Prover,
  variables: readonly number[],
  happened: readonly CompiledEvent[],
  pins: Pins,
): OrderRun {
  const stepper = new Stepper(prover.model, variables, pins);
  const common = { place: stepper.place, needs: (start: Row) => choicesOf(prover.model, stepper, start) };
  const starts = stepper.initial(new Set());
  const unsettled = starts.find((one) => one.outcome !== 'settled');
  if (unsettled) return { ...common, rows: [], starts: [], outcome: { is: 'gave-up', compiled: null } };
  let here = starts.map(({ row, cold }) => ({ row, start: cold }));
  for (const compiled of happened) {
    const next = new Map<string | number, { readonly row: Row; readonly start: Row }>();
    for (const { row, start } of here)
      for (const reached of stepper.step(row, compiled, new Set())) {
        if (reached.outcome !== 'settled')
          return { ...common, rows: [], starts: [], outcome: { is: reached.outcome, compiled } };
        const key = rowKey(reached.row);
        if (!next.has(key)) next.set(key, { row: reached.row, start });
      }
    here = [...next.values()];
  }
  return { ...common, rows: here.map(({ row }) => row), starts: here.map(({ start }) => start), outcome: 'settled' };
}
