import { encode, hex, type MidiMessage } from '../../midi/message.ts';
import { memoised } from '../../model/memo.ts';
import { assertNever } from '../../units/problem.ts';
import { type Choose, loadedAtPowerUp, powerUp } from '../device/power-up.ts';
import type { ValueId } from '../state/ids.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { WholeStore } from '../state/store.ts';
import type { Pins } from '../state/values.ts';
import type { ChoiceSequence } from './choice-sequence.ts';
import { Delivery, type Watcher } from './delivery.ts';
import { begin, type RigEvent } from './events.ts';
import { openContacts } from './power-cut.ts';
import type { Sequence, SequenceStep } from './sequence.ts';

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

const settledOf = memoised(({ modelMemo }: StateModel) => modelMemo, settle);

function settle(model: StateModel): Settled {
  const isAt = new Uint8Array(model.devices.length).fill(1);
  const store = new WholeStore(new Int32Array(model.variables.length), new Map());
  for (const device of model.devices)
    powerUp(model, device, store, true, (open) => {
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
  private readonly watcher: Watcher = {
    sent: (from, message: MidiMessage, at) => this.sent.push({ from, bytes: hex(encode(message)), at }),
  };

  /** `choices`: what power-up leaves open, and in which order held switches are let go. `pins`: contents assumed. */
  constructor(
    private readonly model: StateModel,
    private readonly choices: ChoiceSequence,
    pins: Pins = new Map(),
  ) {
    this.store = new WholeStore(new Int32Array(model.variables.length), pins);
  }

  /** Everything comes up as a sequence needs it, and slots that fire by themselves do; whether it settles. */
  comeUp({ needs, lostAtPowerUp }: Pick<Sequence, 'needs' | 'lostAtPowerUp'>): boolean {
    const { model } = this;
    const { isAt, values } = settledOf(model);
    for (const device of model.devices) {
      if (isAt[device.index] === 1) for (const variable of device.variables) this.store.set(variable, values[variable]);
      else powerUp(model, device, this.store, true, this.asNeeded(device, needs));
    }
    let isSettled = true;
    for (const device of model.devices)
      isSettled =
        this.fireOwn(device, lostAtPowerUp?.firing === device.id ? lostAtPowerUp.point : undefined) && isSettled;
    return isSettled;
  }

  private readonly asChosen: Choose = (open) => open[this.choices.of(open.length)];

  private asNeeded(device: ModelDevice, needs: Sequence['needs']): Choose {
    const { values } = this.model;
    if (!needs.some((need) => need.device === device.id)) return this.asChosen;
    const wanted = new Map(needs.filter((need) => need.device === device.id).map((need) => [need.part, need.value]));
    const { presets } = device;
    const isWanted = (part: string, value: ValueId) =>
      !wanted.has(part) || String(values.controlValue(value)) === wanted.get(part);
    return (open, variable) => {
      const { part } = this.model.variables[variable];
      const loads =
        presets?.variable === variable
          ? presets.loads.filter((control) => wanted.has(control.id) && loadedAtPowerUp(device, control))
          : [];
      if (!wanted.has(part) && loads.length === 0) return open[this.choices.of(open.length)];
      const brings = (value: ValueId) =>
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

  private fireOwn(device: ModelDevice, lost?: number): boolean {
    const slot =
      device.controller?.powerUpSlot === undefined ? undefined : this.model.slot.get(device.controller.powerUpSlot);
    return !slot || this.deliver((delivery) => delivery.fire(slot, 0, []), lost);
  }

  private deliver(act: (delivery: Delivery) => void, lost?: number): boolean {
    const delivery = new Delivery(this.model, this.store, { watcher: this.watcher, lost });
    act(delivery);
    return delivery.settle() === 'settled';
  }

  /** Lets a step happen; whether it settles. */
  happen(step: SequenceStep): boolean {
    const event = this.eventOf(step);
    if (!event) return true;
    if (event.kind === 'restart') return this.restart(event.device);
    return this.deliver((delivery) => begin(this.model, event, delivery), step.lost?.point);
  }

  /** The power of one device goes and comes back: its contacts open, it comes up, and its own slot fires. */
  private restart(device: ModelDevice): boolean {
    const { model } = this;
    openContacts(model, device, this.store);
    powerUp(model, device, this.store, false, this.asChosen);
    return this.fireOwn(device);
  }

  /** A switch that is still held, to be let go next; null where none is. */
  held(): SequenceStep | null {
    const { model, store } = this;
    const held = model.devices.flatMap((device) =>
      [...(device.controller?.held ?? [])].flatMap(([momentary, variable]): SequenceStep[] =>
        model.values.number(store.get(variable)) === 1 ? [{ kind: 'release', controller: device.id, momentary }] : [],
      ),
    );
    return held.length === 0 ? null : held[this.choices.of(held.length)];
  }

  private eventOf(step: SequenceStep): RigEvent | undefined {
    const { model } = this;
    switch (step.kind) {
      case 'press': {
        const slot = model.slot.get(step.slot);
        return slot && { kind: 'press', slot };
      }
      case 'bank':
        return { kind: 'bank', controller: model.device.get(step.controller)!, by: step.by };
      case 'hold':
      case 'release':
        return { kind: step.kind, controller: model.device.get(step.controller)!, momentary: step.momentary };
      case 'foot': {
        const device = model.device.get(step.device)!;
        const footSwitch = device.wired.anatomy.switches.find((footSwitch) => footSwitch.id === step.switch);
        return footSwitch && { kind: 'foot', device, footSwitch, stray: step.stray };
      }
      case 'cue': {
        const variable = model.variableOf.get(step.control);
        const controlValue = Number.isNaN(Number(step.value)) ? step.value : Number(step.value);
        return variable === undefined
          ? undefined
          : { kind: 'cue', control: step.control, variable, value: model.values.id(controlValue) };
      }
      case 'outside': {
        const device = model.device.get(step.device)!;
        return { kind: 'outside', device, message: { kind: 'program', channel: step.channel, program: step.program } };
      }
      case 'restart':
        return { kind: 'restart', device: model.device.get(step.device)! };
      default:
        return assertNever(step, 'step');
    }
  }
}
