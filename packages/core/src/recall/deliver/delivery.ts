import { restOf } from '../../model/anatomy.ts';
import { byteLength, byteMicroseconds, type MidiMessage } from '../../midi/message.ts';
import type { Action } from '../../model/rig.ts';
import type { MidiLink } from '../../model/wiring.ts';
import { assertNever } from '../../units/problem.ts';
import { receive } from '../device/receive.ts';
import { noPoints, type Recording } from '../device/recording.ts';
import { setUpdate } from '../device/stored-controls.ts';
import { constant, type Running, type Update, update } from '../device/update.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noVariable } from '../state/ids.ts';
import {
  type ModelController,
  type ModelDevice,
  type ModelSlot,
  positionKey,
  type StateModel,
} from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import { type Carrier, leavesRest, type LocalAct, moveContact, setContact } from './contacts.ts';
import { EventQueue } from './event-queue.ts';
import type { LossyPoint } from './losses.ts';
import { performStraight } from './straight-press.ts';

/** Thrown while recording where the delivery itself depends on the rig's state. */
export class DependsOnState extends Error {}

/** What a run tells whoever watches: the simulated rig shows it, the proof does not ask. */
export interface Watcher {
  readonly sent?: (from: string, message: MidiMessage, time: number) => void;
  readonly fired?: (slot: ModelSlot, time: number) => void;
  readonly arrived?: (at: string, message: MidiMessage, time: number) => void;
}

type Item =
  | {
      readonly kind: 'message';
      readonly time: number;
      readonly seq: number;
      readonly to: ModelDevice;
      readonly message: MidiMessage;
      readonly points: readonly number[];
    }
  /** A list of actions that goes on after a wait. */
  | { readonly kind: 'list'; readonly time: number; readonly seq: number; readonly list: ActionList };

/** Actions that a controller performs one after the other, from one of them on. */
interface ActionList {
  readonly device: ModelDevice;
  readonly actions: readonly Action[];
  readonly next: number;
  /** Whether contacts that it closes for as long as a switch is held open at its end, or stay closed. */
  readonly held: 'press' | 'stay';
  readonly points: readonly number[];
}

const nameOf = (item: Item): string =>
  item.kind === 'message'
    ? `${item.to.index}<${JSON.stringify(item.message)}`
    : `${item.list.device.index}!${item.list.next} of ${JSON.stringify(item.list.actions)} ${item.list.held}`;

export type Outcome = 'settled' | 'never-settles' | 'gave-up';

/**
 * One event on its way through the wiring: what a controller's actions send, when each message's last byte arrives
 * (320 µs a byte, one after the other from one sender), who passes it on, what it fires in turn.
 * With `into`, what is done is given to that instead of applied, and reading the state throws DependsOnState;
 * `survey` besides looks at everything that may be done, once, whatever the state.
 */
export class Delivery implements Carrier {
  readonly points: LossyPoint[] = [];
  // Made when they are needed: a straight press, recorded, needs none of them.
  private running: Running | undefined;
  private queue: EventQueue<Item> | undefined;
  private lineFree: Map<number, number> | undefined;
  private seen: Set<string> | undefined;
  private surveyed: Set<string> | undefined;
  private marker = '';
  private markAgain = 0;
  private seq = 0;
  private messages = 0;

  constructor(
    readonly model: StateModel,
    private readonly store: Store,
    private readonly options: {
      readonly into?: Recording;
      readonly survey?: boolean;
      readonly straight?: boolean;
      readonly lost?: number;
      readonly watcher?: Watcher;
    } = {},
  ) {}

  /** Runs until quiet. */
  settle(): Outcome {
    for (;;) {
      if (this.messages > this.model.messageLimit) return 'gave-up';
      const { queue } = this;
      if (!queue || queue.size === 0) return 'settled';
      if (this.repeats(queue)) return 'never-settles';
      const item = queue.take();
      if (item.kind === 'list') this.carryOn(item.list, item.time);
      else this.arrive(item.to, item.message, item.time, item.points);
    }
  }

