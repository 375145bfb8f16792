import { bankSelectLsb, bankSelectMsb } from '../../midi/message.ts';
import type { CaseRig } from '../recall-adapter.ts';
import { contentOf, listOf, plain, unknown, type Value } from './values.ts';

/** One action of a slot or of a momentary switch, as the case has it. */
export type PlainAction = Readonly<Record<string, number | string>>;
/** Values by the names of what can change. */
export type State = ReadonlyMap<string, Value>;
type Working = Map<string, Value>;

export type PlainEvent =
  | { readonly kind: 'press'; readonly controller: string; readonly slot: string }
  | { readonly kind: 'bank'; readonly controller: string; readonly by: 1 | -1 }
  | { readonly kind: 'hold' | 'release'; readonly controller: string; readonly momentary: string }
  | { readonly kind: 'foot'; readonly device: string; readonly switch: string; readonly stray: boolean }
  | { readonly kind: 'cue'; readonly control: string; readonly value: Value }
  | { readonly kind: 'outside'; readonly device: string; readonly message: Message }
  | { readonly kind: 'restart'; readonly device: string };

interface Message {
  readonly ch: number;
  readonly pc?: number;
  readonly cc?: number;
  readonly val?: number;
}
export type LossKind = 'sent' | 'link' | 'receiver' | 'edge';
export interface Ran {
  readonly state: State;
  readonly outcome: 'settled' | 'never' | 'gave-up';
  /** Where a message or pulse could have been lost, in the order in which it came there. */
  readonly points: readonly LossKind[];
}

type Controller = NonNullable<CaseRig['controllers']>[string];
type Device = NonNullable<CaseRig['devices']>[string];
type Control = NonNullable<Device['controls']>[string];

type Answer = NonNullable<Device['cc']>[number];

interface Waiting {
  readonly time: number;
  readonly order: number;
  /** What tells it apart where a circle is looked for. */
  readonly name: () => string;
  readonly act: (time: number) => void;
}

const byteTime = 320;
const nobody = '';

/**
 * A case's rig, run from its description alone: every message with its bytes and times, every contact and foot. Written
 * from the definitions, apart from the interpreter that the product has.
 */
export class PlainRig {
  readonly controllers: ReadonlyMap<string, Controller>;
  readonly devices: ReadonlyMap<string, Device>;
  private readonly links = new Map<string, ReturnType<PlainRig['linksFrom']>>();
  private readonly comesRound: boolean;

  constructor(
    readonly rig: CaseRig,
    readonly actionsOf: (controller: string, slot: string) => readonly PlainAction[],
  ) {
    this.controllers = new Map(Object.entries(rig.controllers ?? {}));
    this.devices = new Map(Object.entries(rig.devices ?? {}));
    this.comesRound =
      [...this.controllers.values()].some(({ rx }) => rx !== undefined) ||
      [...this.devices.values()].some(({ emits }) => emits !== undefined) ||
      this.passesInCircle();
  }

  /** Where a device or controller sends its own messages, passes on what comes in, and merges it in. */
  linksFrom(id: string): Readonly<Record<'sends' | 'passes' | 'merges', readonly string[]>> {
    let found = this.links.get(id);
    if (!found) {
      const to = (...ports: string[]) =>
        (this.rig.midi ?? []).flatMap(([from, port, end]) => (from === id && ports.includes(port) ? [end] : []));
      this.links.set(id, (found = { sends: to('out', 'merge'), passes: to('thru'), merges: to('merge') }));
    }
    return found;
  }

  private passesInCircle(): boolean {
    const next = (name: string) =>
      (this.rig.midi ?? []).flatMap(([from, port, to]) => (from === name && port !== 'out' ? [to] : []));
    return [...this.controllers.keys(), ...this.devices.keys()].some((start) => {
      const met = next(start);
      for (let i = 0; i < met.length; i += 1) for (const to of next(met[i])) if (!met.includes(to)) met.push(to);
      return met.includes(start);
    });
  }

