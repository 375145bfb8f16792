import type { Slot, Sound } from '../../model/documents.ts';
import { PostPressRanges } from '../explore/post-press-ranges.ts';
import { type CompiledEvent, doesTheSame, EventTable, type FreeLevel } from '../explore/event-table.ts';
import { DependencyTracker } from '../explore/dependency-tracker.ts';
import { Exploration, widening } from '../explore/exploration.ts';
import { defaultLimits, type Limits, StateSpace, type Reached } from '../explore/state-space.ts';
import { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import { ThreeValuedJudge, type Possible, type Status } from '../audible/three-valued-judge.ts';
import type { StateModel, ModelSlot } from '../state/state-model.ts';
import { type Row, TooManyStates } from '../explore/stepper.ts';
import { type OrderRun, proveInSetOrder } from './in-set-order.ts';
import { type ContentSymbol, NeedPin, type Pins } from '../state/values.ts';
import {
  type Answer,
  bankDistance,
  combine,
  type Judgement,
  isMixed,
  type Level,
  recallsAnswer,
  worst,
} from './verdict.ts';
import { Judgements } from './judgements.ts';
import { cheapestRoute } from './bank-route.ts';
import { type SequenceStep, pathTo } from './sequence.ts';
import { NeedVariable } from '../state/store.ts';

/** The proof of a rig: built once a revision, asked for any slot and level. */
export class Prover {
  readonly comparison: SoundComparison;
  readonly threeValued: ThreeValuedJudge;
  readonly table: EventTable;
  private readonly setAside: ReadonlySet<number>;
  /** By question. */
  private readonly explorations = new Map<string, Exploration>();
  private readonly target = new Map<string, SoundTarget>();
  private readonly judged = new Judgements();
  /** Judgements of the rig before an edit: one that comes out the same is the same object. */
  private earlier: Judgements | undefined;
  private readonly consulted = new DependencyTracker();
  private readonly soundingBy = new Set<number>();
  private readonly sounding = new Map<Exploration, boolean>();
  private readonly releasable: ReadonlySet<number>;
  private readonly mayNotSettle: readonly CompiledEvent[];

  constructor(
    readonly model: StateModel,
    readonly partsInOrder: readonly string[],
    readonly limits: Limits = defaultLimits,
    before?: Prover,
  ) {
    // What was worked out before stays true where only the actions of slots differ, and an event fires no slot but its
    // own.
    const isPlain = model.devices.every(
      ({ controller }) =>
        !controller ||
        (controller.powerUpSlot === undefined &&
          controller.facts.bankMove === 'silent' &&
          controller.facts.repeatPress === 'fires'),
    );
    const kept = before && isPlain && !model.mayFeedBack && before.model.devices === model.devices ? before : undefined;
    this.comparison = kept ? kept.comparison : new SoundComparison(model);
    this.threeValued = kept ? kept.threeValued : new ThreeValuedJudge(this.comparison);
    const used = new Set([
      ...Object.values(model.wiring.rig.casting).map((cast) => cast.slot),
      ...model.devices.flatMap((device) => device.controller?.powerUpSlot ?? []),
    ]);
    const serving =
      kept && kept.setAside.size === 0 && kept.mayNotSettle.length === 0 && kept.table.serves(model)
        ? kept.table
        : undefined;
    const trial = serving ?? new EventTable(model, none, kept?.table);
    this.setAside = serving ? none : unquietAndUnused(model, trial, used, limits);
    this.table = this.setAside.size === 0 ? trial : new EventTable(model, this.setAside);
    this.releasable = new Set(
      this.table.ordinary
        .filter((compiled) => compiled.event.kind === 'release')
        .flatMap((compiled) => [...compiled.summary.written]),
    );
    this.mayNotSettle = this.table.ordinary.filter(
      (compiled) => compiled.outcome !== 'settled' || (compiled.operations === null && model.mayFeedBack),
    );
    if (kept) this.takeOver(kept);
  }

  /** What was explored and judged before, as far as no changed slot leaves what it turned on otherwise than before. */
  private takeOver(kept: Prover): void {
    const touched = new Set<number>();
    for (const [index, now] of this.table.press) {
      const old = kept.table.press.get(index);
      if (old === now) continue;
      for (const variable of new Set([...now.summary.written, ...(old?.summary.written ?? [])]))
        if (!doesTheSame(old, now, variable)) touched.add(variable);
    }
    for (const { question } of kept.explorations.values())
      if (question.level !== 4)
        this.exploration(question.level, question.pins, question.stray).takeOver(
          kept.exploration(question.level, question.pins, question.stray),
          touched,
        );
    const alwaysQuiet = [this, kept].every((prover) => prover.setAside.size === 0 && prover.mayNotSettle.length === 0);
    if (alwaysQuiet && ![...kept.soundingBy].some((variable) => touched.has(variable)))
      this.takeOverJudgements(kept, touched);
  }

  /** Judgements whose slot and sound are the same, and that turned on nothing that is touched. */
  private takeOverJudgements(kept: Prover, touched: ReadonlySet<number>): void {
    const { sounds } = this.model.wiring.rig;
    this.earlier = kept.judged;
    for (const known of kept.judged) {
      const { slot, sound, judgement, dependsOn } = known;
      if (judgement.level !== 2 && judgement.level !== 3) continue;
      if (
        this.model.slots[slot.index] !== slot ||
        sounds[sound.id] !== sound ||
        dependsOn.some((variable) => touched.has(variable))
      )
        continue;
      this.judged.add(known);
    }
    for (const variable of kept.soundingBy) this.soundingBy.add(variable);
  }

  /** Slots that may never settles and that no part uses. */
  get excludedSlots(): readonly Slot[] {
    return this.model.slots.filter((slot) => this.setAside.has(slot.index)).map((slot) => slot.slot);
  }

  /** Machines explored so far: how many states, and whether several wanted variables had to be followed together. */
  spaceSizes(): readonly { readonly variables: number; readonly states: number; readonly joint: boolean }[] {
    return [...this.explorations.values()].flatMap((exploration) => [...exploration.sizes()]);
  }

  /** What is explored for a question. */
  private exploration(level: FreeLevel, pins: Pins = noPins, stray?: number): Exploration {
    const key = `${level}.${stray ?? ''}|${pinsKey(pins)}`;
    let exploration = this.explorations.get(key);
    if (!exploration)
      this.explorations.set(
        key,
        (exploration = new Exploration(
          this.table,
          { level, pins, limits: this.limits, ...(stray === undefined ? {} : { stray }) },
          this.consulted,
        )),
      );
    return exploration;
  }

  judge(slot: ModelSlot, sound: Sound, level: Level): Judgement {
    const known = this.judged.get(level, slot.index, sound.id);
    if (known) return known.judgement;
    if (level !== 1 && this.isPlain(slot, sound, level))
      return this.judgedTo(
        { slot: slot.slot.id, sound: sound.id, level, verdict: 'recalls', length: null, sequence: null },
        slot,
        sound,
        noVariables,
      );
    const { result, dependsOn } = this.consulted.track(() => this.computeJudgement(slot, sound, level));
    return this.judgedTo(result, slot, sound, dependsOn);
  }

  private judgedTo(found: Judgement, slot: ModelSlot, sound: Sound, dependsOn: readonly number[]): Judgement {
    const judgement = sameAsEarlier(this.earlier?.get(found.level, slot.index, sound.id)?.judgement, found);
    this.judged.add({ judgement, slot, sound, dependsOn });
    return judgement;
  }

  private computeJudgement(slot: ModelSlot, sound: Sound, level: Level): Judgement {
    const answer = this.overContents(
      level === 1 ? (pins) => proveInSetOrder(this, slot, sound, pins) : (pins) => this.free(slot, sound, level, pins),
    );
    const { verdict, length, sequence, gaveUp } = answer;
    return {
      slot: slot.slot.id,
      sound: sound.id,
      level,
      verdict,
      length,
      sequence,
      ...(gaveUp === undefined ? {} : { gaveUp }),
    };
  }

  /** Foot switches that nobody planned: what a stray foot may find. */
  get strays(): readonly { readonly device: string; readonly switch: string; readonly index: number }[] {
    return this.table.strays.flatMap(({ event, index }) =>
      event.kind === 'foot' ? [{ device: event.device.id, switch: event.footSwitch.id, index }] : [],
    );
  }

  /** Level 3 with this one stray switch alone: whether a press after it still brings the sound up right. */
  judgeAfterStray(stray: number, slot: ModelSlot, sound: Sound): Judgement['verdict'] {
    return this.overContents((pins) => this.free(slot, sound, 3, pins, stray)).verdict;
  }

  /** Every (slot, sound) of the rig at a level, in document order. */
  all(level: Level): Judgement[] {
    return this.pairs().map(({ slot, sound }) => this.judge(slot, sound, level));
  }

  private slotsWithSounds: readonly { readonly slot: ModelSlot; readonly sound: Sound }[] | undefined;

  pairs(): readonly { readonly slot: ModelSlot; readonly sound: Sound }[] {
    return (this.slotsWithSounds ??= this.findPairs());
  }

  private findPairs(): { readonly slot: ModelSlot; readonly sound: Sound }[] {
    const { sounds } = this.model.wiring.rig;
    const pairs: { readonly slot: ModelSlot; readonly sound: Sound }[] = [];
    for (const slot of this.model.slots) {
      const sound: Sound | undefined = slot.slot.sound === null ? undefined : sounds[slot.slot.sound];
      if (sound) pairs.push({ slot, sound });
    }
    return pairs;
  }

  private orderBeats: unknown;
  private readonly orderRuns = new Map<string, OrderRun>();

  /** The happenings of set order, worked out once. */
  setEvents<T>(make: () => T): T {
    this.orderBeats ??= make();
    return this.orderBeats as T;
  }

  inOrder(variables: readonly number[], at: number, pins: Pins, make: () => OrderRun): OrderRun {
    const key = `${at}|${pinsKey(pins)}|${variables.join(',')}`;
    let known = this.orderRuns.get(key);
    if (!known) this.orderRuns.set(key, (known = make()));
    return known;
  }

  targetOf(sound: Sound): SoundTarget {
    let target = this.target.get(sound.id);
    if (!target) this.target.set(sound.id, (target = this.comparison.resolveTarget(sound)));
    return target;
  }

  /** Splits an undecided answer over the contents that it turns on; what fails for each of them does not recall. */
  private overContents(ask: (pins: Pins) => Answer): Answer {
    let budget = this.limits.contents;
    const split = (pins: Pins): Answer => {
      budget -= 1;
      let answer: Answer;
      try {
        answer = ask(pins);
      } catch (reason) {
        if (!(reason instanceof NeedPin)) throw reason;
        answer = { verdict: 'cannot-be-known', length: null, sequence: null, symbols: [reason.symbol] };
      }
      const symbol = answer.symbols.find((one) => !pins.has(one.id));
      if (answer.verdict !== 'cannot-be-known' || !symbol || budget < symbol.options.length) return answer;
      const answers: Answer[] = [];
      for (const [i] of symbol.options.entries()) {
        answers.push(split(new Map([...pins, [symbol.id, i]])));
        if (answer.length !== null && isMixed(answers)) return answer;
      }
      return combine(answers, answer);
    };
    return split(new Map());
  }

  private free(slot: ModelSlot, sound: Sound, level: FreeLevel, pins: Pins, stray?: number): Answer {
    const exploration = this.exploration(level, pins, stray);
    return worst([
      ...this.withinLimits(() => this.unquietAnswers(slot, exploration)),
      ...this.withinLimits(() => [this.stateAnswer(slot, sound, exploration)]),
    ]);
  }

  /** Past the limits nothing is known, whatever was asked. */
  private withinLimits(ask: () => readonly Answer[]): readonly Answer[] {
    try {
      return ask();
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      return [
        {
          verdict: 'cannot-be-known',
          length: null,
          sequence: null,
          symbols: [],
          gaveUp: `more than ${this.limits.states} states or ${this.limits.steps} steps`,
        },
      ];
    }
  }

  // ---- quiet ----

  /** What presses that do not settles mean for a slot: its own, and those that may come before it. */
  private unquietAnswers(slot: ModelSlot, exploration: Exploration): Answer[] {
    const { mayNotSettle } = this;
    if (mayNotSettle.length === 0 && !this.isSuspect(slot)) return [];
    const answers = this.unquietStart(slot, exploration);
    for (const compiled of mayNotSettle) {
      const found = this.settlingSpace(compiled, exploration);
      for (const unsettled of found.unsettled) {
        const own =
          unsettled.whole &&
          unsettled.compiled.event.kind === 'press' &&
          unsettled.compiled.event.slot.index === slot.index;
        const way = pathTo(this.model, found.stepper, unsettled.from);
        const depth = unsettled.from.depth + 1;
        if (own)
          answers.push({
            verdict: unsettled.outcome === 'never-settles' ? 'does-not' : 'cannot-be-known',
            length: depth,
            sequence: { ...way, steps: [...way.steps, { kind: 'press', slot: slot.slot.id, never: true }] },
            symbols: [],
          });
        const then = depth + this.movesAfter(unsettled.compiled, slot) + 1;
        answers.push({
          verdict: 'cannot-be-known',
          length: then,
          sequence: null,
          symbols: [],
          gaveUp: 'a press before it may never settle',
        });
      }
    }
    if (this.setAside.has(slot.index)) answers.push(this.ownUnquiet(slot, exploration));
    return answers;
  }

  /** Power-up may fire a slot that never settles: nothing after it is known. */
  private unquietStart(slot: ModelSlot, exploration: Exploration): Answer[] {
    for (const device of this.model.devices) {
      const fired =
        device.controller?.powerUpSlot === undefined ? undefined : this.model.slot.get(device.controller.powerUpSlot);
      const compiled = fired && this.table.press.get(fired.index);
      if (compiled && this.settlingSpace(compiled, exploration).startsUnquiet)
        return [
          {
            verdict: 'cannot-be-known',
            length: this.movesAfter(compiled, slot) + 1,
            sequence: null,
            symbols: [],
            gaveUp: 'power-up may never settle',
          },
        ];
    }
    return [];
  }

  private isSuspect = (slot: ModelSlot): boolean => this.setAside.has(slot.index);

  private ownUnquiet(slot: ModelSlot, exploration: Exploration): Answer {
    const compiled = this.table.press.get(slot.index)!;
    const space = this.settlingSpace(compiled, exploration);
    const first = space.unsettled.find((one) => one.compiled === compiled && one.whole);
    if (!first) return recallsAnswer;
    return {
      verdict: first.outcome === 'never-settles' ? 'does-not' : 'cannot-be-known',
      length: first.from.depth + 1,
      sequence: null,
      symbols: [],
    };
  }

  private settlingSpace(compiled: CompiledEvent, exploration: Exploration): StateSpace {
    return exploration.settlingSpace(
      compiled,
      this.banksFor(compiled.event.kind === 'press' ? [compiled.event.slot.slot.controller] : []),
    );
  }

  private movesAfter(before: CompiledEvent, slot: ModelSlot): number {
    const { facts } = this.model.device.get(slot.slot.controller)!.controller!;
    const from =
      before.event.kind === 'press' && before.event.slot.slot.controller === slot.slot.controller
        ? before.event.slot.slot.bank
        : 0;
    return bankDistance(facts.banks, from, slot.slot.bank);
  }

  // ---- state ----

  /**
   * The ordinary case, told at a glance: nothing comes back unsettled, and the press leaves all that is wanted as it is
   * wanted.
   */
  private isPlain(slot: ModelSlot, sound: Sound, level: FreeLevel): boolean {
    if (this.mayNotSettle.length > 0 || this.isSuspect(slot)) return false;
    try {
      const target = this.targetOf(sound);
      return this.isSettled(slot, target, this.exploration(level));
    } catch (reason) {
      if (reason instanceof NeedPin || reason instanceof TooManyStates) return false;
      throw reason;
    }
  }

  private isSettled(slot: ModelSlot, target: SoundTarget, exploration: Exploration): boolean {
    return (
      this.nextUnsettled(slot, target, 0) < 0 &&
      target.cues.size === 0 &&
      this.isPlayable(slot) &&
      (target.sound.silence || this.alwaysSounds(exploration))
    );
  }

  private stateAnswer(slot: ModelSlot, sound: Sound, exploration: Exploration): Answer {
    const target = this.targetOf(sound);
    if (this.isSettled(slot, target, exploration)) return recallsAnswer;
    const press = this.table.press.get(slot.index)!;
    const after = this.after(press, exploration);
    const stays = (variable: number): number => {
      const value = after.left(variable);
      return target.cues.has(variable) || (target.has(variable) && target.wants(variable) !== value) ? -1 : value;
    };
    const one: Case = { slot, press, target, exploration, after, stays, statuses: new Map() };
    return this.decide(one);
  }

  /**
   * From this place on, the place of the next want that the press does not, whatever came before, leave as wanted; −1
   * where there is none.
   */
  private nextUnsettled(slot: ModelSlot, { variables, wanted, cues }: SoundTarget, from: number): number {
    const { summary } = this.table.press.get(slot.index)!;
    const mayBeReleased = this.releasable.size > 0;
    for (let i = from; i < variables.length; i += 1) {
      const variable = variables[i];
      if (summary.leaves(variable) === wanted[i] && !(mayBeReleased && this.releasable.has(variable))) continue;
      if (cues.size === 0 || !cues.has(variable)) return i;
    }
    return -1;
  }

  /** Silent bank moves make every slot pressable. */
  private isPlayable = (slot: ModelSlot): boolean =>
    this.model.device.get(slot.slot.controller)!.controller!.facts.bankMove === 'silent';

  /** Whether the line sounds in every state of this level, whatever the sound. */
  private alwaysSounds(exploration: Exploration): boolean {
    let sounds = this.sounding.get(exploration);
    if (sounds === undefined) {
      const { result, dependsOn } = this.consulted.track(() => this.soundsThroughout(exploration));
      for (const variable of dependsOn) this.soundingBy.add(variable);
      this.sounding.set(exploration, (sounds = result));
    }
    return sounds;
  }

  private soundsThroughout(exploration: Exploration): boolean {
    if (this.threeValued.surelySounds(() => null)) return true;
    const cutting = new Set(this.threeValued.mayCut(nothingWanted, () => null));
    return this.threeValued.surelySounds((variable) =>
      cutting.has(variable) ? exploration.reachable(variable) : null,
    );
  }

  private after(press: CompiledEvent, exploration: Exploration): PostPressRanges {
    return new PostPressRanges(press, exploration, this.threeValued, this.releasable);
  }

  /**
   * Wanted variable by wanted variable first: what may come up otherwise than wanted and be heard. For each of
   * those, with its pedal's loop and switch, whether some combination is wrong whatever the rest of the rig does;
   * only where that stays open are they explored jointly.
   */
  private decide(one: Case): Answer {
    const heard: number[] = [];
    const moving = this.mayMove(one);
    const audible = () => this.threeValued.audible(one.target, moving, one.after.fromPress());
    // One alone is soon tried; of many, those that cannot be heard are left out first.
    const isAlone = moving.length === 1;
    for (const variable of isAlone ? moving : this.likeliestFirst(one, audible())) {
      if (this.staysAsWanted(one, variable)) continue;
      const atOnce = this.wrongAtOnce(one, variable);
      if (atOnce) return atOnce;
      if (isAlone && audible().length === 0) continue;
      if (this.mayBeHeard(one, variable)) heard.push(variable);
    }
    const groups = [...heard.map((variable) => this.groupOf(one, variable)), ...this.silence(one)];
    if (groups.length === 0) return this.isPlayable(one.slot) ? recallsAnswer : this.jointly(one, []);
    const scans = groups.map((group) => this.scan(one, group));
    if (scans.some((scan) => scan.wrong !== null)) return this.shortest(one, groups, scans);
    const open = groups.filter((_, i) => scans[i].open !== null);
    return open.length === 0 && this.isPlayable(one.slot)
      ? recallsAnswer
      : this.jointly(one, [...new Set(open.flat())]);
  }

  /** Whether it is known already that a variable is as wanted after the press, whatever came before it. */
  private staysAsWanted(one: Case, variable: number): boolean {
    const values = one.after.known(variable);
    return values?.length === 1 && values[0] === one.target.wants(variable);
  }

  /**
   * Wants that the press may not leave as wanted, but for what nothing can move from there (a pedal that nobody steps
   * on), and what lies in a loop that is out.
   */
  private mayMove(one: Case): number[] {
    const { exploration, target, slot } = one;
    const moving: number[] = [];
    for (let i = this.nextUnsettled(slot, target, 0); i >= 0; i = this.nextUnsettled(slot, target, i + 1)) {
      const variable = target.variables[i];
      if (exploration.restsOn(variable) !== target.wanted[i] && !this.isMuted(one, variable)) moving.push(variable);
    }
    return moving;
  }

  /**
   * Whether nothing of a variable is heard after the press, nor where the wants are target over: what it is heard in is
   * shut, or lies in a loop that is out.
   */
  private isMuted(one: Case, variable: number): boolean {
    const loop = this.threeValued.loopAround(variable);
    return (
      (loop >= 0 && one.stays(loop) === this.model.values.id(0) && this.threeValued.isMutedByItsLoop(variable)) ||
      this.threeValued.isBlocked(variable, one.stays)
    );
  }

  /** What is wanted on is soonest certain to be missed: tried first. */
  private likeliestFirst(one: Case, variables: readonly number[]): readonly number[] {
    const on = this.model.values.id(1);
    return variables.length < 2
      ? variables
      : [
          ...variables.filter((variable) => one.target.wants(variable) === on),
          ...variables.filter((variable) => one.target.wants(variable) !== on),
        ];
  }

  /** Wrong from power-up by bank moves and the press alone: nothing can be shorter. */
  private wrongAtOnce(one: Case, variable: number): Answer | null {
    if (!this.movesOnlyBanks()) return null;
    const tried = new Set<number>();
    const found = one.exploration.search(
      [variable],
      (space, from): Found | undefined => {
        const others = this.othersAfter(one, variable, space, from, tried);
        return others.length > 0 &&
          others.some((value) => this.status(one, new Map([[variable, value]]), 'near') === 'wrong')
          ? { space, from }
          : undefined;
      },
      'power-up',
    );
    return found ? this.routed(one, found) : null;
  }

  /** Whether a value that this variable may come up with, other than the wanted one, may be heard. */
  private mayBeHeard(one: Case, variable: number): boolean {
    const wanted = one.target.wants(variable);
    return one.after.some(
      variable,
      (value) => value !== wanted && this.status(one, new Map([[variable, value]]), 'near') !== 'harmless',
    );
  }

  /** Values other than the wanted one that the press leaves a variable on from a row, and that were not tried yet. */
  private othersAfter(
    one: Case,
    variable: number,
    space: StateSpace,
    from: Reached,
    tried: Set<number>,
  ): readonly number[] {
    const wanted = one.target.wants(variable);
    const value = one.exploration.valueAfter(space, one.press, from, variable);
    if (value !== undefined) {
      if (value === wanted || tried.has(value)) return noVariables;
      tried.add(value);
      return [value];
    }
    const others = new Set(
      one.exploration.postRows(space, one.press, from).map((row) => row[space.stepper.place[variable]]),
    );
    return [...others].filter((other) => {
      if (other === wanted || tried.has(other)) return false;
      tried.add(other);
      return true;
    });
  }

  /** From the press alone (`known`), then with what the variables nearby may be, last with what all of them may be. */
  private status(one: Case, at: ReadonlyMap<number, number>, how: 'known' | 'near' | 'all'): Status {
    const key = `${how}|${[...at].map(([variable, value]) => `${variable}${this.threeValued.classOf(one.target, variable, value)}`).join('|')}`;
    let status = one.statuses.get(key);
    if (!status) one.statuses.set(key, (status = this.computeStatus(one, at, how)));
    return status;
  }

  private computeStatus(one: Case, at: ReadonlyMap<number, number>, how: 'known' | 'near' | 'all'): Status {
    const { target, after, exploration } = one;
    const { pins } = exploration.question;
    if (how === 'known') return this.threeValued.status(target, at, after.fromPress(), pins);
    const nearby = new Set([...at.keys()].flatMap((variable) => this.threeValued.relatedControls(variable)));
    // Less is known before, so that a status settled there is settled here; asked where knowing more has its price.
    const isDear = (variable: number) =>
      after.left(variable) < 0 && exploration.mayWrite(variable) && !exploration.isKnown(variable);
    if (how === 'all' || [...nearby].some(isDear)) {
      const before = this.status(one, at, how === 'all' ? 'near' : 'known');
      if (before !== 'open') return before;
    }
    return this.threeValued.status(
      target,
      at,
      how === 'all'
        ? after.fromAll()
        : this.threeValued.groundWith(after.fromPress(), nearby, (variable) => after.all(variable)),
      pins,
    );
  }

  /**
   * A variable with what decides whether it is heard: the switches and the loop of its device, the switches in its
   * loop.
   */
  private groupOf(one: Case, variable: number): readonly number[] {
    const related = this.threeValued
      .relatedControls(variable)
      .filter((other) => !one.target.cues.has(other) && one.after.left(other) < 0);
    return [...new Set([variable, ...related])];
  }

  /** Where the line may fall silent: the controls that may cut it, as one group. */
  private silence(one: Case): (readonly number[])[] {
    const { target, after } = one;
    if (target.sound.silence || (target.cues.size === 0 && this.alwaysSounds(one.exploration))) return [];
    const now: Possible = (variable) => {
      const cues = target.cues.get(variable);
      return cues === undefined ? after.all(variable) : [cues];
    };
    if (this.threeValued.surelySounds(now)) return [];
    return [this.threeValued.mayCut(target, now)];
  }

  /** First depths at which a group of variables, after the press, is certainly wrong, or not certainly harmless. */
  private scan(one: Case, group: readonly number[], banks: readonly number[] = [], before = Infinity): Scan {
    if (group.length > 1) one.exploration.noteJoint([...group, ...banks]);
    const isSilence = group.every((variable) => !one.target.has(variable));
    const statuses = new Map<string | number, Status>();
    const statusAt = ({ stepper: { place } }: StateSpace, row: Row): Status => {
      const key = group.length === 1 ? row[place[group[0]]] : group.map((variable) => row[place[variable]]).join(',');
      let status = statuses.get(key);
      if (status) return status;
      const at = new Map(group.map((variable) => [variable, row[place[variable]]]));
      status = this.status(one, at, 'all');
      if (status === 'harmless' && isSilence && !this.soundsWith(one, at)) status = 'open';
      statuses.set(key, status);
      return status;
    };
    let open: number | null = null;
    const wrong = one.exploration.search([...group, ...banks], (space, from): Found | 'stop' | undefined => {
      if (from.depth + 1 >= before) return 'stop';
      if (from === space.reached[0]) open = null;
      for (const row of one.exploration.postRows(space, one.press, from)) {
        const status = statusAt(space, row);
        if (status === 'wrong') return { space, from };
        if (status === 'open') open ??= from.depth + 1;
      }
      return undefined;
    });
    return { wrong: wrong === 'stop' || wrong === undefined ? null : wrong, open };
  }

  private soundsWith(one: Case, at: ReadonlyMap<number, number>): boolean {
    return this.threeValued.surelySounds((variable) => {
      const cues = one.target.cues.get(variable);
      if (cues !== undefined) return [cues];
      const here = at.get(variable);
      return here === undefined ? one.after.all(variable) : [here];
    });
  }

  /** Of groups some of which certainly go wrong: the shortest sequence, bank moves counted. */
  private shortest(one: Case, groups: readonly (readonly number[])[], scans: readonly Scan[]): Answer {
    const moves = this.movesOnlyBanks()
      ? bankDistance(this.model.device.get(one.slot.slot.controller)!.controller!.facts.banks, 0, one.slot.slot.bank)
      : 0;
    /** No sequence that goes wrong by this group is shorter. */
    const least = scans.map(
      (scan) => moves + Math.min(scan.open ?? Infinity, scan.wrong ? scan.wrong.from.depth + 1 : Infinity),
    );
    const order = groups.map((_, i) => i).sort((a, b) => least[a] - least[b] || a - b);
    let best: Answer = { verdict: 'does-not', length: null, sequence: null, symbols: [] };
    const bound = () => best.length ?? Infinity;
    if (this.movesOnlyBanks())
      for (const i of order)
        if (scans[i].wrong && least[i] < bound()) best = shorter(best, this.routed(one, scans[i].wrong!));
    let open = Infinity;
    for (const i of order) {
      if (least[i] >= bound()) break;
      const scan = this.scan(one, groups[i], this.banksAround(one, groups[i]), bound());
      open = Math.min(open, scan.open ?? Infinity);
      if (scan.wrong) best = shorter(best, this.told(one, scan.wrong, 'does-not'));
    }
    if (open >= bound()) return best;
    try {
      const joint = this.jointSequence(one, [...new Set(groups.flat())]);
      return joint && joint.verdict === 'does-not' ? joint : best;
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      return { ...best, gaveUp: 'a shorter sequence could not be ruled out' };
    }
  }

  /** Whether a bank move does nothing but move the bank, and a press puts it where its slot is. */
  private movesOnlyBanks(): boolean {
    const { mayFeedBack, devices } = this.model;
    return (
      !mayFeedBack &&
      devices.every(
        ({ controller }) =>
          !controller ||
          (controller.powerUpSlot === undefined &&
            controller.facts.bankMove === 'silent' &&
            controller.facts.repeatPress !== 'alternates'),
      )
    );
  }

  /** A way found without banks, with the bank moves that it takes. */
  private routed(one: Case, { space, from }: Found): Answer {
    const route = cheapestRoute(this.model, from, one.slot, (compiled) => space.equivalents(compiled));
    const way = pathTo(this.model, space.stepper, from);
    const steps = way.steps.flatMap((step, i): SequenceStep[] => {
      const { moves, slot } = route.legs[i];
      return [...moves, step.kind === 'press' && slot ? { ...step, slot: slot.slot.id } : step];
    });
    return {
      verdict: 'does-not',
      length: route.length,
      sequence: { ...way, steps: [...steps, ...route.last, { kind: 'press', slot: one.slot.slot.id }] },
      symbols: [],
    };
  }

  private told(one: Case, { space, from }: Found, verdict: Answer['verdict']): Answer {
    const way = pathTo(this.model, space.stepper, from);
    return {
      verdict,
      length: from.depth + 1,
      sequence: { ...way, steps: [...way.steps, { kind: 'press', slot: one.slot.slot.id }] },
      symbols: [],
    };
  }

  /** Explores the given variables together, with whatever the comparison turns out to read. */
  private jointly(one: Case, variables: readonly number[]): Answer {
    if (variables.length > 1) one.exploration.noteJoint(variables);
    const symbols: ContentSymbol[] = [];
    let undecided = false;
    let any = false;
    const wrong = one.exploration.search(variables, (space, from) => {
      if (from === space.reached[0]) {
        undecided = false;
        symbols.length = 0;
      }
      for (const row of one.exploration.postRows(space, one.press, from)) {
        any = true;
        const heard = this.heardAt(one, space, row);
        if (heard.is === 'wrong') return true;
        if (heard.is === 'right') continue;
        undecided = true;
        symbols.push(...heard.symbols);
      }
      return undefined;
    });
    if (!any) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
    if (!wrong && !undecided) return recallsAnswer;
    const answer: Answer = { verdict: wrong ? 'does-not' : 'cannot-be-known', length: null, sequence: null, symbols };
    try {
      return this.jointSequence(one, variables, answer) ?? answer;
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      return { ...answer, gaveUp: 'the sequence could not be followed' };
    }
  }

  /**
   * A combination that is certain from these variables alone (they hold all that may differ and be heard), else the
   * whole comparison.
   */
  private heardAt(one: Case, space: StateSpace, row: Row): ReturnType<SoundComparison['judge']> {
    const { place } = space.stepper;
    const at = new Map(space.variables.map((variable) => [variable, row[place[variable]]]));
    const status = this.status(one, at, 'known');
    if (status === 'wrong') return { is: 'wrong', silent: false };
    if (status === 'harmless' && (one.target.sound.silence || this.soundsWith(one, at))) return { is: 'right' };
    const read = (variable: number): number => {
      if (place[variable] >= 0) return row[place[variable]];
      const values = one.after.all(variable);
      if (values.length === 1) return values[0];
      throw new NeedVariable(variable);
    };
    return this.comparison.judge(read, one.target, { obey: true, pins: one.exploration.question.pins });
  }

  /**
   * The same variables with the banks of the controllers concerned: the first row, breadth first, from which the press
   * goes wrong.
   */
  private jointSequence(one: Case, variables: readonly number[], otherwise: Answer | null = null): Answer | null {
    let undecided: Answer | null = null;
    const found = one.exploration.search([...variables, ...this.banksAround(one, variables)], (space, from) => {
      if (from === space.reached[0]) undecided = null;
      for (const row of one.exploration.postRows(space, one.press, from)) {
        const heard = this.heardAt(one, space, row);
        if (heard.is === 'wrong') return this.told(one, { space, from }, 'does-not');
        if (heard.is === 'unknown') undecided ??= this.told(one, { space, from }, 'cannot-be-known');
      }
      return undefined;
    });
    return found ?? (undecided && otherwise ? { ...(undecided as Answer), symbols: otherwise.symbols } : otherwise);
  }

  /** Banks of the controllers whose presses can change these variables, and of the slot's own. */
  private banksAround(one: Case, variables: readonly number[]): number[] {
    const concerned = one.exploration.concerning(variables);
    const controllers = concerned.flatMap((compiled) =>
      compiled.event.kind === 'press' ? [compiled.event.slot.slot.controller] : [],
    );
    return this.banksFor([one.slot.slot.controller, ...controllers]);
  }

  /** Bank variables of controllers whose bank moves cost a press. */
  private banksFor(controllers: readonly string[]): number[] {
    return [...new Set(controllers)].flatMap((id) => {
      const controller = this.model.device.get(id)?.controller;
      return controller && controller.facts.banks > 1 ? [controller.bank] : [];
    });
  }
}

const shorter = (best: Answer, other: Answer): Answer =>
  (other.length ?? Infinity) < (best.length ?? Infinity) ? other : best;

/** One judged (slot, sound) with what the press leaves behind. */
interface Case {
  readonly slot: ModelSlot;
  readonly press: CompiledEvent;
  readonly target: SoundTarget;
  readonly exploration: Exploration;
  readonly after: PostPressRanges;
  /** The value that the press leaves a variable on, where the sound wants no other; else negative. */
  readonly stays: (variable: number) => number;
  /** Statuses worked out so far, by what tells combinations apart. */
  readonly statuses: Map<string, Status>;
}

const sameAsEarlier = (earlier: Judgement | undefined, judgement: Judgement): Judgement =>
  earlier &&
  earlier.verdict === judgement.verdict &&
  earlier.length === judgement.length &&
  JSON.stringify(earlier) === JSON.stringify(judgement)
    ? earlier
    : judgement;

interface Found {
  readonly space: StateSpace;
  readonly from: Reached;
}

interface Scan {
  readonly wrong: Found | null;
  /** Length of the first sequence that is not certainly harmless though not certainly wrong. */
  readonly open: number | null;
}

const none: ReadonlySet<never> = new Set();
const noVariables: readonly number[] = [];
const noPins: Pins = new Map();
const nothingWanted: Pick<SoundTarget, 'has'> = { has: () => false };
const sorted = (variables: Iterable<number>): number[] => [...variables].sort((a, b) => a - b);

const pinsKey = (pins: Pins): string =>
  pins.size === 0 ? '' : [...pins].map(([symbol, option]) => `${symbol}=${option}`).join('&');

function unquietAndUnused(
  model: StateModel,
  table: EventTable,
  used: ReadonlySet<string>,
  limits: Limits,
): ReadonlySet<number> {
  const aside = new Set<number>();
  for (const compiled of table.ordinary) {
    if (compiled.event.kind !== 'press' || used.has(compiled.event.slot.slot.id)) continue;
    if (compiled.outcome === 'never-settles') aside.add(compiled.event.slot.index);
    else if (compiled.operations === null && model.mayFeedBack) {
      try {
        const variables = new Set<number>();
        const space = widening(variables, () =>
          new StateSpace(table, sorted(variables), { level: 4, pins: new Map(), limits, also: [compiled] }).complete(),
        );
        if (space.unsettled.some((one) => one.compiled === compiled && one.outcome === 'never-settles'))
          aside.add(compiled.event.slot.index);
      } catch (reason) {
        if (!(reason instanceof TooManyStates) && !(reason instanceof NeedPin)) throw reason;
      }
    }
  }
  return aside;
}
