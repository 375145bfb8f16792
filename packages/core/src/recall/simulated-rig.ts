import { encode, hex, type MidiMessage } from '../midi/message.ts';
import { noted } from '../model/notes.ts';
import type { Sequence, SequenceStep } from './sequence.ts';
import type { Choices } from './choices.ts';
import { Delivery, type Watcher } from './delivery.ts';
import { begin, type RigEvent } from './events.ts';
import type { Plant, PlantDevice } from './plant.ts';
import { type Fork, loadedAtPowerUp, openContacts, powerUp } from './power.ts';
import { WholeStore } from './store.ts';
import type { Pins } from './values.ts';

/** What went over the wires during one event. */
export interface Sent {
  readonly from: string;
  readonly bytes: string;
  /** Microseconds from the start of the event to the last byte. */
  readonly at: number;
}

/** What devices come up with whose power-up leaves nothing open, for everything unplugged before; worked out once. */
interface Settled {
  /** 1 for each such device. */
  readonly isAt: Uint8Array;
  readonly values: Int32Array;
}

const settledOf = noted(({ machinery }: Plant) => machinery, settle);

function settle(plant: Plant): Settled {
  const isAt = new Uint8Array(plant.devices.length).fill(1);
  const store = new WholeStore(new Int32Array(plant.variables.length), new Map());
  for (const device of plant.devices)
    powerUp(plant, device, store, true, (open) => {
      isAt[device.index] = 0;
      return open[0];
    });
  return { isAt, values: store.state };
}

/** A simulated rig under the foot: every variable of it, driven by the interpreter that the proof runs on. */
export class SimulatedRig {
  readonly store: WholeStore;
  /** What was sent since it was last emptied. */
  sent: Sent[] = [];
  private readonly watcher: Watcher = { sent: (from, message: MidiMessage, at) => this.sent.push({ from, bytes: hex(encode(message)), at }) };

  /** `choices`: what power-up leaves open, and in which order held switches are let go. `pins`: contents assumed. */
  constructor(
    private readonly plant: Plant,
    private readonly choices: Choices,
    pins: Pins = new Map(),
  ) {
    this.store = new WholeStore(new Int32Array(plant.variables.length), pins);
  }

  /** Everything comes up as a sequence needs it, and slots that fire by themselves do; whether it falls quiet. */
  comeUp({ needs, lostAtPowerUp }: Pick<Sequence, 'needs' | 'lostAtPowerUp'>): boolean {
    const { plant } = this;
    const { isAt, values } = settledOf(plant);
    for (const device of plant.devices) {
      if (isAt[device.index] === 1) for (const variable of device.variables) this.store.set(variable, values[variable]);
      else powerUp(plant, device, this.store, true, this.asNeeded(device, needs));
    }
    let isQuiet = true;
    for (const device of plant.devices) isQuiet = this.fireOwn(device, lostAtPowerUp?.device === device.id ? lostAtPowerUp.point : undefined) && isQuiet;
    return isQuiet;
  }

  private readonly asChosen: Fork = (open) => open[this.choices.of(open.length)];

  private asNeeded(device: PlantDevice, needs: Sequence['needs']): Fork {
    const { values } = this.plant;
    if (!needs.some((need) => need.device === device.id)) return this.asChosen;
    const wanted = new Map(needs.filter((need) => need.device === device.id).map((need) => [need.part, need.value]));
    const { presets } = device;
    const isWanted = (part: string, value: number) => !wanted.has(part) || String(values.literal(value)) === wanted.get(part);
    return (open, variable) => {
      const { part } = this.plant.variables[variable];
      const loads = presets?.variable === variable ? presets.loads.filter((control) => wanted.has(control.id) && loadedAtPowerUp(device, control)) : [];
      if (!wanted.has(part) && loads.length === 0) return open[this.choices.of(open.length)];
      const brings = (value: number) =>
        isWanted(part, value) &&
        loads.every((control) => {
          const content = presets!.content(values.number(value), control);
          return content === undefined || isWanted(control.id, content);
        });
      const fitting = open.filter(brings);
      const among = fitting.length > 0 ? fitting : open;
      return among[this.choices.of(among.length)];
    };
  }

  private fireOwn(device: PlantDevice, lost?: number): boolean {
    const slot = device.controller?.powerUpSlot === undefined ? undefined : this.plant.slot.get(device.controller.powerUpSlot);
    return !slot || this.deliver((delivery) => delivery.fire(slot, 0, []), lost);
  }

  private deliver(act: (delivery: Delivery) => void, lost?: number): boolean {
    const delivery = new Delivery(this.plant, this.store, { watcher: this.watcher, lost });
    act(delivery);
    return delivery.settle() === 'quiet';
  }

  /** Lets a step happen; whether it falls quiet. */
  happen(step: SequenceStep): boolean {
    const event = this.eventOf(step);
    if (!event) return true;
    if (event.kind === 'restart') return this.restart(event.device);
    return this.deliver((delivery) => begin(this.plant, event, delivery), step.lost?.point);
  }

  /** The power of one device goes and comes back: its contacts open, it comes up, and its own slot fires. */
  private restart(device: PlantDevice): boolean {
    const { plant } = this;
    openContacts(plant, device, this.store);
    powerUp(plant, device, this.store, false, this.asChosen);
    return this.fireOwn(device);
  }

  /** A switch that is still held, to be let go next; null where none is. */
  held(): SequenceStep | null {
    const { plant, store } = this;
    const held = plant.devices.flatMap((device) =>
      [...(device.controller?.held ?? [])].flatMap(([momentary, variable]): SequenceStep[] => (plant.values.number(store.get(variable)) === 1 ? [{ kind: 'release', controller: device.id, momentary }] : [])),
    );
    return held.length === 0 ? null : held[this.choices.of(held.length)];
  }

  private eventOf(step: SequenceStep): RigEvent | undefined {
    const { plant } = this;
    switch (step.kind) {
      case 'press': {
        const slot = plant.slot.get(step.slot);
        return slot && { kind: 'press', slot };
      }
      case 'bank':
        return { kind: 'bank', controller: plant.device.get(step.controller)!, by: step.by };
      case 'hold':
      case 'release':
        return { kind: step.kind, controller: plant.device.get(step.controller)!, momentary: step.momentary };
      case 'foot': {
        const device = plant.device.get(step.device)!;
        const footSwitch = device.wired.anatomy.switches.find((one) => one.id === step.switch);
        return footSwitch && { kind: 'foot', device, footSwitch, stray: step.stray };
      }
      case 'cue': {
        const variable = plant.variableOf.get(step.control);
        const literal = Number.isNaN(Number(step.value)) ? step.value : Number(step.value);
        return variable === undefined ? undefined : { kind: 'cue', control: step.control, variable, value: plant.values.id(literal) };
      }
      case 'outside': {
        const device = plant.device.get(step.device)!;
        return { kind: 'outside', device, message: { kind: 'program', channel: step.channel, program: step.program } };
      }
      case 'restart':
        return { kind: 'restart', device: plant.device.get(step.device)! };
    }
  }
}