  /** What power-up leaves open, and the values that each may come up with. */
  openAtPowerUp(): readonly { readonly name: string; readonly values: readonly Value[] }[] {
    const isOpen = (value: unknown) => value === 'as left' || value === 'any';
    return [
      ...[...this.devices].flatMap(([id, device]) => [
        ...Object.entries(device.inputs ?? {}).flatMap(([input, { kind, powerup }]) =>
          powerup === 'as left' && ((kind ?? 'level') === 'edge' || this.wiresTo(id, input).length === 0)
            ? [{ name: `${id}:bit ${input}`, values: [0, 1] }]
            : [],
        ),
        ...(device.presets && isOpen(device.presets.powerup)
          ? [{ name: `${id}.preset`, values: numbersOf(device) }]
          : []),
        ...Object.entries(device.controls ?? {}).flatMap(([control, facts]) =>
          isOpen(facts.powerup) && !facts.bits && !isLoaded(device, facts)
            ? [{ name: `${id}.${control}`, values: facts.domain }]
            : [],
        ),
      ]),
      ...[...this.controllers].flatMap(([id, controller]) =>
        Object.entries(controller.loops ?? {}).flatMap(([loop, { powerup, domain = [0, 1] }]) =>
          isOpen(powerup) ? [{ name: `${id}.${loop}`, values: domain }] : [],
        ),
      ),
    ];
  }

  /** The state after power-up with the open ones as given; slots that fire by themselves have not. */
  comeUp(contents: readonly number[], chosen: ReadonlyMap<string, Value>): State {
    const state: Working = new Map();
    for (const [id, controller] of this.controllers) this.controllerUp(id, controller, state, chosen);
    for (const [id, device] of this.devices) this.deviceUp(id, device, state, contents, chosen, true);
    return state;
  }

  private controllerUp(id: string, controller: Controller, state: Working, chosen: ReadonlyMap<string, Value>): void {
    state.set(`${id}:bank`, 0);
    if (remembersSlot(controller)) state.set(`${id}:current`, nobody);
    if (controller.repeat_press === 'alternates') state.set(`${id}:before`, nobody);
    for (const loop of Object.keys(controller.loops ?? {})) {
      const { powerup, domain = [0] } = controller.loops![loop];
      const name = `${id}.${loop}`;
      if (chosen.has(name)) state.set(name, chosen.get(name)!);
      else if (powerup !== 'as left' || !state.has(name)) state.set(name, Number(powerup ?? domain[0]));
      state.set(`${id}:saved ${loop}`, nobody);
    }
    for (const contact of Object.keys(controller.contacts ?? {}))
      state.set(`${id}:contact ${contact}`, controller.contacts![contact].rests ?? 0).set(`${id}:belief ${contact}`, 0);
    for (const momentary of Object.keys(controller.momentary ?? {})) state.set(`${id}:held ${momentary}`, 0);
  }

  private deviceUp(
    id: string,
    device: Device,
    state: Working,
    contents: readonly number[],
    chosen: ReadonlyMap<string, Value>,
    isFirst: boolean,
  ): void {
    for (const [input, facts] of Object.entries(device.inputs ?? {})) {
      const wires = this.wiresTo(id, input);
      const follows = (facts.kind ?? 'level') === 'level' && wires.length > 0;
      const closed = wires.some(([from, contact]) =>
        isFirst
          ? this.controllers.get(from)?.contacts?.[contact].rests === 1
          : state.get(`${from}:contact ${contact}`) === 1,
      );
      const bit = `${id}:bit ${input}`;
      if (follows) state.set(bit, Number(closed));
      else if (facts.powerup !== 'as left') state.set(bit, facts.powerup ?? 0);
      else if (chosen.has(bit)) state.set(bit, chosen.get(bit)!);
    }
    const { presets } = device;
    if (presets) {
      const { powerup } = presets;
      const given = powerup === undefined ? numbersOf(device)[0] : powerup;
      const number = chosen.get(`${id}.preset`) ?? (given === 'as left' ? state.get(`${id}.preset`)! : given);
      state.set(`${id}.preset`, number);
      if (presets.repeat === 'alternates') state.set(`${id}:preset before`, number);
      if ((presets.scheme ?? 'none') !== 'none') state.set(`${id}:selected`, homeOf(presets));
    }
    for (const [control, facts] of Object.entries(device.controls ?? {})) {
      const name = `${id}.${control}`;
      const first = facts.domain[0];
      const literal = facts.powerup ?? first;
      if (isLoaded(device, facts)) {
        const stored = contentOf(this.rig, contents, id, Number(state.get(`${id}.preset`)), control);
        state.set(name, stored ?? (literal === 'any' ? first : literal));
      } else if (facts.bits) state.set(name, this.byBits(id, facts, state));
      else if (chosen.has(name)) state.set(name, chosen.get(name)!);
      else if (literal !== 'as left') state.set(name, literal);
    }
  }