  /**
   * A configuration with its queue that was there before comes back for ever. Looked for only where messages can
   * come round, once an event has grown long, and only when what was next then is next again.
   */
  private repeats(queue: EventQueue<Item>): boolean {
    const from = Math.min(48, this.model.messageLimit / 4);
    if (!this.model.mayFeedBack || this.options.survey || this.messages < from) return false;
    const next = queue.first();
    const name = nameOf(next);
    if (this.messages >= this.markAgain) {
      this.marker = name;
      this.markAgain = this.messages * 2;
    }
    if (name !== this.marker) return false;
    const key = this.configuration(queue, next.time);
    this.seen ??= new Set();
    if (this.seen.has(key)) return true;
    this.seen.add(key);
    return false;
  }

  private configuration(queue: EventQueue<Item>, now: number): string {
    const items = queue.inOrder().map((item) => `${nameOf(item)}@${item.time - now}`);
    const loading = [...(this.running?.busyUntil ?? [])].filter(([device]) =>
      this.loadingMatters(this.model.devices[device]),
    );
    const clocks = [...(this.lineFree ?? []), ...loading].map(
      ([device, time]) => `${device}=${Math.max(0, time - now)}`,
    );
    return `${items.join(';')}|${clocks.join(';')}|${this.options.into ? '' : this.store.key()}`;
  }

  /**
   * A device that lets messages wait while it loads, and sends none on, does in the end what it would have done at
   * once: how far it is behind makes no difference.
   */
  private loadingMatters({ wired: { anatomy } }: ModelDevice): boolean {
    return anatomy.busy?.policy === 'drop' || anatomy.emits !== undefined;
  }

  /** Surveying, each thing is looked at once: what an event may touch, whatever the state. */
  private first(key: string): boolean {
    this.surveyed ??= new Set();
    if (this.surveyed.has(key)) return false;
    this.surveyed.add(key);
    return true;
  }

  read(variable: VariableId): number {
    if (this.options.into) throw new DependsOnState();
    return this.store.get(variable);
  }

  emit(update: Update, time: number, points: readonly number[]): void {
    const { into, survey } = this.options;
    if (into) {
      if (update.mayEmit && !survey) throw new DependsOnState();
      into.take(update, time, points);
      if (update.mayEmit)
        for (let program = 0; program < 128; program += 1) this.sendOn(update, { emits: program, time }, points);
      return;
    }
    this.running ??= { busyUntil: new Map() };
    const applied = update.apply(this.store, this.running, time);
    if (applied) this.sendOn(update, applied, points);
  }

  write(variable: VariableId, value: ValueId, time: number, points: readonly number[]): void {
    if (variable >= 0) this.emit(constant(this.model, variable, value), time, points);
  }

  private sendOn(update: Update, applied: { emits: number; time: number }, points: readonly number[]): void {
    const device = this.model.devices[update.device];
    this.send(
      device,
      { kind: 'program', channel: device.wired.anatomy.emits!.channel, program: applied.emits },
      applied.time,
      points,
    );
  }

  /** A point where what passes can be lost; true where this run loses it. */
  lossy(kind: LossyPoint['kind'], device: ModelDevice): { readonly id: number; readonly lost: boolean } {
    const id = this.points.length;
    this.points.push({ id, kind, device });
    return { id, lost: this.options.lost === id };
  }

  /** Puts a message on a device's line behind what already waits there. */
  send(from: ModelDevice, message: MidiMessage, now: number, points: readonly number[]): void {
    const arrival = this.overLine(from, message, now);
    if (from.sendsTo.length === 0) return;
    this.options.watcher?.sent?.(from.id, message, arrival);
    const sent = this.lossy('sent', from);
    if (sent.lost) return;
    this.passOn(from.sendsTo, message, arrival, [...points, sent.id]);
  }

  /** When a message's last byte has left, behind what waits on a device's line. */
  private overLine(from: ModelDevice, message: MidiMessage, now: number): number {
    const arrival = Math.max(now, this.freeFrom(from)) + byteLength(message) * byteMicroseconds;
    this.lineFree ??= new Map();
    this.lineFree.set(from.index, arrival);
    return arrival;
  }

