import type { Sound } from '../../model/rig.ts';
import type { Sequence } from '../deliver/sequence.ts';
import { type CompiledEvent } from '../explore/event-table.ts';
import { type Row, rowKey, TooManyStates } from '../explore/row.ts';
import { Stepper } from '../explore/stepper.ts';
import { widening } from '../explore/widening.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot } from '../state/state-model.ts';
import { NeedVariable } from '../state/store.ts';
import type { ContentSymbol, Pins } from '../state/values.ts';
import type { ProofBase } from './base.ts';
import { pinsKey } from './cache.ts';
import { choicesOf } from './counterexample.ts';
import type { SetEvent, SetPart, SetRun } from './set-run.ts';
import { type Answer, recallsAnswer, worst } from './verdict.ts';

/** Level 1: the set list's parts, played in their order from power-up. */
export class SetOrder {
  /** By how far the set was played, the contents assumed and the variables followed. */
  private readonly runs = new Map<string, Followed>();

  constructor(
    private readonly base: ProofBase,
    private readonly set: () => SetRun,
  ) {}

  /** The answer over every part that plays this slot. */
  judge(slot: ModelSlot, sound: Sound, pins: Pins): Answer {
    return this.judgeParts((part) => part.slot === slot, sound, pins);
  }

  /** The answer over every time that a part comes in the set. */
  judgePart(id: string, sound: Sound, pins: Pins): Answer {
    return this.judgeParts(({ part }) => part.id === id, sound, pins);
  }

  private judgeParts(isMeant: (part: SetPart) => boolean, sound: Sound, pins: Pins): Answer {
    const occurrences = this.set().parts.flatMap((part, i) => (isMeant(part) ? [i] : []));
    if (occurrences.length === 0) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
    return worst(occurrences.map((at) => this.judgeAt(at, sound, pins)));
  }

  private judgeAt(at: number, sound: Sound, pins: Pins): Answer {
    const { comparison } = this.base;
    const happened = this.set()
      .parts.slice(0, at + 1)
      .flatMap(({ events }) => events);
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

  private sequence(happened: readonly SetEvent[]): Sequence {
    return { needs: [], steps: happened.map(({ step }) => step) };
  }

  /** The one value that a variable has then; where it may have several it must be followed jointly. */
  private alone(variable: VariableId, happened: readonly SetEvent[], at: number, pins: Pins): number {
    const { rows, outcome, place } = this.run([variable], happened, at, pins);
    if (outcome !== 'settled' || rows.some((row) => row[place[variable]] !== rows[0][place[variable]]))
      throw new NeedVariable(variable);
    return rows[0][place[variable]];
  }

  /**
   * The press itself or a foot after it never settled, and there the sequence ends; or something before the press did,
   * and nothing is known since.
   */
  private unsettledAnswer(happened: readonly SetEvent[], { is, compiled }: Unsettled, at: number): Answer {
    const own = this.set().parts[at].events.find((event) => event.compiled === compiled && event.when !== 'before');
    const isOwn = own !== undefined;
    const length = isOwn ? happened.indexOf(own) + 1 : happened.length;
    const verdict = isOwn && is === 'never-settles' ? 'does-not' : 'cannot-be-known';
    return { verdict, length, sequence: this.sequence(happened.slice(0, length)), symbols: [] };
  }

  private run(wanted: readonly number[], happened: readonly SetEvent[], at: number, pins: Pins): Followed {
    const key = `${at}|${pinsKey(pins)}|${wanted.join(',')}`;
    let known = this.runs.get(key);
    if (!known) {
      const { model } = this.base;
      known = widening(new Set(wanted), (variables) =>
        runSet(
          new Stepper(model, variables, pins),
          happened.map(({ compiled }) => compiled),
        ),
      );
      this.runs.set(key, known);
    }
    return known;
  }
}

interface Unsettled {
  readonly is: 'never-settles' | 'gave-up';
  readonly compiled: CompiledEvent | null;
}

interface Followed {
  readonly rows: readonly Row[];
  /** For each of them a row of power-up that leads to it. */
  readonly starts: readonly Row[];
  /** What such a row says of the choices that power-up leaves. */
  readonly needs: (start: Row) => Sequence['needs'];
  readonly place: Int32Array;
  readonly outcome: 'settled' | Unsettled;
}

/** Every row that events may end on, from every row that power-up may leave. */
function runSet(stepper: Stepper, happened: readonly CompiledEvent[]): Followed {
  const common = { place: stepper.place, needs: (start: Row) => choicesOf(stepper.model, stepper, start) };
  const unsettled = (outcome: Unsettled): Followed => ({ ...common, rows: [], starts: [], outcome });
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