  private wiresTo(device: string, input: string): readonly (readonly [string, string])[] {
    return (this.rig.contacts ?? []).flatMap(([from, contact, to, at]) =>
      to === device && at === input ? [[from, contact] as const] : [],
    );
  }

  private byBits(id: string, facts: Control, state: State): Value {
    const bits = facts.bits!.map((bit) => state.get(`${id}:bit ${bit}`)).join('');
    for (const [key, value] of Object.entries(facts.table ?? {})) if (key.replace(/[^01]/g, '') === bits) return value;
    return facts.domain[0];
  }

  /** Slots that power-up fires, in the order of their controllers. */
  get firedAtPowerUp(): readonly { readonly controller: string; readonly slot: string }[] {
    return [...this.controllers].flatMap(([controller, { powerup_fires: slot }]) =>
      slot === undefined ? [] : [{ controller, slot }],
    );
  }

  isEnabled(state: State, event: PlainEvent): boolean {
    switch (event.kind) {
      case 'press': {
        const controller = this.controllers.get(event.controller)!;
        const isHeld = Object.keys(controller.momentary ?? {}).some(
          (momentary) => state.get(`${event.controller}:held ${momentary}`) === 1,
        );
        if (controller.fires_while_held === false && isHeld) return false;
        return state.get(`${event.controller}:bank`) === (controller.slots![event.slot].bank ?? 0);
      }
      case 'hold':
        return state.get(`${event.controller}:held ${event.momentary}`) === 0;
      case 'release':
        return state.get(`${event.controller}:held ${event.momentary}`) === 1;
      default:
        return true;
    }
  }

  run(state: State, event: PlainEvent, contents: readonly number[], lost?: number): Ran {
    return new Running(this, state, contents, lost).run(event);
  }

  /** A slot fires by itself, at power-up. */
  fire(state: State, controller: string, slot: string, contents: readonly number[], lost?: number): Ran {
    return new Running(this, state, contents, lost).runFiring(controller, slot);
  }

  /** A device or controller restarts, with what stays open of it as chosen; what it fires by itself comes after. */
  restart(state: State, id: string, contents: readonly number[], chosen: ReadonlyMap<string, Value>): State {
    const controller = this.controllers.get(id);
    const device = this.devices.get(id);
    const working: Working = new Map(controller ? new Running(this, state, contents, undefined).open(id) : state);
    if (controller) this.controllerUp(id, controller, working, chosen);
    if (device) this.deviceUp(id, device, working, contents, chosen, false);
    return working;
  }

  get runsInCircles(): boolean {
    return this.comesRound;
  }
}

/** Whether anything turns on which slot a controller fired last. */
const remembersSlot = ({ repeat_press, bank_move, call_repeat }: Controller): boolean =>
  (repeat_press ?? 'fires') !== 'fires' || bank_move === 'fires' || call_repeat === 'ignored';

export const numbersOf = (device: Device): readonly number[] =>
  Object.keys(device.presets?.stored ?? {})
    .map(Number)
    .sort((a, b) => a - b);

/** A stored control comes up with its preset, unless what was edited survives the power going. */
const isLoaded = (device: Device, facts: Control): boolean =>
  device.presets !== undefined && facts.scope === 'preset' && facts.powerup !== 'as left';

function homeOf(presets: NonNullable<Device['presets']>): number {
  const [msb, lsb] = presets.home ?? [0, 0];
  return presets.scheme === 'msb' ? msb : presets.scheme === 'lsb' ? lsb : msb * 128 + lsb;
}

