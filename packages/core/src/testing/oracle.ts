import { bankDistance } from '../model/slots.ts';
import type { Show } from '../model/documents.ts';
import type { Sound } from '../model/rig.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import { type Level, type Verdict, worst, type Answer } from '../recall/prove/verdict.ts';
import { eventOfCast, ordinaryEvents, restartEvents, type RigEvent, strayEvents } from '../recall/deliver/events.ts';
import { SoundComparison } from '../recall/audible/sound-comparison.ts';
import { WriteSummary } from '../recall/explore/write-summary.ts';
import { Recording } from '../recall/device/recording.ts';
import type { CompiledEvent } from '../recall/explore/event-table.ts';
import { Stepper } from '../recall/explore/stepper.ts';
import { type Row, rowKey } from '../recall/explore/row.ts';
import type { StateModel, ModelSlot } from '../recall/state/state-model.ts';
import { type ContentSymbol, NeedPin, type Pins } from '../recall/state/values.ts';

/**
 * The whole rig, every variable of it, enumerated state by state: no spaces, no products, no compiled operations.
 * Every event is delivered byte by byte from every state. Slow, and therefore only for small rigs.
 */
export interface OracleAnswer {
  readonly verdict: Verdict;
  /** Undefined where transitions turn on contents, so that no sequence can be followed without assuming them. */
  readonly length: number | null | undefined;
}

export class RigTooLarge extends Error {}

interface State {
  readonly row: Row;
  readonly depth: number;
  /** A press that never settled lies behind: nothing is known any more. */
  readonly lost: boolean;
}

export class Oracle {
  private readonly comparison: SoundComparison;
  private readonly used: ReadonlySet<string>;
  private readonly parts: readonly string[];
  private readonly symbols: readonly ContentSymbol[];
  private readonly reached = new Map<string, readonly State[]>();
  /** After a press that never settles nobody knows the bank, so bank moves are not counted. */
  private readonly banked: boolean;
  private readonly allVariables: readonly number[];
  private aside: ReadonlySet<number> = new Set();

  constructor(
    private readonly model: StateModel,
    show: Show,
    private readonly limit: number,
  ) {
    this.comparison = new SoundComparison(model);
    this.used = new Set([
      ...Object.values(show.rig.casting).map((cast) => cast.slot),
      ...Object.values(show.rig.devices).flatMap((device) => device.powerUpSlot ?? []),
    ]);
    this.parts = partsInSetOrder(show);
    this.allVariables = model.variables.map((variable) => variable.index);
    this.banked = model.devices.some((device) => (device.controller?.facts.banks ?? 1) > 1);
    this.symbols = contentSymbols(model);
    this.aside = this.findAside();
  }

  judge(slot: ModelSlot, sound: Sound, level: Level): OracleAnswer {
    const open = this.symbolically(slot, sound, level);
    if (open?.verdict === 'does-not') return { verdict: 'does-not', length: open.length };
    const answers = this.contents().map((pins) =>
      level === 1 ? this.inOrder(slot, sound, pins) : this.free(slot, sound, level, pins),
    );
    const failing = answers.filter((answer) => answer.verdict === 'does-not');
    const undecided = answers.filter((answer) => answer.verdict === 'cannot-be-known');
    if (answers.some((answer) => answer.verdict === 'cannot-be-known' && answer.length === null))
      return { verdict: failing.length === answers.length ? 'does-not' : 'cannot-be-known', length: undefined };
    const lengths = (list: readonly Answer[]) => list.map((answer) => answer.length ?? 0);
    const isExact = this.symbols.length === 0 || open !== undefined;
    if (failing.length === answers.length)
      return { verdict: 'does-not', length: isExact ? Math.max(...lengths(failing)) : undefined };
    if (failing.length + undecided.length > 0)
      return {
        verdict: 'cannot-be-known',
        length: isExact ? Math.min(...lengths([...failing, ...undecided])) : undefined,
      };
    return { verdict: answers[0].verdict, length: null };
  }

  /** A failure that no content can mend; undefined where a transition itself turns on a content. */
  private symbolically(slot: ModelSlot, sound: Sound, level: Level): Answer | undefined {
    if (this.symbols.length === 0) return undefined;
    try {
      return level === 1 ? this.inOrder(slot, sound, new Map()) : this.free(slot, sound, level, new Map());
    } catch (reason) {
      if (reason instanceof NeedPin) return undefined;
      throw reason;
    }
  }

