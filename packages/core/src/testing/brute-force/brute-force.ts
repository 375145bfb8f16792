import type { CaseRig } from '../recall-adapter.ts';
import { exhaust, type Exhausted, movesOf, type PlainMove } from './feet.ts';
import { Hearing, type Moment } from './hearing.ts';
import {
  banksOf,
  type LossKind,
  numbersOf,
  type PlainAction,
  type PlainEvent,
  PlainRig,
  type State,
} from './plain-rig.ts';
import { openContents, type Value } from './values.ts';

export type BruteVerdict = 'recalls' | 'does-not' | 'cannot-be-known' | 'not-played';
export interface BruteAnswer {
  readonly verdict: BruteVerdict;
  /**
   * Lengths that are right: one, or two where contents fail by sequences of their own. Empty where nothing follows from
   * the definitions: past a press that never falls quiet nobody knows the bank.
   */
  readonly lengths: readonly number[];
}

/** More states than were allowed, or contents that decide what can be pressed. */
export class TooMuch extends Error {}

/** A moment that can be reached, at its least number of events. */
interface Reached {
  readonly moment: Moment;
  readonly depth: number;
  /** Whether the one fault or stray foot was. */
  readonly spent: boolean;
  /** A press that never fell quiet lies behind. */
  readonly lost: boolean;
}

/** What a judged press came to under each assumption of the contents, after so many events. */
interface Judged {
  readonly length: number;
  readonly each: readonly ('right' | 'wrong' | 'unknown')[];
  readonly isExact: boolean;
}

interface After {
  readonly moment: Moment;
  readonly outcomes: readonly ('settled' | 'never' | 'gave-up')[];
  readonly points: readonly LossKind[];
}

/**
 * Every state of a whole rig, one after the other, at each level, judged from the definitions; shares nothing with the
 * product but the description of the rig and the bytes of generated slots. Slow, and for small rigs only.
 */
export class BruteForce {
  private readonly plain: PlainRig;
  private readonly hearing: Hearing;
  private readonly contents: readonly (readonly number[])[];
  private readonly reached = new Map<number, readonly Reached[]>();
  private readonly aside = new Set<string>();
  private plannedFeet: readonly PlainEvent[] | undefined;

  constructor(
    private readonly rig: CaseRig,
    actionsOf: (controller: string, slot: string) => readonly PlainAction[],
    private readonly limit: number,
  ) {
    this.plain = new PlainRig(rig, actionsOf);
    let contents: number[][] = [[]];
    for (const { domain } of openContents(rig)) contents = contents.flatMap((all) => domain.map((_, i) => [...all, i]));
    if (contents.length > 9) throw new TooMuch();
    this.contents = contents;
    this.hearing = new Hearing(rig, contents);
    if (this.plain.runsInCircles) this.setAside();
  }

  judge(controller: string, slot: string, level: 1 | 2 | 3 | 4): BruteAnswer {
    const { sound } = this.plain.controllers.get(controller)!.slots![slot];
    const judged = level === 1 ? this.inOrder(controller, slot, sound!) : this.free(controller, slot, sound!, level);
    return answerOf(judged, this.contents.length);
  }

  // ---- level 1 ----

