import type { Action, FaultKind } from '../model/documents.ts';
import type { MidiLink, ContactLink } from '../model/wiring.ts';
import { byteLength, byteMicroseconds, type MidiMessage } from '../midi/message.ts';
import { assertNever } from '../units/problem.ts';
import { known, moveBit, type Operation, receive, type Running } from './operations.ts';
import { type Plant, type PlantController, type PlantDevice, type PlantSlot, positionKey } from './plant.ts';
import type { Store } from './store.ts';

/** Where a message or a pulse can be lost. */
export interface LossyPoint {
  readonly kind: Exclude<FaultKind, 'restart'>;
  readonly words: string;
}

/** Thrown while recording where the delivery itself depends on the rig's state. */
export class DependsOnState extends Error {}

/** What a run tells whoever watches: the simulated rig shows it, the proof does not ask. */
export interface Watcher {
  readonly sent?: (from: string, message: MidiMessage, time: number) => void;
  readonly fired?: (slot: PlantSlot, time: number) => void;
  readonly arrived?: (at: string, message: MidiMessage, time: number) => void;
}

type Item =
  | { readonly kind: 'message'; readonly time: number; readonly seq: number; readonly to: PlantDevice; readonly message: MidiMessage; readonly points: readonly number[] }
  | { readonly kind: 'fire'; readonly time: number; readonly seq: number; readonly slot: PlantSlot; readonly points: readonly number[] };

export type Outcome = 'quiet' | 'never-quiet' | 'gave-up';

/**
 * One event on its way through the wiring: what a controller's actions send, when each message's last byte arrives
 * (320 µs a byte, one after the other from one sender), who passes it on, what it fires in turn.
 * With `record`, operations are collected instead of applied, and reading the state throws DependsOnState.
 */
export class Delivery {
  readonly operations: Operation[] = [];
  readonly points: LossyPoint[] = [];
  private readonly running: Running = { busyUntil: new Map() };
  private readonly queue: Item[] = [];
  private readonly lineFree = new Map<number, number>();
  private readonly seen = new Set<string>();
  private marker = '';
  private markAgain = 0;
  private seq = 0;
  private messages = 0;

  constructor(
    private readonly plant: Plant,
    private readonly store: Store,
    private readonly options: { readonly record?: boolean; readonly survey?: boolean; readonly lost?: number; readonly watcher?: Watcher } = {},
  ) {}

  /** Runs until quiet. */
  settle(): Outcome {
    while (this.queue.length > 0) {
      if (this.messages > this.plant.messageLimit) return 'gave-up';
      if (this.repeats()) return 'never-quiet';
      const item = this.takeEarliest();
      if (item.kind === 'fire') this.fire(item.slot, item.time, item.points);
      else this.arrive(item.to, item.message, item.time, item.points);
    }
    return 'quiet';
  }

  /**
   * A configuration with its queue that was there before comes back for ever. Looked for only once an event has
   * grown long, and only when the message that was next then is next again.
   */
  private repeats(): boolean {
    const from = Math.min(48, this.plant.messageLimit / 4);
    if (this.options.survey || this.messages < from) return false;
    const next = this.queue[this.earliest()];
    const name = next.kind === 'message' ? `${next.to.index}<${JSON.stringify(next.message)}` : `!${next.slot.index}`;
    if (this.messages >= this.markAgain) {
      this.marker = name;
      this.markAgain = this.messages * 2;
    }
    if (name !== this.marker) return false;
    const key = this.configuration(next.time);
    if (this.seen.has(key)) return true;
    this.seen.add(key);
    return false;
  }

  private configuration(now: number): string {
    const items = this.queue.map((item) => (item.kind === 'message' ? `${item.to.index}<${JSON.stringify(item.message)}@${item.time - now}` : `${item.slot.index}!@${item.time - now}`));
    const clocks = [...this.lineFree, ...this.running.busyUntil].map(([device, time]) => `${device}=${Math.max(0, time - now)}`);
    return `${items.join(';')}|${clocks.join(';')}|${this.options.record ? '' : this.store.key()}`;
  }