  /** When a device's line is free again. */
  private freeFrom(device: ModelDevice): number {
    return this.lineFree?.get(device.index) ?? 0;
  }

  private enqueue(item: Item): void {
    this.queue ??= new EventQueue();
    this.queue.add(item);
  }

  private passOn(links: readonly MidiLink[], message: MidiMessage, time: number, points: readonly number[]): void {
    for (const link of links) {
      const to = this.model.device.get(link.to)!;
      const crossed = this.lossy('link', to);
      if (crossed.lost) continue;
      this.enqueue({ kind: 'message', time, seq: (this.seq += 1), to, message, points: [...points, crossed.id] });
      this.messages += 1;
    }
  }

  /**
   * A message's last byte is there: passed through at once, merged in behind what the device's own output sends, taken
   * in where the channel is this device's.
   */
  arrive(device: ModelDevice, message: MidiMessage, time: number, points: readonly number[]): void {
    if (this.options.survey && !this.first(`${device.index}<${JSON.stringify(message)}`)) return;
    this.options.watcher?.arrived?.(device.id, message, time);
    this.passOn(device.passesThrough, message, time, points);
    if (device.mergesTo.length > 0) this.passOn(device.mergesTo, message, this.overLine(device, message, time), points);
    if (!('channel' in message)) return;
    const { channel, calls } = device.wired.device;
    const listens = channel === 'omni' || channel === message.channel;
    const called =
      calls && calls.channel === message.channel && message.kind === 'program'
        ? calls.programs[String(message.program)]
        : undefined;
    if (!listens && called === undefined) return;
    const taken = this.lossy('receiver', device);
    if (taken.lost) return;
    const here = [...points, taken.id];
    if (called !== undefined) this.call(device, called, time, here);
    if (listens) for (const update of receive(this.model, device, message)) this.emit(update, time, here);
  }

  private call(device: ModelDevice, slotId: string, time: number, points: readonly number[]): void {
    const slot = this.model.slot.get(slotId);
    const { controller } = device;
    if (!slot || !controller) return;
    if (
      !this.options.survey &&
      controller.facts.callRepeat === 'ignored' &&
      this.read(controller.currentSlot) === this.model.values.id(slot.slot.id)
    )
      return;
    this.fire(slot, time, points);
  }

  /** Fires a slot whatever was current before: it and its bank become the current ones. */
  fire(slot: ModelSlot, time: number, points: readonly number[]): void {
    if (this.options.survey && !this.first(`!${slot.index}`)) return;
    const device = this.model.device.get(slot.slot.controller)!;
    const controller = device.controller!;
    const { values } = this.model;
    this.options.watcher?.fired?.(slot, time);
    this.write(controller.bank, values.id(slot.slot.bank), time, points);
    if (controller.previousSlot >= 0) {
      const { currentSlot, previousSlot } = controller;
      this.emit(
        update(
          device.index,
          [previousSlot],
          (store) => (store.has(previousSlot) && store.set(previousSlot, store.get(currentSlot)), undefined),
        ),
        time,
        points,
      );
    }
    this.write(controller.currentSlot, values.id(slot.slot.id), time, points);
    this.perform(device, controller, slot.actions, time, points, 'press');
  }

  /** Performs actions from `time`; a held contact opens again at the end of a slot's press. */
  perform(
    device: ModelDevice,
    controller: ModelController,
    actions: readonly Action[],
    time: number,
    points: readonly number[],
    held: 'press' | 'stay',
  ): void {
    if (this.options.straight) {
      this.messages += performStraight(this, this.options.into!, device, controller, actions, time, held);
      return;
    }
    this.carryOn({ device, actions, next: 0, held, points }, time);
  }

