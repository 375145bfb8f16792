import type { Cast, Sound } from '../../model/rig.ts';
import { eventOfCast, type RigEvent } from '../deliver/events.ts';
import type { Sequence } from '../deliver/sequence.ts';
import { type CompiledEvent, compileEvent } from '../explore/event-table.ts';
import { type Row, rowKey, TooManyStates } from '../explore/row.ts';
import { Stepper } from '../explore/stepper.ts';
import { widening } from '../explore/widening.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import { NeedVariable } from '../state/store.ts';
import type { ContentSymbol, Pins } from '../state/values.ts';
import type { ProofBase } from './base.ts';
import { pinsKey } from './cache.ts';
import { choicesOf, stepOf } from './counterexample.ts';
import { type Answer, recallsAnswer, worst } from './verdict.ts';

/** One thing that happens in set order: an event, or that the sound of a part is judged. */
type SetEvent =
  | { readonly compiled: CompiledEvent; readonly judged: null; readonly isBefore: boolean }
  | { readonly compiled: null; readonly judged: Cast };

/** Level 1: the set list's parts, played in their order from power-up. */
export class SetOrder {
  private known: Played | undefined;
  /** By how far the set was played, the contents assumed and the variables followed. */
  private readonly runs = new Map<string, SetRun>();

  constructor(
    private readonly base: ProofBase,
    private readonly partsInOrder: readonly string[],
  ) {}

  /** The answer over every part that plays this slot. */
  judge(slot: ModelSlot, sound: Sound, pins: Pins): Answer {
    const occurrences = this.events.flatMap(({ judged }, i) => (judged?.slot === slot.slot.id ? [i] : []));
    if (occurrences.length === 0) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
    return worst(occurrences.map((at) => this.judgeAt(at, sound, pins)));
  }

  private get played(): Played {
    return (this.known ??= playSet(this.base.model, this.partsInOrder));
  }

  private get events(): readonly SetEvent[] {
    return this.played.events;
  }

  /** Parts whose slot no bank move leads to, in the order in which they would be played. */
  get outOfReach(): readonly string[] {
    return this.played.outOfReach;
  }

  private judgeAt(at: number, sound: Sound, pins: Pins): Answer {
    const { comparison } = this.base;
    const happened = this.events.slice(0, at).flatMap(({ compiled }) => compiled ?? []);
    const target = this.base.targetOf(sound);
    const judge = (variables: readonly VariableId[]): Answer => {
      const run = this.run(variables, happened, at, pins);
      if (run.outcome !== 'settled') return this.unsettledAnswer(happened, run.outcome, at);
      const { rows, starts, place, needs } = run;
      const answer = (verdict: Answer['verdict'], i: number, symbols: readonly ContentSymbol[]): Answer => ({
        verdict,
        length: happened.length,
        sequence: { ...this.sequence(happened), needs: needs(starts[i]) },
        symbols,
      });
      const symbols: ContentSymbol[] = [];
      let open = -1;
      for (const [i, row] of rows.entries()) {
        const read = (variable: VariableId): number =>
          place[variable] >= 0 ? row[place[variable]] : this.alone(variable, happened, at, pins);
        const heard = comparison.judge(read, target, { obey: false, pins });
        if (heard.is === 'wrong') return answer('does-not', i, []);
        if (heard.is !== 'unknown') continue;
        symbols.push(...heard.symbols);
        if (open < 0) open = i;
      }
      return open >= 0 ? answer('cannot-be-known', open, symbols) : recallsAnswer;
    };
    try {
      return widening(new Set(), judge);
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      const unknown = { verdict: 'cannot-be-known', length: happened.length, symbols: [] } as const;
      return { ...unknown, sequence: this.sequence(happened), gaveUp: 'too many states' };
    }
  }

  private sequence(happened: readonly CompiledEvent[]): Sequence {
    return { needs: [], steps: happened.map(({ event }) => stepOf(this.base.model, event)) };
  }

  /** The one value that a variable has then; where it may have several it must be followed jointly. */
  private alone(variable: VariableId, happened: readonly CompiledEvent[], at: number, pins: Pins): number {
    const { rows, outcome, place } = this.run([variable], happened, at, pins);
    if (outcome !== 'settled' || rows.some((row) => row[place[variable]] !== rows[0][place[variable]]))
      throw new NeedVariable(variable);
    return rows[0][place[variable]];
  }

  /**
   * The press itself or a foot after it never settled, and there the sequence ends; or something before the press did,
   * and nothing is known since.
   */
  private unsettledAnswer(happened: readonly CompiledEvent[], { is, compiled }: Unsettled, at: number): Answer {
    const before = this.events.slice(0, at);
    const started = before.findLastIndex(({ judged }) => judged !== null);
    const isOwn = before
      .slice(started + 1)
      .some((event) => event.compiled !== null && event.compiled === compiled && !event.isBefore);
    const length = isOwn ? happened.indexOf(compiled!) + 1 : happened.length;
    const verdict = isOwn && is === 'never-settles' ? 'does-not' : 'cannot-be-known';
    return { verdict, length, sequence: this.sequence(happened.slice(0, length)), symbols: [] };
  }