  private earliest(): number {
    let best = 0;
    for (let i = 1; i < this.queue.length; i += 1)
      if (this.queue[i].time < this.queue[best].time || (this.queue[i].time === this.queue[best].time && this.queue[i].seq < this.queue[best].seq)) best = i;
    return best;
  }

  private takeEarliest(): Item {
    return this.queue.splice(this.earliest(), 1)[0];
  }

  private readonly surveyed = new Set<string>();

  /** Surveying, each thing is looked at once: what an event may touch, whatever the state. */
  private first(key: string): boolean {
    if (this.surveyed.has(key)) return false;
    this.surveyed.add(key);
    return true;
  }

  read(variable: number): number {
    if (this.options.record) throw new DependsOnState();
    return this.store.get(variable);
  }

  emit(operation: Operation): void {
    if (this.options.record) {
      if (operation.mayEmit && !this.options.survey) throw new DependsOnState();
      this.operations.push(operation);
      if (operation.mayEmit) for (let program = 0; program < 128; program += 1) this.sendOn(operation, { emits: program, time: operation.time });
      return;
    }
    const applied = operation.apply(this.store, this.running);
    if (applied) this.sendOn(operation, applied);
  }

  write(variable: number, value: number, time: number, points: readonly number[]): void {
    if (variable >= 0) this.emit(known({ variable, value }, time, points));
  }

  private sendOn(operation: Operation, applied: { emits: number; time: number }): void {
    const device = this.plant.devices[this.plant.device.get(this.plant.variables[operation.touches[0]].device)!.index];
    this.send(device, { kind: 'program', channel: device.wired.anatomy.emits!.channel, program: applied.emits }, applied.time, operation.points);
  }

  /** A point where what passes can be lost; true where this run loses it. */
  private lossy(kind: LossyPoint['kind'], words: string): { readonly id: number; readonly lost: boolean } {
    const id = this.points.length;
    this.points.push({ kind, words });
    return { id, lost: this.options.lost === id };
  }

  /** Puts a message on a device's line behind what already waits there. */
  send(from: PlantDevice, message: MidiMessage, now: number, points: readonly number[]): void {
    const arrival = Math.max(now, this.lineFree.get(from.index) ?? 0) + byteLength(message) * byteMicroseconds;
    this.lineFree.set(from.index, arrival);
    if (from.sendsTo.length === 0) return;
    this.options.watcher?.sent?.(from.id, message, arrival);
    const sent = this.lossy('sent', `what ${from.wired.device.name} sends`);
    if (sent.lost) return;
    this.passOn(from.sendsTo, message, arrival, [...points, sent.id]);
  }

  private passOn(links: readonly MidiLink[], message: MidiMessage, time: number, points: readonly number[]): void {
    for (const link of links) {
      const to = this.plant.device.get(link.to)!;
      const crossed = this.lossy('link', `on the cable into ${to.wired.device.name}`);
      if (crossed.lost) continue;
      this.queue.push({ kind: 'message', time, seq: (this.seq += 1), to, message, points: [...points, crossed.id] });
      this.messages += 1;
    }
  }

  /** A message's last byte is there: passed on at once, taken in where the channel is this device's. */
  arrive(device: PlantDevice, message: MidiMessage, time: number, points: readonly number[]): void {
    if (this.options.survey && !this.first(`${device.index}<${JSON.stringify(message)}`)) return;
    this.options.watcher?.arrived?.(device.id, message, time);
    this.passOn(device.passesTo, message, time, points);
    if (!('channel' in message)) return;
    const { channel, calls } = device.wired.device;
    const listens = channel === 'omni' || channel === message.channel;
    const called = calls && calls.channel === message.channel && message.kind === 'program' ? calls.programs[String(message.program)] : undefined;
    if (!listens && called === undefined) return;
    const taken = this.lossy('receiver', `at ${device.wired.device.name}`);
    if (taken.lost) return;
    const here = [...points, taken.id];
    if (called !== undefined) this.call(device, called, time, here);
    if (listens) for (const operation of receive(this.plant, device, message, time, here)) this.emit(operation);
  }