/** One event, from the first contact or byte until all is quiet. */
class Running {
  private readonly state: Working;
  private readonly points: LossKind[] = [];
  private readonly line = new Map<string, number>();
  private readonly busy = new Map<string, number>();
  private readonly letWait = new Map<string, number>();
  private queue: Waiting[] = [];
  private order = 0;
  private messages = 0;
  private readonly seen = new Set<string>();

  constructor(
    private readonly plain: PlainRig,
    from: State,
    private readonly contents: readonly number[],
    private readonly lost: number | undefined,
  ) {
    this.state = new Map(from);
  }

  run(event: PlainEvent): Ran {
    const { plain: rig, state } = this;
    switch (event.kind) {
      case 'press':
        this.press(event.controller, event.slot);
        break;
      case 'bank':
        this.moveBank(event.controller, event.by);
        break;
      case 'hold':
      case 'release':
        this.momentary(event.controller, event.momentary, event.kind);
        break;
      case 'foot':
        for (const does of rig.devices.get(event.device)!.foot![event.switch].does) this.foot(event.device, does);
        break;
      case 'cue':
        state.set(event.control, event.value);
        break;
      case 'outside':
        this.arrive(event.device, event.message, 0);
        break;
      default:
        throw new Error('a restart is no event of messages');
    }
    return this.settle();
  }

  runFiring(controller: string, slot: string): Ran {
    this.fire(controller, slot, 0);
    return this.settle();
  }

  /** The contacts of a controller open, for its power goes. */
  open(controller: string): State {
    for (const contact of Object.keys(this.plain.controllers.get(controller)!.contacts ?? {}))
      this.setContact(controller, contact, this.plain.controllers.get(controller)!.contacts![contact].rests ?? 0);
    return this.state;
  }

  private settle(): Ran {
    const limit = this.plain.rig.message_limit ?? 10_000;
    for (;;) {
      if (this.messages > limit) return this.ended('gave-up');
      if (this.queue.length === 0) return this.ended('settled');
      if (this.queue.length > 1) this.queue.sort((a, b) => a.time - b.time || a.order - b.order);
      const isLong = this.messages > Math.min(48, limit / 4);
      if (isLong && this.plain.runsInCircles && this.wasHere(this.queue[0].time)) return this.ended('never');
      const next = this.queue.shift()!;
      next.act(next.time);
    }
  }

  private ended(outcome: Ran['outcome']): Ran {
    return { state: this.state, outcome, points: this.points };
  }

  /** Whether the configuration, with all that is on its way, was there before. */
  private wasHere(now: number): boolean {
    const left = (times: ReadonlyMap<string, number>, counts: (id: string) => boolean) =>
      [...times].flatMap(([id, time]) => (counts(id) ? [`${id}=${Math.max(0, time - now)}`] : []));
    const key = JSON.stringify([
      this.queue.map(({ name, time }) => `${name()}@${time - now}`),
      left(this.line, () => true),
      left(this.busy, (id) => {
        const device = this.plain.devices.get(id)!;
        return device.busy_policy !== 'queue' || device.emits !== undefined;
      }),
      [...this.state],
    ]);
    if (this.seen.has(key)) return true;
    this.seen.add(key);
    return false;
  }

  private later(time: number, name: () => string, act: (time: number) => void): void {
    this.queue.push({ time, order: (this.order += 1), name, act });
  }

  private loses(kind: LossKind): boolean {
    this.points.push(kind);
    return this.points.length - 1 === this.lost;
  }

  // ---- controllers ----

  private press(id: string, slot: string): void {
    const controller = this.plain.controllers.get(id)!;
    const repeats = this.state.get(`${id}:current`) === slot;
    if (repeats && controller.repeat_press === 'ignored') return;
    const before = this.state.get(`${id}:before`) ?? nobody;
    this.fire(id, repeats && before !== nobody ? String(before) : slot, 0);
  }

