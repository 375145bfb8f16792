import type { Slot, Sound } from '../model/documents.ts';
import { type CompiledEvent, defaultLimits, EventTable, explore, type FreeLevel, type Limits, type Machine, type Question, type Reached, type Row, rowKey, TooManyStates } from './machine.ts';
import { Hearing, type Laid } from './hearing.ts';
import type { Plant, PlantSlot } from './plant.ts';
import { type OrderRun, proveInSetOrder } from './set-order.ts';
import { type ContentSymbol, NeedPin, type Pins } from './values.ts';
import { type Answer, bankDistance, combine, type Judgement, isMixed, type Level, recallsAnswer, worst } from './answer.ts';
import { stonesTo } from './sequence.ts';
import { NeedVariable } from './store.ts';

/** The proof of a rig: built once a revision, asked for any slot and level. */
export class Prover {
  readonly hearing: Hearing;
  readonly table: EventTable;
  private readonly setAside: ReadonlySet<number>;
  private readonly machines = new Map<string, Machine | null>();
  private readonly jointKeys = new Set<string>();
  private readonly laid = new Map<string, Laid>();
  private readonly posts = new Map<string, readonly number[]>();
  private readonly releasable: ReadonlySet<number>;

  constructor(
    readonly plant: Plant,
    readonly partsInOrder: readonly string[],
    readonly limits: Limits = defaultLimits,
  ) {
    this.hearing = new Hearing(plant);
    const used = new Set(Object.values(plant.wiring.rig.casting).map((cast) => cast.slot));
    const trial = new EventTable(plant, new Set());
    this.setAside = unquietAndUnused(plant, trial, used, limits);
    this.table = this.setAside.size === 0 ? trial : new EventTable(plant, this.setAside);
    this.releasable = new Set(this.table.ordinary.filter((compiled) => compiled.event.kind === 'release').flatMap((compiled) => [...compiled.touches]));
  }

  /** Slots that may never fall quiet and that no part uses. */
  get slotsSetAside(): readonly Slot[] {
    return this.plant.slots.filter((slot) => this.setAside.has(slot.index)).map((slot) => slot.slot);
  }

  /** Machines explored so far: how many states, and whether several wanted variables had to be followed together. */
  machineSizes(): readonly { readonly variables: number; readonly states: number; readonly joint: boolean }[] {
    return [...this.machines].flatMap(([key, machine]) =>
      machine ? [{ variables: machine.stepper.variables.length, states: machine.reached.length, joint: this.jointKeys.has(key) }] : [],
    );
  }

  judge(slot: PlantSlot, sound: Sound, level: Level): Judgement {
    const answer = this.overContents(level === 1 ? (pins) => proveInSetOrder(this, slot, sound, pins) : (pins) => this.free(slot, sound, level, pins));
    const { verdict, length, sequence, gaveUp } = answer;
    return { slot: slot.slot.id, sound: sound.id, level, verdict, length, sequence, ...(gaveUp === undefined ? {} : { gaveUp }) };
  }

  /** Every (slot, sound) of the rig at a level, in document order. */
  all(level: Level): Judgement[] {
    return this.pairs().map(({ slot, sound }) => this.judge(slot, sound, level));
  }

  pairs(): readonly { readonly slot: PlantSlot; readonly sound: Sound }[] {
    const { sounds } = this.plant.wiring.rig;
    return this.plant.slots.flatMap((slot) => {
      const sound = slot.slot.sound === null ? undefined : sounds[slot.slot.sound];
      return sound ? [{ slot, sound }] : [];
    });
  }

  private orderBeats: unknown;
  private readonly orderRuns = new Map<string, OrderRun>();

  /** The happenings of set order, worked out once. */
  beats<T>(make: () => T): T {
    this.orderBeats ??= make();
    return this.orderBeats as T;
  }

  inOrder(variables: readonly number[], at: number, pins: Pins, make: () => OrderRun): OrderRun {
    const key = `${at}|${pinsKey(pins)}|${variables.join(',')}`;
    let known = this.orderRuns.get(key);
    if (!known) this.orderRuns.set(key, (known = make()));
    return known;
  }