  private call(device: PlantDevice, slotId: string, time: number, points: readonly number[]): void {
    const slot = this.plant.slot.get(slotId);
    const { controller } = device;
    if (!slot || !controller) return;
    if (!this.options.survey && controller.facts.callRepeat === 'ignored' && this.read(controller.currentSlot) === this.plant.values.id(slot.slot.id)) return;
    this.fire(slot, time, points);
  }

  /** Fires a slot whatever was current before: it and its bank become the current ones. */
  fire(slot: PlantSlot, time: number, points: readonly number[]): void {
    if (this.options.survey && !this.first(`!${slot.index}`)) return;
    const device = this.plant.device.get(slot.slot.controller)!;
    const controller = device.controller!;
    const { values } = this.plant;
    this.options.watcher?.fired?.(slot, time);
    this.write(controller.bank, values.id(slot.slot.bank), time, points);
    if (controller.previousSlot >= 0) {
      const { currentSlot, previousSlot } = controller;
      this.emit({ touches: [previousSlot], time, points, apply: (store) => (store.has(previousSlot) && store.set(previousSlot, store.get(currentSlot)), undefined) });
    }
    this.write(controller.currentSlot, values.id(slot.slot.id), time, points);
    this.perform(device, controller, slot.actions, time, points, 'press');
  }

  /** Performs actions from `time`; a held contact opens again at the end of a slot's press. */
  perform(device: PlantDevice, controller: PlantController, actions: readonly Action[], time: number, points: readonly number[], held: 'press' | 'stay'): void {
    let now = time;
    const closed: string[] = [];
    for (const action of actions) {
      switch (action.kind) {
        case 'program':
        case 'control':
          this.send(device, action, now, points);
          break;
        case 'wait':
          now = Math.max(now, this.lineFree.get(device.index) ?? 0) + Math.round(action.ms * 1000);
          break;
        case 'loop':
          this.write(device.controls.get(action.loop)?.variable ?? -1, this.plant.values.id(action.to), now, points);
          break;
        case 'contact':
          if (this.contact(device, controller, action.contact, action.to, now, points)) closed.push(action.contact);
          break;
        case 'save':
          this.copy(device.controls.get(action.loop)?.variable ?? -1, controller.saved.get(action.loop) ?? -1, now, points);
          break;
        case 'restore':
          this.copy(controller.saved.get(action.loop) ?? -1, device.controls.get(action.loop)?.variable ?? -1, now, points);
          break;
        default:
          assertNever(action, 'action');
      }
    }
    if (held === 'press') for (const contact of closed) this.setContact(device, controller, contact, 0, now, points);
  }

  private copy(from: number, to: number, time: number, points: readonly number[]): void {
    if (from < 0 || to < 0) return;
    const none = this.plant.values.id('');
    this.emit({
      touches: [to],
      time,
      points,
      apply: (store) => {
        if (!store.has(to)) return undefined;
        const value = store.get(from);
        if (value !== none) store.set(to, value);
        return undefined;
      },
    });
  }

  /** True where a held contact was closed, which must open again. */
  private contact(device: PlantDevice, controller: PlantController, id: string, to: 0 | 1, time: number, points: readonly number[]): boolean {
    const facts = controller.facts.contacts.find((contact) => contact.id === id);
    if (!facts) return false;
    if (facts.kind !== 'pulsed') {
      this.setContact(device, controller, id, to, time, points);
      return facts.kind === 'held' && to === 1;
    }
    const belief = controller.belief.get(id);
    for (const link of controller.wires.get(id) ?? []) this.pulse(link, belief, to, time, points);
    if (belief !== undefined) this.write(belief, this.plant.values.id(to), time, points);
    return false;
  }