  /**
   * Performs a list as far as its next wait, which runs from when the bytes already queued have left. A wait holds up
   * its own list alone: what another list sends meanwhile leaves at once.
   */
  private carryOn(list: ActionList, now: number): void {
    const { device, actions, held, points } = list;
    for (let i = list.next; i < actions.length; i += 1) {
      const action = actions[i];
      if (action.kind === 'program' || action.kind === 'control') this.send(device, action, now, points);
      else if (action.kind !== 'wait') this.actNow(device, action, now, points);
      else if (!this.options.survey) {
        const time = Math.max(now, this.freeFrom(device)) + Math.round(action.ms * 1000);
        if (time > now)
          return this.enqueue({ kind: 'list', time, seq: (this.seq += 1), list: { ...list, next: i + 1 } });
      }
    }
    if (held === 'stay') return;
    for (const action of actions)
      if (action.kind === 'contact' && leavesRest(device.controller!, action))
        this.actNow(device, { kind: 'rest', contact: action.contact }, now, points);
  }

  actNow(device: ModelDevice, act: LocalAct, now: number, points: readonly number[]): void {
    const controller = device.controller!;
    switch (act.kind) {
      case 'set': {
        const set = setUpdate(this.model, device, act.control, act.value);
        if (set) this.emit(set, now, points);
        return;
      }
      case 'contact':
        return moveContact(this, controller, act.contact, act.to, now, points);
      case 'rest':
        return setContact(this, controller, act.contact, restOf(controller.facts, act.contact), now, points);
      case 'save':
        return this.copy(
          device.controls.get(act.control)?.variable ?? noVariable,
          controller.saved.get(act.control) ?? noVariable,
          now,
          points,
        );
      case 'restore':
        return this.copy(
          controller.saved.get(act.control) ?? noVariable,
          device.controls.get(act.control)?.variable ?? noVariable,
          now,
          points,
        );
      default:
        assertNever(act, 'act');
    }
  }

  private copy(from: number, to: number, time: number, points: readonly number[]): void {
    if (from < 0 || to < 0) return;
    const none = this.model.values.id('');
    const apply: Update['apply'] = (store) => {
      if (!store.has(to)) return undefined;
      const value = store.get(from);
      if (value !== none) store.set(to, value);
      return undefined;
    };
    this.emit(update(this.model.variables[to].owner, [to], apply), time, points);
  }

  /**
   * A press as the foot makes it: what the controller does about a press of the slot that is current already. Where it
   * would go back to the slot before and there was none, it is an ordinary press.
   */
  press(slot: ModelSlot): void {
    const { controller } = this.model.device.get(slot.slot.controller)!;
    const { values } = this.model;
    const { repeatPress } = controller!.facts;
    if (this.options.survey) {
      for (const other of repeatPress === 'alternates'
        ? [...controller!.at.values()].map((index) => this.model.slots[index])
        : [slot])
        this.fire(other, 0, []);
      return;
    }
    if (repeatPress !== 'fires' && this.read(controller!.currentSlot) === values.id(slot.slot.id)) {
      if (repeatPress === 'ignored') return;
      const before = this.model.slot.get(String(values.controlValue(this.read(controller!.previousSlot))));
      return this.fire(before ?? slot, 0, []);
    }
    this.fire(slot, 0, []);
  }

  /**
   * A bank move; where the type fires a slot with it, the same position of the new bank (the first with no current
   * slot).
   */
  moveBank(device: ModelDevice, by: 1 | -1): void {
    const controller = device.controller!;
    const { values } = this.model;
    const { banks, bankMove } = controller.facts;
    const { bank } = controller;
    const target = (now: number) => (((now + by) % banks) + banks) % banks;
    if (bankMove === 'silent') {
      this.emit(
        update(
          device.index,
          [bank],
          (store) => (store.has(bank) && store.set(bank, values.id(target(values.number(store.get(bank))))), undefined),
        ),
        0,
        noPoints,
      );
      return;
    }
    if (this.options.survey) {
      this.write(bank, values.id(0), 0, []);
      for (const index of controller.at.values()) this.fire(this.model.slots[index], 0, []);
      return;
    }
    const to = target(values.number(this.read(bank)));
    this.write(bank, values.id(to), 0, []);
    const current = this.model.slot.get(String(values.controlValue(this.read(controller.currentSlot))));
    const index = controller.at.get(positionKey(to, current?.slot.position ?? 0));
    const slot = index === undefined ? undefined : this.model.slots[index];
    if (slot) this.fire(slot, 0, []);
  }
}