  layOf(sound: Sound): Laid {
    let laid = this.laid.get(sound.id);
    if (!laid) this.laid.set(sound.id, (laid = this.hearing.lay(sound)));
    return laid;
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

  private free(slot: PlantSlot, sound: Sound, level: FreeLevel, pins: Pins): Answer {
    const question: Question = { level, pins, limits: this.limits };
    const quick = this.unquietAnswers(slot, question);
    const state = this.stateAnswer(slot, sound, question);
    return worst([...quick, state]);
  }

  // ---- quiet ----

  /** What presses that do not fall quiet mean for a slot: its own, and those that may come before it. */
  private unquietAnswers(slot: PlantSlot, question: Question): Answer[] {
    const suspects = this.suspects();
    if (suspects.length === 0 && !this.isSuspect(slot)) return [];
    const answers: Answer[] = [];
    for (const compiled of suspects) {
      const found = this.quietMachine(compiled, question);
      for (const unquiet of found.unquiet) {
        const own = unquiet.compiled.event.kind === 'press' && unquiet.compiled.event.slot.index === slot.index;
        const stones = [...stonesTo(this.plant, found.stepper, unquiet.from).stones];
        const depth = unquiet.from.depth + 1;
        if (own) answers.push({ verdict: unquiet.outcome === 'never-quiet' ? 'does-not' : 'cannot-be-known', length: depth, sequence: { needs: [], stones: [...stones, { kind: 'press', slot: slot.slot.id, never: true }] }, symbols: [] });
        const then = depth + this.movesAfter(unquiet.compiled, slot) + 1;
        answers.push({ verdict: 'cannot-be-known', length: then, sequence: null, symbols: [], gaveUp: 'a press before it may never fall quiet' });
      }
    }
    if (this.setAside.has(slot.index)) answers.push(this.ownUnquiet(slot, question));
    return answers;
  }

  private suspects(): readonly CompiledEvent[] {
    return this.table.ordinary.filter((compiled) => compiled.outcome !== 'quiet' || (compiled.operations === null && mayFeedBack(this.plant)));
  }

  private isSuspect = (slot: PlantSlot): boolean => this.setAside.has(slot.index);

  private ownUnquiet(slot: PlantSlot, question: Question): Answer {
    const compiled = this.table.press.get(slot.index)!;
    const machine = this.quietMachine(compiled, question);
    const first = machine.unquiet.find((one) => one.compiled === compiled);
    if (!first) return recallsAnswer;
    return { verdict: first.outcome === 'never-quiet' ? 'does-not' : 'cannot-be-known', length: first.from.depth + 1, sequence: null, symbols: [] };
  }

  private quietMachine(compiled: CompiledEvent, question: Question): Machine {
    const key = `quiet|${compiled.index}|${question.level}|${pinsKey(question.pins)}`;
    let machine = this.machines.get(key);
    if (!machine) {
      machine = explore(this.table, this.banksFor(compiled.event.kind === 'press' ? [compiled.event.slot.slot.controller] : []), { ...question, also: [compiled] });
      this.machines.set(key, machine);
    }
    return machine;
  }

  private movesAfter(before: CompiledEvent, slot: PlantSlot): number {
    const { facts } = this.plant.device.get(slot.slot.controller)!.controller!;
    const from = before.event.kind === 'press' && before.event.slot.slot.controller === slot.slot.controller ? before.event.slot.slot.bank : 0;
    return bankDistance(facts.banks, from, slot.slot.bank);
  }

  // ---- state ----

  private stateAnswer(slot: PlantSlot, sound: Sound, question: Question): Answer {
    const laid = this.layOf(sound);
    try {
      const { variables, answer } = this.decide(slot, laid, question);
      if (answer.verdict === 'recalls' || answer.verdict === 'not-played') return answer;
      return this.withSequence(slot, laid, question, variables, answer);
    } catch (reason) {
      if (!(reason instanceof TooManyStates)) throw reason;
      return { verdict: 'cannot-be-known', length: null, sequence: null, symbols: [], gaveUp: `more than ${this.limits.states} states` };
    }
  }

  /**
   * First machine by machine: where every wanted variable that may be heard is left as wanted whatever came
   * before, the slot recalls. Else the variables that may differ are explored jointly, with whatever else the
   * comparison turns out to read.
   */
  private decide(slot: PlantSlot, laid: Laid, question: Question): { variables: readonly number[]; answer: Answer } {
    const possible = (variable: number): readonly number[] => this.postsOf(variable, slot, question);
    const differing = this.mayDiffer(laid, possible);
    const variables = new Set(differing);
    const fixed = (variable: number): number => {
      const values = possible(variable);
      if (values.length === 1) return values[0];
      throw new NeedVariable(variable);
    };
    if (differing.length > 1) this.jointKeys.add(machineKey(question, differing));
    const answer = this.widening(variables, question, (machine) => this.judgeRows(slot, laid, question, machine, fixed));
    return { variables: [...variables], answer };
  }

  /** Reads a variable that has but one value after the press; another must be followed jointly. */
  private fixedAfter(slot: PlantSlot, question: Question): (variable: number) => number {
    return (variable) => {
      const values = this.postsOf(variable, slot, question);
      if (values.length === 1) return values[0];
      throw new NeedVariable(variable);
    };
  }

  /** Asks a machine, taking in every further variable that the answer turns out to read. */
  private widening<T>(variables: Set<number>, question: Question, ask: (machine: Machine) => T): T {
    for (;;) {
      try {
        return ask(this.machine([...variables], question));
      } catch (reason) {
        if (!(reason instanceof NeedVariable)) throw reason;
        variables.add(reason.variable);
      }
    }
  }

  /** Wanted variables that may come up otherwise than wanted, on edges that may be live. */
  private mayDiffer(laid: Laid, possible: (variable: number) => readonly number[]): number[] {
    const differing = [...laid.values].filter(([variable, wanted]) => {
      if (laid.obeyed.has(variable)) return false;
      const values = possible(variable);
      return values.length !== 1 || values[0] !== wanted;
    });
    if (differing.length === 0) return [];
    const live = this.hearing.mayBeLive((variable) => {
      const wanted = laid.values.get(variable);
      const obeyed = laid.obeyed.get(variable);
      if (obeyed !== undefined) return [obeyed];
      return wanted === undefined ? possible(variable) : [...possible(variable), wanted];
    });
    return differing.map(([variable]) => variable).filter((variable) => this.hearing.concerns(live, variable));
  }

  /** Values that a variable may have after the judged press; from its own machine alone. */
  private postsOf(variable: number, slot: PlantSlot, question: Question): readonly number[] {
    const press = this.table.press.get(slot.index)!;
    const constant = press.leaves.get(variable);
    if (constant !== undefined && !this.releasable.has(variable)) return [constant];
    const touched = press.touches.has(variable) || this.releasable.has(variable);
    const key = `${question.level}|${pinsKey(question.pins)}|${variable}|${touched ? slot.index : ''}`;
    let values = this.posts.get(key);
    if (!values) {
      values = this.widening(new Set([variable]), question, (machine) => {
        const column = machine.stepper.place[variable];
        const rows = touched ? this.postRows(machine, slot).map((post) => post.row) : machine.reached.map((reached) => reached.row);
        return [...new Set(rows.map((row) => row[column]))];
      });
      this.posts.set(key, values);
    }
    return values;
  }

  private machine(variables: readonly number[], question: Question): Machine {
    const key = machineKey(question, variables);
    const known = this.machines.get(key);
    if (known === null) throw new TooManyStates();
    if (known) return known;
    try {
      const machine = explore(this.table, variables, question);
      this.machines.set(key, machine);
      return machine;
    } catch (reason) {
      if (reason instanceof TooManyStates) this.machines.set(key, null);
      throw reason;
    }
  }

  /** The rows that the judged press, delivered whole, leads to, everything held let go after it. */
  private postRows(machine: Machine, slot: PlantSlot): { row: Row; from: Reached }[] {
    const compiled = this.table.press.get(slot.index)!;
    const { stepper } = machine;
    const seen = new Set<string>();
    const posts: { row: Row; from: Reached }[] = [];
    for (const from of machine.reached) {
      if (!stepper.isEnabled(from.row, compiled.event)) continue;
      for (const one of stepper.step(from.row, compiled, none)) {
        if (one.outcome !== 'quiet') continue;
        for (const after of stepper.released(one.row)) {
          const key = rowKey(after.row);
          if (after.outcome !== 'quiet' || seen.has(key)) continue;
          seen.add(key);
          posts.push({ row: after.row, from });
        }
      }
    }
    return posts;
  }

  private judgeRows(slot: PlantSlot, laid: Laid, question: Question, machine: Machine, fixed: (variable: number) => number): Answer {
    const { place } = machine.stepper;
    const symbols: ContentSymbol[] = [];
    let undecided: { from: Reached } | null = null;
    let any = false;
    for (const post of this.postRows(machine, slot)) {
      any = true;
      const read = (variable: number): number => (place[variable] >= 0 ? post.row[place[variable]] : fixed(variable));
      const heard = this.hearing.judge(read, laid, { obey: true, pins: question.pins });
      if (heard.is === 'wrong') return { verdict: 'does-not', length: null, sequence: null, symbols: [] };
      if (heard.is === 'unknown') {
        undecided ??= post;
        symbols.push(...heard.symbols);
      }
    }
    if (!any) return { verdict: 'not-played', length: null, sequence: null, symbols: [] };
    return undecided ? { verdict: 'cannot-be-known', length: null, sequence: null, symbols } : recallsAnswer;
  }

  /** The same variables with the banks of the controllers concerned: the first row, breadth first, from which the press goes wrong. */
  private withSequence(slot: PlantSlot, laid: Laid, question: Question, variables: readonly number[], answer: Answer): Answer {
    const plain = this.machine(variables, question);
    const faults = new Set(question.level === 4 ? this.plant.wiring.rig.settings.faults : []);
    const concerned = this.table.concerning(question.level, faults, [...plain.stepper.variables]);
    const controllers = [slot.slot.controller, ...concerned.flatMap((compiled) => (compiled.event.kind === 'press' ? [compiled.event.slot.slot.controller] : []))];
    const widened = new Set([...plain.stepper.variables, ...this.banksFor(controllers)]);
    return this.widening(widened, question, (machine) => this.firstWrong(slot, laid, question, machine, answer));
  }

  private firstWrong(slot: PlantSlot, laid: Laid, question: Question, machine: Machine, answer: Answer): Answer {
    const compiled = this.table.press.get(slot.index)!;
    const { stepper } = machine;
    const fixed = this.fixedAfter(slot, question);
    let undecided: Answer | null = null;
    for (const from of machine.reached) {
      if (!stepper.isEnabled(from.row, compiled.event)) continue;
      for (const one of stepper.step(from.row, compiled, none)) {
        if (one.outcome !== 'quiet') continue;
        for (const after of stepper.released(one.row)) {
          const read = (variable: number): number => (stepper.place[variable] >= 0 ? after.row[stepper.place[variable]] : fixed(variable));
          const heard = this.hearing.judge(read, laid, { obey: true, pins: question.pins });
          if (heard.is === 'right') continue;
          const found = (): Answer => {
            const way = stonesTo(this.plant, stepper, from);
            return { ...answer, length: from.depth + 1, sequence: { needs: way.needs, stones: [...way.stones, { kind: 'press', slot: slot.slot.id }] } };
          };
          if (heard.is === 'wrong') return { ...found(), verdict: 'does-not' };
          undecided ??= found();
        }
      }
    }
    return undecided ?? answer;
  }

  /** Bank variables of controllers whose bank moves cost a press. */
  private banksFor(controllers: readonly string[]): number[] {
    return [...new Set(controllers)].flatMap((id) => {
      const controller = this.plant.device.get(id)?.controller;
      return controller && controller.facts.banks > 1 ? [controller.bank] : [];
    });
  }
}

const none: ReadonlySet<never> = new Set();

const machineKey = (question: Question, variables: readonly number[]): string =>
  `${question.level}|${pinsKey(question.pins)}|${[...variables].sort((a, b) => a - b).join(',')}`;

const pinsKey = (pins: Pins): string => (pins.size === 0 ? '' : [...pins].map(([symbol, option]) => `${symbol}=${option}`).join('&'));

/** Whether messages can come round: a controller that is called, a device that sends on, a chain that closes. */
function mayFeedBack(plant: Plant): boolean {
  return plant.devices.some((device) => device.wired.device.calls !== undefined || device.wired.anatomy.emits !== undefined);
}

function unquietAndUnused(plant: Plant, table: EventTable, used: ReadonlySet<string>, limits: Limits): ReadonlySet<number> {
  const aside = new Set<number>();
  for (const compiled of table.ordinary) {
    if (compiled.event.kind !== 'press' || used.has(compiled.event.slot.slot.id)) continue;
    if (compiled.outcome === 'never-quiet') aside.add(compiled.event.slot.index);
    else if (compiled.operations === null && mayFeedBack(plant)) {
      try {
        const machine = explore(table, [], { level: 4, pins: new Map(), limits, also: [compiled] });
        if (machine.unquiet.some((one) => one.compiled === compiled && one.outcome === 'never-quiet')) aside.add(compiled.event.slot.index);
      } catch (reason) {
        if (!(reason instanceof TooManyStates) && !(reason instanceof NeedPin)) throw reason;
      }
    }
  }
  return aside;
}