  private fire(id: string, slot: string, time: number): void {
    const { state, plain: rig } = this;
    const controller = rig.controllers.get(id)!;
    state.set(`${id}:bank`, controller.slots![slot].bank ?? 0);
    if (controller.repeat_press === 'alternates') state.set(`${id}:before`, state.get(`${id}:current`)!);
    if (remembersSlot(controller)) state.set(`${id}:current`, slot);
    this.perform(id, `slot ${slot}`, rig.actionsOf(id, slot), 0, time, true);
  }

  private perform(
    id: string,
    name: string,
    actions: readonly PlainAction[],
    from: number,
    time: number,
    opens: boolean,
  ): void {
    for (let i = from; i < actions.length; i += 1) {
      const action = actions[i];
      if ('wait_ms' in action) {
        const at = Math.max(time, this.line.get(id) ?? 0) + Math.round(Number(action.wait_ms) * 1000);
        return this.later(
          at,
          () => `${id} goes on with ${name} from ${i + 1}`,
          (now) => this.perform(id, name, actions, i + 1, now, opens),
        );
      }
      if ('pc' in action || 'cc' in action) this.send(id, action as unknown as Message, time);
      else if ('loop' in action) this.state.set(`${id}.${action.loop}`, Number(action.to ?? 0));
      else if ('contact' in action) this.moveContact(id, String(action.contact), closes(action) ? 1 : 0);
      else if ('save' in action) this.state.set(`${id}:saved ${action.save}`, this.state.get(`${id}.${action.save}`)!);
      else {
        const saved = this.state.get(`${id}:saved ${action.restore}`)!;
        if (saved !== nobody) this.state.set(`${id}.${action.restore}`, saved);
      }
    }
    if (opens) this.openHeld(id, actions);
  }

  private openHeld(id: string, actions: readonly PlainAction[]): void {
    const { contacts } = this.plain.controllers.get(id)!;
    for (const action of actions)
      if ('contact' in action && contacts?.[action.contact]?.kind === 'held') {
        const rests = contacts[action.contact].rests ?? 0;
        if (closes(action) !== (rests === 1)) this.setContact(id, String(action.contact), rests);
      }
  }

  private moveContact(id: string, contact: string, to: 0 | 1): void {
    const facts = this.plain.controllers.get(id)!.contacts![contact];
    if (facts.kind !== 'pulsed') return this.setContact(id, contact, to);
    const believes = facts.policy === 'belief' && this.state.get(`${id}:belief ${contact}`) === to;
    for (const [from, name, device, input] of this.plain.rig.contacts ?? []) {
      if (from !== id || name !== contact || this.loses('edge') || believes) continue;
      if (this.plain.devices.get(device)!.inputs![input].kind === 'edge') this.setBit(device, input, 'flip');
      else for (const bit of [1, 0] as const) this.setBit(device, input, bit);
    }
    if (facts.policy === 'belief') this.state.set(`${id}:belief ${contact}`, to);
  }

  private setContact(id: string, contact: string, to: 0 | 1): void {
    const was = this.state.get(`${id}:contact ${contact}`);
    for (const [from, name, device, input] of this.plain.rig.contacts ?? []) {
      if (from !== id || name !== contact) continue;
      if (this.plain.devices.get(device)!.inputs![input].kind !== 'edge') this.setBit(device, input, to);
      else if (to === 1 && !this.loses('edge') && was === 0) this.setBit(device, input, 'flip');
    }
    this.state.set(`${id}:contact ${contact}`, to);
  }

  private moveBank(id: string, by: 1 | -1): void {
    const controller = this.plain.controllers.get(id)!;
    const slots = Object.entries(controller.slots ?? {});
    const banks = banksOf(controller);
    const to = (((Number(this.state.get(`${id}:bank`)) + by) % banks) + banks) % banks;
    this.state.set(`${id}:bank`, to);
    if (controller.bank_move !== 'fires') return;
    const current = controller.slots?.[String(this.state.get(`${id}:current`))];
    const found = slots.find(([, slot]) => (slot.bank ?? 0) === to && (slot.pos ?? 0) === (current?.pos ?? 0));
    if (found) this.fire(id, found[0], 0);
  }