  private contents(): Pins[] {
    let all: Pins[] = [new Map()];
    for (const symbol of this.symbols)
      all = all.flatMap((pins) => symbol.options.map((_, i) => new Map([...pins, [symbol.id, i]])));
    if (all.length > 9) throw new RigTooLarge();
    return all;
  }

  private inOrder(slot: ModelSlot, sound: Sound, pins: Pins): Answer {
    const { model } = this;
    const stepper = new Stepper(model, this.allVariables, pins);
    const casts = new Map(Object.values(model.wiring.rig.casting).map((cast) => [cast.part, cast]));
    const starts = stepper.initial(none);
    let rows = starts.map((start) => start.row);
    let happened = 0;
    let lost = starts.some((start) => start.outcome !== 'settled');
    let gaveUp = false;
    let before: string | null = null;
    const answers: Answer[] = [];
    const happen = (event: RigEvent): boolean => {
      happened += 1;
      if (lost) return true;
      const next = new Map<string | number, Row>();
      for (const row of rows)
        for (const item of stepper.step(row, raw(event), none)) {
          if (item.outcome !== 'settled') {
            gaveUp = item.outcome === 'gave-up';
            return false;
          }
          next.set(rowKey(item.row), item.row);
        }
      rows = [...next.values()];
      if (rows.length > this.limit) throw new RigTooLarge();
      return true;
    };
    for (const part of this.parts) {
      const cast = casts.get(part);
      const played = cast && model.slot.get(cast.slot);
      if (!cast || !played) continue;
      const mine = cast.slot === slot.slot.id;
      const wasLost = lost;
      /** How much had happened when something of this part did not settles; what follows is still done. */
      let unquietAt: number | null = null;
      const doIt = (event: RigEvent) => {
        if (happen(event)) return;
        unquietAt = happened;
        lost = true;
      };
      for (const action of cast.before) doIt(eventOfCast(model, action)!);
      if (cast.slot !== before || cast.again) {
        const controller = model.device.get(played.slot.controller)!;
        const { banks } = controller.controller!.facts;
        const now = (): number =>
          lost ? played.slot.bank : model.values.number(rows[0][stepper.place[controller.controller!.bank]]);
        while (now() !== played.slot.bank) {
          const distance = bankDistance(banks, now(), played.slot.bank);
          doIt({ kind: 'bank', controller, by: (now() + distance) % banks === played.slot.bank ? 1 : -1 });
        }
        doIt({ kind: 'press', slot: played });
      }
      for (const action of cast.after) doIt(eventOfCast(model, action)!);
      if (mine && unquietAt !== null && !wasLost)
        answers.push({
          verdict: gaveUp ? 'cannot-be-known' : 'does-not',
          length: unquietAt,
          sequence: null,
          symbols: [],
        });
      else if (mine && lost)
        answers.push({
          verdict: 'cannot-be-known',
          length: this.banked ? null : happened,
          sequence: null,
          symbols: [],
        });
      else if (mine)
        answers.push(
          this.judged(
            rows.map((row) => ({ row, length: happened })),
            stepper,
            sound,
            pins,
            false,
          ),
        );
      before = cast.slot;
    }
    return answers.length === 0 ? { verdict: 'not-played', length: null, sequence: null, symbols: [] } : worst(answers);
  }

  private judged(
    rows: readonly { row: Row; length: number }[],
    stepper: Stepper,
    sound: Sound,
    pins: Pins,
    obey: boolean,
  ): Answer {
    const laid = this.comparison.resolveTarget(sound);
    let undecided: Answer | undefined;
    for (const { row, length } of rows) {
      const heard = this.comparison.judge((variable) => row[stepper.place[variable]], laid, { obey, pins });
      if (heard.is === 'wrong') return { verdict: 'does-not', length, sequence: null, symbols: [] };
      if (heard.is === 'unknown') undecided ??= { verdict: 'cannot-be-known', length, sequence: null, symbols: [] };
    }
    return undecided ?? { verdict: 'recalls', length: null, sequence: null, symbols: [] };
  }