  private pulse(link: ContactLink, belief: number | undefined, to: 0 | 1, time: number, points: readonly number[]): void {
    const device = this.plant.device.get(link.device)!;
    const input = device.inputs.get(link.input)!;
    const point = this.lossy('edge', `the pulse into ${device.wired.device.name}`);
    if (point.lost) return;
    const here = [...points, point.id];
    const moves = input.kind === 'edge' ? [moveBit(this.plant, device, input, 'flip', time, here)] : [moveBit(this.plant, device, input, 1, time, here), moveBit(this.plant, device, input, 0, time, here)];
    for (const move of moves) this.emit(belief === undefined ? move : this.onlyIfBeliefDiffers(move, belief, to));
  }

  private onlyIfBeliefDiffers(move: Operation, belief: number, to: 0 | 1): Operation {
    const believed = this.plant.values.id(to);
    return {
      ...move,
      apply: (store, running) => (move.touches.some((variable) => store.has(variable)) && store.get(belief) !== believed ? move.apply(store, running) : undefined),
    };
  }

  /** Opens or closes a latched or held contact: levels follow it, edges answer to its closing. */
  setContact(device: PlantDevice, controller: PlantController, id: string, to: 0 | 1, time: number, points: readonly number[]): void {
    const contact = controller.contact.get(id);
    if (contact === undefined) return;
    for (const link of controller.wires.get(id) ?? []) {
      const target = this.plant.device.get(link.device)!;
      const input = target.inputs.get(link.input)!;
      if (input.kind === 'level') this.emit(moveBit(this.plant, target, input, to, time, points));
      else if (to === 1) this.closing(target, input, contact, time, points);
    }
    this.write(contact, this.plant.values.id(to), time, points);
    void device;
  }

  private closing(target: PlantDevice, input: import('./plant.ts').PlantInput, contact: number, time: number, points: readonly number[]): void {
    const point = this.lossy('edge', `the closing into ${target.wired.device.name}`);
    if (point.lost) return;
    const move = moveBit(this.plant, target, input, 'flip', time, [...points, point.id]);
    const open = this.plant.values.id(0);
    this.emit({ ...move, apply: (store, running) => (move.touches.some((variable) => store.has(variable)) && store.get(contact) === open ? move.apply(store, running) : undefined) });
  }

  /** A press as the foot makes it: what the controller does about a press of the slot that is current already. */
  press(slot: PlantSlot): void {
    const { controller } = this.plant.device.get(slot.slot.controller)!;
    const { values } = this.plant;
    const { repeatPress } = controller!.facts;
    if (this.options.survey) {
      for (const other of repeatPress === 'alternates' ? controller!.at.values() : [slot]) this.fire(other, 0, []);
      return;
    }
    if (repeatPress !== 'fires' && this.read(controller!.currentSlot) === values.id(slot.slot.id)) {
      if (repeatPress === 'ignored') return;
      const before = this.plant.slot.get(String(values.literal(this.read(controller!.previousSlot))));
      if (before) this.fire(before, 0, []);
      return;
    }
    this.fire(slot, 0, []);
  }

  /** A bank move; where the type fires a slot with it, the same position of the new bank (the first with no current slot). */
  moveBank(device: PlantDevice, by: 1 | -1): void {
    const controller = device.controller!;
    const { values } = this.plant;
    const { banks, bankMove } = controller.facts;
    const { bank } = controller;
    const target = (now: number) => (((now + by) % banks) + banks) % banks;
    if (bankMove === 'silent') {
      this.emit({ touches: [bank], time: 0, points: [], apply: (store) => (store.has(bank) && store.set(bank, values.id(target(values.number(store.get(bank))))), undefined) });
      return;
    }
    if (this.options.survey) {
      this.write(bank, values.id(0), 0, []);
      for (const slot of controller.at.values()) this.fire(slot, 0, []);
      return;
    }
    const to = target(values.number(this.read(bank)));
    this.write(bank, values.id(to), 0, []);
    const current = this.plant.slot.get(String(values.literal(this.read(controller.currentSlot))));
    const slot = controller.at.get(positionKey(to, current?.slot.position ?? 0));
    if (slot) this.fire(slot, 0, []);
  }
}