  private momentary(id: string, name: string, kind: 'hold' | 'release'): void {
    const { press, release } = this.plain.controllers.get(id)!.momentary![name];
    this.state.set(`${id}:held ${name}`, kind === 'hold' ? 1 : 0);
    if (kind === 'hold') return this.perform(id, `hold ${name}`, press ?? [], 0, 0, false);
    this.openHeld(id, press ?? []);
    this.perform(id, `release ${name}`, release ?? [], 0, 0, false);
  }

  // ---- messages ----

  private overLine(id: string, message: Message, time: number): number {
    const bytes = message.pc === undefined ? 3 : 2;
    const at = Math.max(time, this.line.get(id) ?? 0) + bytes * byteTime;
    this.line.set(id, at);
    return at;
  }

  private send(id: string, message: Message, time: number): void {
    const at = this.overLine(id, message, time);
    const to = this.plain.linksFrom(id).sends;
    if (to.length > 0 && !this.loses('sent')) this.cross(to, message, at);
  }

  private cross(to: readonly string[], message: Message, time: number): void {
    for (const id of to) {
      if (this.loses('link')) continue;
      this.messages += 1;
      this.later(
        time,
        () => `${id} gets ${JSON.stringify(message)}`,
        (now) => this.arrive(id, message, now),
      );
    }
  }

  private arrive(id: string, message: Message, time: number): void {
    this.cross(this.plain.linksFrom(id).passes, message, time);
    const merged = this.plain.linksFrom(id).merges;
    if (merged.length > 0) this.cross(merged, message, this.overLine(id, message, time));
    const device = this.plain.devices.get(id);
    const controller = this.plain.controllers.get(id);
    const called =
      controller?.rx === message.ch && message.pc !== undefined ? controller.pc_map?.[String(message.pc)] : undefined;
    const listens = device !== undefined && (device.omni === true || device.ch === message.ch);
    if ((!listens && called === undefined) || this.loses('receiver')) return;
    if (called !== undefined && !(controller!.call_repeat === 'ignored' && this.state.get(`${id}:current`) === called))
      this.fire(id, called, time);
    if (listens) this.take(id, device, message, time);
  }

  /**
   * A device takes a message in: at once, when it has loaded, or not at all. Where nothing but its messages moves it
   * and it sends nothing on, waiting makes no difference but to what it is busy with.
   */
  private take(id: string, device: Device, message: Message, time: number): void {
    const until = this.busy.get(id) ?? 0;
    const behind = this.letWait.get(id) ?? 0;
    if (time >= until && behind === 0) return this.obey(id, device, message, time);
    if (device.busy_policy !== 'queue') return;
    if (device.emits === undefined && device.inputs === undefined) return this.obey(id, device, message, until);
    this.letWait.set(id, behind + 1);
    const name = () => `${id} lets wait ${JSON.stringify(message)}`;
    const again = (now: number): void => {
      const busy = this.busy.get(id) ?? 0;
      if (now < busy) return this.later(busy, name, again);
      this.letWait.set(id, this.letWait.get(id)! - 1);
      this.obey(id, device, message, now);
    };
    this.later(Math.max(time, until), name, again);
  }

  private obey(id: string, device: Device, message: Message, time: number): void {
    if (message.pc !== undefined) return this.recall(id, device, message.pc, time);
    const { presets } = device;
    const scheme = presets?.scheme ?? 'none';
    const isMsb = message.cc === bankSelectMsb && (scheme === 'msb' || scheme === 'both');
    const isLsb = message.cc === bankSelectLsb && (scheme === 'lsb' || scheme === 'both');
    if (isMsb || isLsb) {
      const bank = Number(this.state.get(`${id}:selected`));
      const value = message.val!;
      const both = isMsb ? value * 128 + (bank % 128) : Math.floor(bank / 128) * 128 + value;
      this.state.set(`${id}:selected`, scheme === 'both' ? both : value);
      return;
    }
    for (const answer of device.cc ?? [])
      if (answer.cc === message.cc) this.answer(id, device, answer, message.val!, time);
  }