  private inOrder(controller: string, slot: string, sound: string): readonly Judged[] {
    const judged: Judged[] = [];
    let here = this.starts([]).map(({ moment, lost }) => ({ moment, lost }));
    let isLost = here.some(({ lost }) => lost);
    let happened = 0;
    let before = '';
    const { length: count } = this.contents;
    for (const part of this.rig.set ?? []) {
      const cast = castOf(part);
      const [at, played] = cast.slot ?? ['', ''];
      const wasLost = isLost;
      let ownEnd: { readonly each: Judged['each']; readonly length: number } | null = null;
      const happen = (event: PlainEvent, isOwn: boolean): void => {
        happened += 1;
        if (isLost) return;
        const next = new Map<string, Moment>();
        for (const { moment } of here) {
          const after = this.step(moment, event);
          if (after.outcomes.some((outcome) => outcome !== 'settled')) {
            isLost = true;
            const each = after.outcomes.map((outcome) => (outcome === 'never' ? 'wrong' : 'unknown'));
            if (isOwn) ownEnd = { each, length: happened };
            return;
          }
          next.set(keyOf(after.moment), after.moment);
        }
        here = [...next.values()].map((moment) => ({ moment, lost: false }));
        if (here.length > this.limit) throw new TooMuch();
      };
      for (const event of this.planned(cast.before)) happen(event, false);
      if (!cast.slot) {
        const done = isLost
          ? null
          : this.fewest(
              here.map(({ moment }) => moment),
              cast.sound!,
              this.planned(cast.after),
            );
        this.derived.push({ sound: cast.sound!, done });
        if (done?.is === 'lost') isLost = true;
        for (const event of done?.is === 'found' ? done.moves : []) happen(event, false);
        for (const event of this.planned(cast.after)) happen(event, false);
        before = '';
        continue;
      }
      if (at !== String(before.split('/')[0]) || played !== before.split('/')[1] || cast.again) {
        if (
          !this.reach(
            at,
            played,
            () => (isLost ? null : here[0].moment[0]),
            (event) => happen(event, false),
          )
        )
          continue;
        happen({ kind: 'press', controller: at, slot: played }, true);
      }
      for (const event of this.planned(cast.after)) happen(event, true);
      before = `${at}/${played}`;
      if (at !== controller || played !== slot) continue;
      const end = ownEnd as { readonly each: Judged['each']; readonly length: number } | null;
      if (end !== null && !wasLost) judged.push({ ...end, isExact: true });
      else if (isLost) {
        judged.push({ length: happened, each: new Array(count).fill('unknown'), isExact: !this.isBanked });
      } else
        for (const { moment } of here) {
          const right = this.hearing.isRight(moment, sound, false);
          judged.push({ length: happened, each: right.map((is) => (is ? 'right' : 'wrong')), isExact: true });
        }
    }
    return judged;
  }

  private get isBanked(): boolean {
    return [...this.plain.controllers.values()].some((one) => banksOf(one) > 1);
  }

  /** Moves the bank the shorter way round, up on a tie; false where that leads nowhere. */
  private reach(id: string, slot: string, now: () => State | null, happen: (event: PlainEvent) => void): boolean {
    const controller = this.plain.controllers.get(id)!;
    const banks = banksOf(controller);
    const wanted = controller.slots![slot].bank ?? 0;
    const bank = (): number => {
      const state = now();
      return state === null ? wanted : Number(state.get(`${id}:bank`));
    };
    for (let moves = 0; moves < banks && bank() !== wanted; moves += 1) {
      const up = (wanted - bank() + banks) % banks;
      happen({ kind: 'bank', controller: id, by: up <= banks - up ? 1 : -1 });
    }
    return bank() === wanted;
  }

  private planned(list: readonly (readonly (string | number)[])[] | undefined): readonly PlainEvent[] {
    return (list ?? []).map((action) =>
      action[0] === 'foot'
        ? { kind: 'foot', device: String(action[1]), switch: String(action[2]), stray: false }
        : { kind: 'cue', control: String(action[1]), value: action[2] },
    );
  }

  // ---- without a slot ----

  /** By part that no slot plays: its sound, and what exhaustive search finds; null where nothing is known. */
  private derived: { readonly sound: string; readonly done: Exhausted | null }[] = [];

  /** What feet and hands do for each part that no slot plays, in set order. */
  byFeet(): readonly { readonly sound: string; readonly done: Exhausted | null }[] {
    this.derived = [];
    this.inOrder('', '', '');
    return this.derived;
  }

  private fewest(starts: readonly Moment[], sound: string, after: readonly PlainEvent[]): Exhausted {
    let left = 40 * this.limit;
    const wanted = new Map(Object.entries(this.rig.sounds[sound].wants ?? {}));
    const step = (moment: Moment, event: PlainEvent): Moment | null => {
      const ran = this.step(moment, event);
      return isQuiet(ran) ? ran.moment : null;
    };
    const end = (moment: Moment) => after.reduce<Moment | null>((here, event) => here && step(here, event), moment);
    const isRight = (moments: readonly Moment[]) =>
      moments.map(end).every((moment) => moment !== null && this.hearing.isRight(moment, sound, false).every(Boolean));
    const budget = () => {
      if ((left -= 1) < 0) throw new TooMuch();
    };
    const moves = movesOf(this.rig, wanted);
    const concerning = this.concerning(moves, sound);
    const found = exhaust(starts, concerning, step, isRight, budget);
    const ends = starts.map(end).filter((moment) => moment !== null);
    const isSilent = this.rig.sounds[sound].silence !== true && this.hearing.isSilent(ends);
    return found.is === 'none' && isSilent ? exhaust(starts, moves, step, isRight, budget) : found;
  }