  private free(slot: ModelSlot, sound: Sound, level: 2 | 3 | 4, pins: Pins): Answer {
    const states = this.enumerate(level, pins);
    const stepper = new Stepper(this.model, this.allVariables, pins);
    const press: RigEvent = { kind: 'press', slot };
    const answers: Answer[] = [];
    const posts: { row: Row; length: number }[] = [];
    for (const state of states) {
      const length = state.depth + 1;
      if (!stepper.isEnabled(state.row, press)) continue;
      if (state.lost) {
        answers.push({ verdict: 'cannot-be-known', length, sequence: null, symbols: [] });
        continue;
      }
      for (const item of stepper.step(state.row, raw(press), none)) {
        if (item.outcome !== 'settled')
          answers.push({
            verdict: item.outcome === 'never-settles' ? 'does-not' : 'cannot-be-known',
            length,
            sequence: null,
            symbols: [],
          });
        else for (const after of stepper.released(item.row)) posts.push({ row: after.row, length });
      }
    }
    if (posts.length > 0) answers.push(this.judged(posts, stepper, sound, pins, true));
    return answers.length === 0 ? { verdict: 'not-played', length: null, sequence: null, symbols: [] } : worst(answers);
  }

  /**
   * Breadth first over whole states; a press that does not settles leads to a state of which nothing is known but
   * its banks.
   */
  private enumerate(level: 2 | 3 | 4, pins: Pins): readonly State[] {
    const key = `${level}|${[...pins].join(';')}`;
    const known = this.reached.get(key);
    if (known) return known;
    const { model } = this;
    const stepper = new Stepper(model, this.allVariables, pins);
    const kinds = level === 4 ? model.wiring.rig.settings.faults : [];
    const losable = new Set(kinds.filter((kind) => kind !== 'restart'));
    const events = [
      ...ordinaryEvents(model).filter((event) => !(event.kind === 'press' && this.aside.has(event.slot.index))),
      ...(level === 3 ? strayEvents(model) : []),
      ...(kinds.includes('restart') ? restartEvents(model) : []),
    ];
    const states: State[] = [];
    const seen = new Set<string>();
    const add = (row: Row, depth: number, lost: boolean) => {
      const name = `${lost}|${rowKey(row)}`;
      if (seen.has(name)) return;
      seen.add(name);
      states.push({ row, depth, lost });
      if (states.length > this.limit) throw new RigTooLarge();
    };
    for (const { row, outcome } of stepper.initial(losable)) add(row, 0, outcome !== 'settled');
    for (let i = 0; i < states.length; i += 1) {
      const { row, depth, lost } = states[i];
      for (const event of events) {
        const spends = event.kind === 'restart' || (event.kind === 'foot' && event.stray);
        if (spends && row[stepper.width - 1] === 1) continue;
        if (!stepper.isEnabled(row, event)) continue;
        if (lost) {
          if (event.kind === 'bank')
            for (const item of stepper.step(row, raw(event), none)) add(item.row, depth + 1, true);
          continue;
        }
        for (const item of stepper.step(row, raw(event), losable)) add(item.row, depth + 1, item.outcome !== 'settled');
      }
    }
    this.reached.set(key, states);
    return states;
  }

  /** Slots that may never settles and that no part uses are set aside. */
  private findAside(): ReadonlySet<number> {
    const aside = new Set<number>();
    if (
      !this.model.devices.some(
        (device) => device.wired.device.calls !== undefined || device.wired.anatomy.emits !== undefined,
      )
    )
      return aside;
    const stepper = new Stepper(this.model, this.allVariables, this.contents()[0]);
    for (const state of this.enumerate(4, this.contents()[0]))
      if (!state.lost)
        for (const slot of this.model.slots) {
          const press: RigEvent = { kind: 'press', slot };
          if (this.used.has(slot.slot.id) || aside.has(slot.index) || !stepper.isEnabled(state.row, press)) continue;
          if (stepper.step(state.row, raw(press), none).some((item) => item.outcome === 'never-settles'))
            aside.add(slot.index);
        }
    if (aside.size > 0) this.reached.clear();
    return aside;
  }
}

const none: ReadonlySet<never> = new Set();

/** An event uncompiled: it is delivered through the wiring each time. */
const raw = (event: RigEvent): CompiledEvent => ({
  event,
  index: 0,
  operations: null,
  outcome: 'settled',
  summary: WriteSummary.open(0, []),
  bank: null,
  losses: () => ({ operations: new Recording(), points: [] }),
});

function contentSymbols(model: StateModel): readonly ContentSymbol[] {
  const symbols = new Map<number, ContentSymbol>();
  for (const device of model.devices)
    for (const number of device.presets?.numbers ?? [])
      for (const control of device.presets!.loads) {
        const content = device.presets!.content(number, control);
        const symbol = content === undefined ? undefined : model.values.symbolOf(content);
        if (symbol) symbols.set(symbol.id, symbol);
      }
  return [...symbols.values()];
}