  private recall(id: string, device: Device, program: number, time: number): void {
    const { presets } = device;
    if (!presets) return;
    const hasBanks = (presets.scheme ?? 'none') !== 'none';
    const bank = hasBanks ? Number(this.state.get(`${id}:selected`)) : 0;
    if (hasBanks && presets.sticky !== true) this.state.set(`${id}:selected`, homeOf(presets));
    const number = bank * (presets.bank_size ?? 128) + program;
    if (!numbersOf(device).includes(number)) return;
    const repeats = this.state.get(`${id}.preset`) === number;
    const repeat = presets.repeat ?? 'reload';
    if (repeats && repeat === 'ignored') return;
    const flips = flipsOf(presets);
    if (repeats && flips !== undefined) return this.flip(id, device, flips);
    this.load(id, device, repeats && repeat === 'alternates' ? Number(this.state.get(`${id}:preset before`)) : number);
    this.loaded(id, device, time);
  }

  private load(id: string, device: Device, number: number): void {
    if (device.presets!.repeat === 'alternates') this.state.set(`${id}:preset before`, this.state.get(`${id}.preset`)!);
    this.state.set(`${id}.preset`, number);
    for (const [control, facts] of Object.entries(device.controls ?? {})) {
      if (facts.scope !== 'preset' || isHeld(facts)) continue;
      const stored = contentOf(this.plain.rig, this.contents, id, number, control);
      if (stored !== undefined) this.state.set(`${id}.${control}`, stored);
    }
  }

  private loaded(id: string, device: Device, time: number): void {
    if (device.busy_ms) this.busy.set(id, time + device.busy_ms * 1000);
    if (device.emits === undefined) return;
    const [first] = typeof device.emits === 'number' ? [{ ch: device.emits }] : listOf(device.emits);
    const pc = Number(this.state.get(`${id}.preset`)) % (device.presets!.bank_size ?? 128);
    this.send(id, { pc, ch: first.ch }, time);
  }

  private answer(id: string, device: Device, answer: Answer, value: number, time: number): void {
    if (!this.isArmed(id, answer)) return;
    const set = answer.mode === 'abs' ? this.setBy(answer, device, value) : undefined;
    if (answer.mode === 'abs' && set === undefined) return;
    if (answer.control === 'preset') return this.stepPreset(id, device, answer.by ?? 1, answer.wrap ?? false, time);
    const facts = device.controls?.[answer.control];
    if (!facts || isHeld(facts)) return;
    const name = `${id}.${answer.control}`;
    if (set !== undefined) this.state.set(name, set);
    else if (answer.mode === 'switch') this.state.set(name, facts.domain[value >= 64 ? 1 : 0]);
    else if (answer.mode === 'toggle') this.flip(id, device, answer.control);
    else this.step(id, device, answer.control, answer.by ?? 1, answer.wrap ?? false);
    const now = plain(this.state.get(name)!);
    if (!answer.exclusive || now === 0 || now === 'off') return;
    for (const other of answer.exclusive) {
      const others = device.controls?.[other];
      if (others && !isHeld(others)) this.state.set(`${id}.${other}`, others.domain[0]);
    }
  }

  private isArmed(id: string, told: object): boolean {
    const { armed } = told as { readonly armed?: { readonly control: string; readonly values: readonly Value[] } };
    return !armed || armed.values.includes(plain(this.state.get(`${id}.${armed.control}`)!));
  }

  /** What an absolute message sets: by its table, a number itself, a word by its place. */
  private setBy({ table, control }: Answer, device: Device, value: number): Value | undefined {
    if (table) return table[String(value)];
    const domain = device.controls?.[control]?.domain ?? [];
    return domain.every((option) => typeof option === 'number') ? value : domain[value];
  }

  private stepPreset(id: string, device: Device, by: number, wrap: boolean, time: number): void {
    const numbers = numbersOf(device);
    if (numbers.length === 0) return;
    const now = Number(this.state.get(`${id}.preset`));
    const next = stepped(numbers, numbers.indexOf(now), by, wrap);
    if (next === now) return;
    this.load(id, device, next);
    this.loaded(id, device, time);
  }