  /** Moves of what a sound asks for, and of what nobody hears but those turn on; again for these. */
  private concerning(moves: readonly PlainMove[], sound: string): readonly PlainMove[] {
    const asked = this.hearing.asked(sound);
    const heard = this.hearing.heardAtAll();
    const chosen = new Set(moves.filter((move) => move.moves.some((name) => asked.has(name))));
    for (;;) {
      const decides = new Set([...chosen].flatMap(({ turnsOn }) => turnsOn).filter((name) => !heard.has(name)));
      const more = moves.filter((move) => !chosen.has(move) && move.moves.every((name) => decides.has(name)));
      if (more.length === 0) return moves.filter((move) => chosen.has(move));
      for (const move of more) chosen.add(move);
    }
  }

  // ---- levels 2 to 4 ----

  private free(controller: string, slot: string, sound: string, level: 2 | 3 | 4): readonly Judged[] {
    const press: PlainEvent = { kind: 'press', controller, slot };
    const judged: Judged[] = [];
    for (const { moment, depth, lost } of this.explore(level)) {
      const length = depth + 1;
      if (lost) {
        // Nobody knows the bank any more, so it may be pressed.
        judged.push({ length, each: moment.map(() => 'unknown'), isExact: !this.isBanked });
        continue;
      }
      if (!this.isEnabled(moment, press)) continue;
      const after = this.step(moment, press);
      if (after.outcomes.some((outcome) => outcome !== 'settled')) {
        judged.push({
          length,
          each: after.outcomes.map((is) => (is === 'never' ? 'wrong' : is === 'gave-up' ? 'unknown' : 'right')),
          isExact: true,
        });
        continue;
      }
      for (const released of this.released(after.moment)) {
        const right = this.hearing.isRight(released, sound, true);
        judged.push({ length, each: right.map((is) => (is ? 'right' : 'wrong')), isExact: true });
      }
    }
    return judged;
  }

  /** Everything held let go, in each order. */
  private released(moment: Moment): readonly Moment[] {
    const held = this.momentaries().filter((event) => this.isEnabled(moment, { ...event, kind: 'release' }));
    if (held.length === 0) return [moment];
    const ends = new Map<string, Moment>();
    for (const event of held)
      for (const end of this.released(this.step(moment, { ...event, kind: 'release' }).moment))
        ends.set(keyOf(end), end);
    return [...ends.values()];
  }

  private momentaries(): readonly { readonly controller: string; readonly momentary: string }[] {
    return [...this.plain.controllers].flatMap(([controller, { momentary }]) =>
      Object.keys(momentary ?? {}).map((name) => ({ controller, momentary: name })),
    );
  }

  private explore(level: 2 | 3 | 4): readonly Reached[] {
    let found = this.reached.get(level);
    if (!found) this.reached.set(level, (found = this.enumerate(level)));
    return found;
  }

  private enumerate(level: 2 | 3 | 4): readonly Reached[] {
    const faults = level === 4 ? (this.rig.faults ?? ['sent', 'link', 'receiver', 'edge', 'restart']) : [];
    const lossy = faults.filter((kind) => kind !== 'restart');
    const events = this.events(level, faults.includes('restart'));
    const seen = new Set<string>();
    const reached: Reached[] = [];
    const add = (item: Reached): void => {
      const key = `${item.spent}${item.lost}${keyOf(item.moment)}`;
      if (seen.has(key)) return;
      seen.add(key);
      reached.push(item);
      if (reached.length > this.limit) throw new TooMuch();
    };
    for (const start of this.starts(lossy)) add({ ...start, depth: 0 });
    for (let i = 0; i < reached.length; i += 1) {
      const { moment, depth, spent, lost } = reached[i];
      for (const event of events) {
        const spends = event.kind === 'restart' || (event.kind === 'foot' && event.stray);
        if ((spent && spends) || (lost && event.kind !== 'bank') || !this.isEnabled(moment, event)) continue;
        const next = { depth: depth + 1, spent: spent || spends, lost };
        if (event.kind === 'restart') {
          for (const { moment: up, settled } of this.restarts(moment, event.device))
            add({ ...next, moment: up, lost: !settled });
          continue;
        }
        const whole = this.step(moment, event);
        add({ ...next, moment: whole.moment, lost: lost || !isQuiet(whole) });
        if (spent || lost || lossy.length === 0) continue;
        for (const after of this.withLosses(whole, lossy, (loss) => this.step(moment, event, loss)))
          add({ ...next, moment: after.moment, lost: !isQuiet(after), spent: true });
      }
    }
    return reached;
  }

