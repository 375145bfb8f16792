import {
  type Anatomy,
  type Control,
  type ControlMessage,
  type ControlValue,
  domainValues,
  presetExists,
  type PresetFacts,
  presetNumbers,
} from '../../model/anatomy.ts';
import { Memo } from '../../model/memo.ts';
import type { Slot } from '../../model/rig.ts';
import { switchingOf } from '../../model/switching.ts';
import { isHeldByContacts, type MidiLink, type WiredDevice, type Wiring } from '../../model/wiring.ts';
import type { SlotActions } from '../../program/compile.ts';
import { noVariable } from './ids.ts';
import {
  type ModelControl,
  type ModelController,
  type ModelDevice,
  type ModelInput,
  type ModelPresets,
  type ModelSlot,
  positionKey,
  type StateModel,
  type Variable,
  type VariableKind,
} from './state-model.ts';
import { Values } from './values.ts';
import { modelSlot } from './with-slots.ts';

/** Builds the model of a rig whose slots have been compiled to actions. */
export function buildStateModel(wiring: Wiring, actionsOf: (slot: Slot) => SlotActions): StateModel {
  const builder = new Builder(wiring, actionsOf);
  return builder.build();
}

const none: readonly never[] = [];

const noTable: ReadonlyMap<string, number> = new Map();

const noInputs: ReadonlyMap<string, ModelInput> = new Map();