  private foot(id: string, does: Readonly<Record<string, unknown>>): void {
    const device = this.plain.devices.get(id)!;
    if ('flip_bit' in does) return this.setBit(id, String(does.flip_bit), 'flip');
    if (!this.isArmed(id, does)) return;
    if ('turn' in does) {
      const facts = device.controls?.[String(does.turn)];
      const table = does.table as Readonly<Record<string, Value>>;
      if (facts && !isHeld(facts))
        this.change(`${id}.${String(does.turn)}`, (value) => table[String(value)] ?? value, facts.domain);
      return;
    }
    if ('put' in does) {
      const facts = device.controls?.[String(does.put)];
      if (facts && !isHeld(facts)) this.state.set(`${id}.${String(does.put)}`, does.to as Value);
      return;
    }
    if ('toggle' in does && does.toggle !== 'preset') return this.flip(id, device, String(does.toggle));
    const by = does.by === undefined ? 1 : Number(does.by);
    const wrap = does.wrap === undefined ? true : Boolean(does.wrap);
    if (does.next === 'preset' || does.toggle === 'preset') return this.stepPreset(id, device, by, wrap, 0);
    this.step(id, device, String(does.next), by, wrap);
  }

  private flip(id: string, device: Device, control: string): void {
    const facts = device.controls?.[control];
    if (!facts || isHeld(facts)) return;
    const [off, on] = facts.domain;
    this.change(`${id}.${control}`, (value) => (value === off ? on : off), facts.domain);
  }

  private step(id: string, device: Device, control: string, by: number, wrap: boolean): void {
    const facts = device.controls?.[control];
    if (!facts || isHeld(facts)) return;
    this.change(
      `${id}.${control}`,
      (value) => stepped(facts.domain, facts.domain.indexOf(value), by, wrap),
      facts.domain,
    );
  }

  /** Moves a value; what was unknown stays so, unless every content comes to the same. */
  private change(name: string, to: (value: Value) => Value, domain: readonly Value[]): void {
    const value = this.state.get(name)!;
    if (plain(value) === value) this.state.set(name, to(value));
    else this.state.set(name, new Set(domain.map(to)).size === 1 ? to(plain(value)) : unknown(to(plain(value))));
  }

  private setBit(id: string, input: string, to: 0 | 1 | 'flip'): void {
    const name = `${id}:bit ${input}`;
    const was = Number(this.state.get(name));
    const now = to === 'flip' ? 1 - was : to;
    this.state.set(name, now);
    for (const [control, facts] of Object.entries(this.plain.devices.get(id)!.controls ?? {}))
      if (facts.bits?.includes(input) && (now !== was || isHeld(facts)))
        this.state.set(`${id}.${control}`, this.byBitsOf(id, facts));
  }

  private byBitsOf(id: string, facts: Control): Value {
    const bits = facts.bits!.map((bit) => this.state.get(`${id}:bit ${bit}`)).join('');
    const found = Object.entries(facts.table ?? {}).find(([key]) => key.replace(/[^01]/g, '') === bits);
    return found ? found[1] : facts.domain[0];
  }
}

/** A contact that is held closes where nothing is said of it. */
const closes = ({ to }: PlainAction): boolean => to === undefined || to === 1;

/** Whether inputs hold a control: then nothing else moves it. */
const isHeld = (facts: Control): boolean => facts.bits !== undefined && facts.inputs === 'hold';

function stepped<T>(list: readonly T[], at: number, by: number, wrap: boolean): T {
  const count = list.length;
  const to = at + by;
  return list[wrap ? ((to % count) + count) % count : Math.min(count - 1, Math.max(0, to))];
}

function flipsOf(presets: NonNullable<Device['presets']>): string | undefined {
  const { repeat } = presets;
  if (typeof repeat === 'object') return repeat.flips ?? repeat.control;
  return repeat?.startsWith('flips') ? (presets.flips ?? repeat.slice(6).trim()) : undefined;
}

export function banksOf(controller: Controller): number {
  return controller.banks ?? Math.max(0, ...Object.values(controller.slots ?? {}).map(({ bank }) => bank ?? 0)) + 1;
}