  private withLosses(whole: After, lossy: readonly string[], again: (loss: number) => After): readonly After[] {
    const points = isQuiet(whole) ? whole.points : whole.points.slice(0, 64);
    return points.flatMap((kind, loss) => (lossy.includes(kind) ? [again(loss)] : []));
  }

  private events(level: 2 | 3 | 4, restarts: boolean): readonly PlainEvent[] {
    const { plain, rig } = this;
    const controllers = [...plain.controllers];
    const planned = [
      ...(rig.set ?? []).flatMap((part) => [...this.planned(castOf(part).before), ...this.planned(castOf(part).after)]),
      ...(this.plannedFeet ??= this.byFeet().flatMap(({ done }) => (done?.is === 'found' ? done.moves : []))),
    ];
    const feet = [...plain.devices].flatMap(([device, { foot }]) =>
      Object.entries(foot ?? {}).map(([name, facts]) => ({
        event: { kind: 'foot', device, switch: name } as const,
        isPlanned:
          facts.planned === true ||
          planned.some((event) => event.kind === 'foot' && event.device === device && event.switch === name),
      })),
    );
    return [
      ...controllers.flatMap(([controller, { slots }]) =>
        Object.keys(slots ?? {}).flatMap((slot): PlainEvent[] =>
          this.aside.has(`${controller}/${slot}`) ? [] : [{ kind: 'press', controller, slot }],
        ),
      ),
      ...controllers.flatMap(([controller, facts]): PlainEvent[] =>
        banksOf(facts) > 1
          ? [
              { kind: 'bank', controller, by: 1 },
              { kind: 'bank', controller, by: -1 },
            ]
          : [],
      ),
      ...this.momentaries().flatMap((event): PlainEvent[] => [
        { kind: 'hold', ...event },
        { kind: 'release', ...event },
      ]),
      ...feet
        .filter(({ isPlanned }) => isPlanned || level === 3)
        .map(({ event, isPlanned }): PlainEvent => ({ ...event, stray: !isPlanned })),
      ...planned.filter((event) => event.kind === 'cue'),
      ...(rig.external ?? []).map(({ to, msg }): PlainEvent => ({
        kind: 'outside',
        device: to,
        message: { pc: msg.pc, ch: msg.ch },
      })),
      ...(restarts
        ? [...plain.controllers.keys(), ...plain.devices.keys()].map((device): PlainEvent => ({
            kind: 'restart',
            device,
          }))
        : []),
    ];
  }

  // ---- moments ----

  private isEnabled(moment: Moment, event: PlainEvent): boolean {
    const each = moment.map((state) => this.plain.isEnabled(state, event));
    if (each.some((is) => is !== each[0])) throw new TooMuch();
    return each[0];
  }

  private step(moment: Moment, event: PlainEvent, lost?: number): After {
    return this.together(moment.map((state, i) => this.plain.run(state, event, this.contents[i], lost)));
  }

  private together(ran: readonly ReturnType<PlainRig['run']>[]): After {
    const [{ points }] = ran;
    if (ran.some((other) => other.points.join() !== points.join())) throw new TooMuch();
    return { moment: ran.map(({ state }) => state), outcomes: ran.map(({ outcome }) => outcome), points };
  }

  /** Every moment that power-up may leave, slots that fire by themselves fired. */
  private starts(lossy: readonly string[]): readonly Omit<Reached, 'depth'>[] {
    const { plain } = this;
    let starts: Omit<Reached, 'depth'>[] = choices(plain.openAtPowerUp()).map((chosen) => ({
      moment: this.contents.map((contents) => plain.comeUp(contents, chosen)),
      spent: false,
      lost: false,
    }));
    for (const { controller, slot } of plain.firedAtPowerUp)
      starts = starts.flatMap(({ moment, spent, lost }) => {
        const fire = (loss?: number) =>
          this.together(moment.map((state, i) => plain.fire(state, controller, slot, this.contents[i], loss)));
        const whole = fire();
        const losses = spent || lossy.length === 0 ? [] : this.withLosses(whole, lossy, fire);
        return [
          { moment: whole.moment, spent, lost: lost || !isQuiet(whole) },
          ...losses.map((after) => ({ moment: after.moment, spent: true, lost: lost || !isQuiet(after) })),
        ];
      });
    return starts;
  }