function grouped<K, T>(list: readonly T[], keyOf: (item: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const item of list) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

class Builder {
  private readonly values = new Values();
  private readonly variables: Variable[] = [];
  private readonly variableAt: number[] = [];
  private readonly options = new Map<Control, readonly number[]>();
  private readonly numbers = new Map<PresetFacts, readonly number[]>();
  private readonly ids = new Map<readonly number[], readonly number[]>();
  private readonly messages = new Map<Anatomy, ReadonlyMap<number, readonly ControlMessage[]>>();
  private readonly linksFrom: ReadonlyMap<string, readonly MidiLink[]>;
  /** The device that is being built. */
  private owner = 0;

  constructor(
    private readonly wiring: Wiring,
    private readonly actionsOf: (slot: Slot) => SlotActions,
  ) {
    this.linksFrom = grouped(wiring.midiLinks, ({ from }) => from);
  }

  build(): StateModel {
    const slots = this.slots();
    const devices = this.wiring.devices.map((wired, index) => this.device(wired, index, slots));
    const byId = new Map(devices.map((device) => [device.id, device]));
    const mayFeedBack =
      devices.some((device) => device.wired.device.calls !== undefined || device.wired.anatomy.emits !== undefined) ||
      chainCloses(devices, byId);
    return {
      wiring: this.wiring,
      values: this.values,
      variables: this.variables,
      devices,
      device: byId,
      slots,
      slot: new Map(slots.map((slot) => [slot.slot.id, slot])),
      switching: switchingOf(this.wiring),
      modelMemo: new Memo(),
      messageLimit: this.wiring.rig.settings.messageLimit,
      variableOf: new Map(this.wiring.controls.refs.map((ref, number) => [ref, this.variableAt[number]])),
      variableAt: this.variableAt,
      mayFeedBack,
      isStraight: !mayFeedBack && devices.every(({ mergesTo }) => mergesTo.length === 0),
      mayHold: devices.some(({ controller }) => (controller?.held.size ?? 0) > 0),
      listeners: listenersOf(byId),
    };
  }

  /** In document order: by controller, bank, position. */
  private slots(): ModelSlot[] {
    const order = new Map(this.wiring.devices.map((wired, i) => [wired.device.id, i]));
    return Object.values(this.wiring.rig.slots)
      .filter((slot) => order.has(slot.controller))
      .sort(
        (a, b) =>
          order.get(a.controller)! - order.get(b.controller)! ||
          a.bank - b.bank ||
          a.position - b.position ||
          (a.id < b.id ? -1 : 1),
      )
      .map((slot, index) => modelSlot(index, slot, this.actionsOf));
  }

  private variable(kind: VariableKind, device: string, part: string, control?: Control): number {
    const index = this.variables.length;
    this.variables.push({ index, kind, device, owner: this.owner, part, control });
    return index;
  }

  private device(wired: WiredDevice, index: number, slots: readonly ModelSlot[]): ModelDevice {
    this.owner = index;
    const id = wired.device.id;
    const first = this.variables.length;
    const inputs = this.inputs(id, wired.anatomy.inputs);
    const controls = new Map<string, ModelControl>();
    for (const control of wired.anatomy.controls) controls.set(control.id, this.control(wired, control, inputs));
    const presets = wired.anatomy.presets && this.presets(wired, wired.anatomy.presets, controls);
    const controller = wired.anatomy.controller && this.controller(wired, slots);
    const links = this.linksFrom.get(id) ?? none;
    return {
      index,
      id,
      wired,
      controls,
      inputs,
      messages: this.messagesOf(wired.anatomy),
      presets,
      controller,
      sendsTo: links.length === 0 ? none : links.filter((link) => link.port !== 'thru'),
      passesTo: links.length === 0 ? none : links.filter((link) => link.port !== 'out'),
      passesThrough: links.length === 0 ? none : links.filter((link) => link.port === 'thru'),
      mergesTo: links.length === 0 ? none : links.filter((link) => link.port === 'merge'),
      variables: this.since(first),
    };
  }

  /** The variables that were made from this one on. */
  private since(first: number): readonly number[] {
    const made = new Array<number>(this.variables.length - first);
    for (let i = 0; i < made.length; i += 1) made[i] = first + i;
    return made;
  }

  /** By number: the very same for devices of a kind. */
  private messagesOf(anatomy: Anatomy): ReadonlyMap<number, readonly ControlMessage[]> {
    let messages = this.messages.get(anatomy);
    if (!messages) this.messages.set(anatomy, (messages = grouped(anatomy.messages, ({ cc }) => cc)));
    return messages;
  }

  private inputs(device: string, inputs: Anatomy['inputs']): ReadonlyMap<string, ModelInput> {
    if (inputs.length === 0) return noInputs;
    return new Map(inputs.map((input) => [input.id, this.input(device, input)]));
  }

  private input(device: string, input: Anatomy['inputs'][number]): ModelInput {
    const wires = this.wiring.contactLinks.filter((link) => link.device === device && link.input === input.id);
    return { ...input, bit: this.variable('bit', device, input.id), wires };
  }

  private control(wired: WiredDevice, control: Control, inputs: ReadonlyMap<string, ModelInput>): ModelControl {
    const device = wired.device.id;
    const variable = this.variable('control', device, control.id, control);
    this.variableAt.push(variable);
    const { contacts } = control;
    return {
      id: control.id,
      control,
      variable,
      options: this.optionsOf(control),
      bits: contacts ? contacts.inputs.map((input) => inputs.get(input)!.bit) : none,
      table: contacts
        ? new Map(Object.entries(contacts.table).map(([bits, controlValue]) => [bits, this.values.id(controlValue)]))
        : noTable,
      held: isHeldByContacts(wired, control),
    };
  }

  /** The very same for devices of a kind. */
  private optionsOf(control: Control): readonly number[] {
    let options = this.options.get(control);
    if (!options)
      this.options.set(
        control,
        (options = domainValues(control.domain).map((controlValue) => this.values.id(controlValue))),
      );
    return options;
  }

  /** The numbers of presets, and their ids: the very same for devices of a kind. */
  private numbersOf(facts: PresetFacts): readonly number[] {
    let numbers = this.numbers.get(facts);
    if (!numbers) this.numbers.set(facts, (numbers = presetNumbers(facts)));
    return numbers;
  }

  private idsOf(numbers: readonly number[]): readonly number[] {
    let ids = this.ids.get(numbers);
    if (!ids) this.ids.set(numbers, (ids = numbers.map((number) => this.values.id(number))));
    return ids;
  }

  private presets(wired: WiredDevice, facts: PresetFacts, controls: ReadonlyMap<string, ModelControl>): ModelPresets {
    const { id, presets: stored } = wired.device;
    const variable = this.variable('preset', id, 'preset');
    this.variableAt.push(variable);
    const loads = [...controls.values()].filter((control) => control.control.scope === 'preset');
    /** By number and place among what a recall may load. */
    const known = new Map<number, number | undefined>();
    const content = (number: number, control: ModelControl): number | undefined => {
      const key = number * loads.length + loads.indexOf(control);
      const found = known.get(key);
      if (found !== undefined || known.has(key)) return found;
      const value = read(number, control);
      known.set(key, value);
      return value;
    };
    const read = (number: number, control: ModelControl): number | undefined => {
      const entry = stored[String(number)];
      if (entry?.keeps?.includes(control.id)) return undefined;
      const controlValue: ControlValue | null = entry?.values[control.id] ?? null;
      return controlValue === null
        ? this.values.content(id, number, control.id, control.options)
        : this.values.id(controlValue);
    };
    const numbers = this.numbersOf(facts);
    const previous = facts.repeat.is === 'alternates' ? this.variable('previous-preset', id, 'preset') : noVariable;
    const bank = facts.scheme === 'none' ? noVariable : this.variable('bank-select', id, 'preset');
    const flips =
      facts.repeat.is === 'flips' ? (controls.get(facts.repeat.control)?.variable ?? noVariable) : noVariable;
    return {
      facts,
      numbers,
      numberIds: () => this.idsOf(numbers),
      exists: (number) => presetExists(facts, number),
      variable,
      previous,
      bank,
      loads,
      writes: [variable, ...loads.map((control) => control.variable), previous, bank, flips].filter(
        (index) => index >= 0,
      ),
      content,
    };
  }

  private controller(wired: WiredDevice, slots: readonly ModelSlot[]): ModelController {
    const facts = wired.anatomy.controller!;
    const id = wired.device.id;
    const own = slots.filter((slot) => slot.slot.controller === id);
    const remembers = facts.repeatPress !== 'fires' || facts.callRepeat === 'ignored' || facts.bankMove === 'fires';
    const contacts = facts.contacts;
    const saves = new Set(
      Object.values(wired.device.momentaries).flatMap((both) =>
        [...both.press, ...both.release].flatMap((action) => (action.kind === 'save' ? [action.control] : [])),
      ),
    );
    const links = this.wiring.contactLinks.filter((link) => link.controller === id);
    return {
      facts,
      bank: this.variable('current-bank', id, 'bank'),
      currentSlot: remembers ? this.variable('current-slot', id, 'slot') : noVariable,
      previousSlot: facts.repeatPress === 'alternates' ? this.variable('previous-slot', id, 'slot') : noVariable,
      held: new Map(facts.momentaries.map((momentary) => [momentary.id, this.variable('held', id, momentary.id)])),
      momentaries: new Map(Object.entries(wired.device.momentaries)),
      contact: new Map(
        contacts
          .filter((contact) => contact.kind !== 'pulsed')
          .map((contact) => [contact.id, this.variable('contact', id, contact.id)]),
      ),
      belief: new Map(
        contacts
          .filter((contact) => contact.kind === 'pulsed' && contact.policy === 'belief')
          .map((contact) => [contact.id, this.variable('belief', id, contact.id)]),
      ),
      saved: new Map([...saves].map((control) => [control, this.variable('saved', id, control)])),
      wires: new Map(contacts.map((contact) => [contact.id, links.filter((link) => link.contact === contact.id)])),
      at: new Map(own.map((slot) => [positionKey(slot.slot.bank, slot.slot.position), slot.index])),
      powerUpSlot: wired.device.powerUpSlot,
    };
  }
}

/** Whether the links by which devices pass messages on form a circle. */
function chainCloses(devices: readonly ModelDevice[], byId: ReadonlyMap<string, ModelDevice>): boolean {
  const state = new Map<ModelDevice, 'open' | 'done'>();
  const visit = (device: ModelDevice): boolean => {
    if (state.has(device)) return state.get(device) === 'open';
    state.set(device, 'open');
    const closes = device.passesTo.some((link) => visit(byId.get(link.to)!));
    state.set(device, 'done');
    return closes;
  };
  return devices.some(visit);
}

function listenersOf(byId: ReadonlyMap<string, ModelDevice>): StateModel['listeners'] {
  const arrivals = new Map<ModelDevice, readonly ModelDevice[]>();
  const heard = new Map<ModelDevice, Map<number, ReturnType<StateModel['listeners']>>>();
  const arrivalsOf = (from: ModelDevice): readonly ModelDevice[] => {
    let list = arrivals.get(from);
    if (!list) {
      const queue = from.sendsTo.map((link) => byId.get(link.to)!);
      for (let i = 0; i < queue.length && queue.length < 20_000; i += 1)
        queue.push(...queue[i].passesTo.map((link) => byId.get(link.to)!));
      arrivals.set(from, (list = queue));
    }
    return list;
  };
  return (from, channel) => {
    let channels = heard.get(from);
    if (!channels) heard.set(from, (channels = new Map()));
    let found = channels.get(channel);
    if (!found) {
      const all = arrivalsOf(from);
      channels.set(
        channel,
        (found = {
          hops: all.length,
          heard: all.filter(({ wired }) => wired.device.channel === channel || wired.device.channel === 'omni'),
        }),
      );
    }
    return found;
  };
}