  private run(wanted: readonly number[], happened: readonly CompiledEvent[], at: number, pins: Pins): SetRun {
    const key = `${at}|${pinsKey(pins)}|${wanted.join(',')}`;
    let known = this.runs.get(key);
    if (!known) {
      const { model } = this.base;
      known = widening(new Set(wanted), (variables) => runSet(new Stepper(model, variables, pins), happened));
      this.runs.set(key, known);
    }
    return known;
  }
}

interface Played {
  readonly events: readonly SetEvent[];
  readonly outOfReach: readonly string[];
}

/** The set list's parts in order: bank moves, planned feet and cues included; judged after each part's own. */
function playSet(model: StateModel, parts: readonly string[]): Played {
  const outOfReach: string[] = [];
  const casts = new Map(Object.values(model.wiring.rig.casting).map((cast) => [cast.part, cast]));
  const follower = new BankFollower(model);
  const events: SetEvent[] = [];
  let before: string | null = null;
  const happen = (event: RigEvent | undefined, isBefore = false) => {
    if (!event) return;
    const compiled = compileEvent(model, event, events.length);
    events.push({ compiled, judged: null, isBefore });
    follower.follow(compiled);
  };
  for (const part of parts) {
    const cast = casts.get(part);
    const slot = cast && model.slot.get(cast.slot);
    if (!cast || !slot) continue;
    for (const action of cast.before) happen(eventOfCast(model, action), true);
    if (cast.slot !== before || cast.again) {
      const { banks } = model.device.get(slot.slot.controller)!.controller!.facts;
      for (let moves = 0; moves < banks && follower.bankOf(slot) !== slot.slot.bank; moves += 1)
        happen(moveTowards(model, slot, follower.bankOf(slot)), true);
      // Where moves that fire slots lead back each time, it cannot be pressed there.
      if (follower.bankOf(slot) !== slot.slot.bank) {
        outOfReach.push(part);
        continue;
      }
      happen({ kind: 'press', slot });
    }
    for (const action of cast.after) happen(eventOfCast(model, action));
    events.push({ compiled: null, judged: cast });
    before = cast.slot;
  }
  return { events, outOfReach };
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
  private here: { readonly stepper: Stepper; readonly row: Row } | null = null;

  constructor(private readonly model: StateModel) {
    for (const device of model.devices) if (device.controller) this.variables.add(device.controller.bank);
  }

  follow(compiled: CompiledEvent): void {
    this.happened.push(compiled);
    const { here } = this;
    if (!here) return;
    try {
      this.here = { stepper: here.stepper, row: stepFrom(here.stepper, here.row, compiled) };
    } catch (reason) {
      // A further variable matters: the set is followed anew with it.
      if (!(reason instanceof NeedVariable)) throw reason;
      this.variables.add(reason.variable);
      this.here = null;
    }
  }

  bankOf(slot: ModelSlot): number {
    const { stepper, row } = (this.here ??= widening(this.variables, (variables) => {
      const anew = new Stepper(this.model, variables, new Map());
      const start = anew.initial(new Set())[0].row;
      return { stepper: anew, row: this.happened.reduce((at, compiled) => stepFrom(anew, at, compiled), start) };
    }));
    const { bank } = this.model.device.get(slot.slot.controller)!.controller!;
    return this.model.values.number(row[stepper.place[bank]]);
  }
}

const stepFrom = (stepper: Stepper, row: Row, compiled: CompiledEvent): Row =>
  stepper.step(row, compiled, new Set())[0].row;

interface Unsettled {
  readonly is: 'never-settles' | 'gave-up';
  readonly compiled: CompiledEvent | null;
}

interface SetRun {
  readonly rows: readonly Row[];
  /** For each of them a row of power-up that leads to it. */
  readonly starts: readonly Row[];
  /** What such a row says of the choices that power-up leaves. */
  readonly needs: (start: Row) => Sequence['needs'];
  readonly place: Int32Array;
  readonly outcome: 'settled' | Unsettled;
}

/** Every row that events may end on, from every row that power-up may leave. */
function runSet(stepper: Stepper, happened: readonly CompiledEvent[]): SetRun {
  const common = { place: stepper.place, needs: (start: Row) => choicesOf(stepper.model, stepper, start) };
  const unsettled = (outcome: Unsettled): SetRun => ({ ...common, rows: [], starts: [], outcome });
  const starts = stepper.initial(new Set());
  if (starts.some(({ outcome }) => outcome !== 'settled')) return unsettled({ is: 'gave-up', compiled: null });
  let here = starts.map(({ row, cold }) => ({ row, start: cold }));
  for (const compiled of happened) {
    const next = new Map<string | number, { readonly row: Row; readonly start: Row }>();
    for (const { row, start } of here)
      for (const { row: reached, outcome } of stepper.step(row, compiled, new Set())) {
        if (outcome !== 'settled') return unsettled({ is: outcome, compiled });
        const key = rowKey(reached);
        if (!next.has(key)) next.set(key, { row: reached, start });
      }
    here = [...next.values()];
  }
  return { ...common, rows: here.map(({ row }) => row), starts: here.map(({ start }) => start), outcome: 'settled' };
}