  private restarts(moment: Moment, id: string): readonly { readonly moment: Moment; readonly settled: boolean }[] {
    const { plain } = this;
    const device = plain.devices.get(id);
    const open = [
      ...(device?.presets?.powerup === 'any' ? [{ name: `${id}.preset`, values: numbersOf(device) }] : []),
      ...plain
        .openAtPowerUp()
        .filter(({ name }) => name.startsWith(`${id}.`) && !name.endsWith('.preset'))
        .filter(({ name }) => this.comesUpAsAny(name)),
    ];
    const fired = plain.firedAtPowerUp.find(({ controller }) => controller === id);
    return choices(open).map((chosen) => {
      const up = moment.map((state, i) => plain.restart(state, id, this.contents[i], chosen));
      if (!fired) return { moment: up, settled: true };
      const after = this.together(up.map((state, i) => plain.fire(state, id, fired.slot, this.contents[i])));
      return { moment: after.moment, settled: isQuiet(after) };
    });
  }

  private comesUpAsAny(name: string): boolean {
    const at = name.indexOf('.');
    const [id, part] = [name.slice(0, at), name.slice(at + 1)];
    const controls: Readonly<Record<string, { readonly powerup?: Value }>> =
      this.rig.devices?.[id]?.controls ?? this.rig.controllers?.[id]?.loops ?? {};
    return controls[part]?.powerup === 'any';
  }

  /** Slots that never fall quiet from some state and that no part uses. */
  private setAside(): void {
    const used = new Set([
      ...(this.rig.set ?? []).map((part) => (castOf(part).slot ?? []).join('/')),
      ...this.plain.firedAtPowerUp.map(({ controller, slot }) => `${controller}/${slot}`),
    ]);
    const found = new Set<string>();
    for (const { moment, lost } of this.enumerate(4))
      for (const [controller, { slots }] of this.plain.controllers)
        for (const slot of Object.keys(slots ?? {})) {
          const press: PlainEvent = { kind: 'press', controller, slot };
          if (lost || used.has(`${controller}/${slot}`) || !this.isEnabled(moment, press)) continue;
          if (this.step(moment, press).outcomes.includes('never')) found.add(`${controller}/${slot}`);
        }
    for (const slot of found) this.aside.add(slot);
  }
}

const castOf = (part: NonNullable<CaseRig['set']>[number]): Exclude<typeof part, readonly [string, string]> =>
  'length' in part ? { slot: part } : part;

const isQuiet = ({ outcomes }: After): boolean => outcomes.every((outcome) => outcome === 'settled');

const keyOf = (moment: Moment): string => JSON.stringify(moment.map((state) => [...state.values()]));

/** Every way to choose one value of each. */
function choices(
  open: readonly { readonly name: string; readonly values: readonly Value[] }[],
): readonly ReadonlyMap<string, Value>[] {
  let all: ReadonlyMap<string, Value>[] = [new Map()];
  for (const { name, values } of open)
    all = all.flatMap((chosen) => values.map((value) => new Map([...chosen, [name, value]])));
  return all;
}

/** One failing state outweighs an unknown, an unknown outweighs the rest; content by content where they decide. */
function answerOf(judged: readonly Judged[], contents: number): BruteAnswer {
  if (judged.length === 0) return { verdict: 'not-played', lengths: [] };
  const isWrong = ({ each }: Judged) => each.every((is) => is === 'wrong');
  const isOpen = ({ each }: Judged) => each.some((is) => is !== 'right');
  const least = (list: readonly Judged[]) => Math.min(...list.map(({ length }) => length));
  const byContent = Array.from({ length: contents }, (_, i) => least(judged.filter(({ each }) => each[i] === 'wrong')));
  const longest = Math.max(...byContent);
  const wrong = judged.filter(isWrong);
  if (wrong.length > 0) return { verdict: 'does-not', lengths: [...new Set([least(wrong), longest])] };
  if (longest < Infinity) return { verdict: 'does-not', lengths: [longest] };
  const open = judged.filter(isOpen);
  if (open.length === 0) return { verdict: 'recalls', lengths: [] };
  return { verdict: 'cannot-be-known', lengths: open.every(({ isExact }) => isExact) ? [least(open)] : [] };
}
