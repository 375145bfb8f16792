import { type Control, type ControlValue, domainValues, firstValue, presetNumbers, restOf } from '../model/anatomy.ts';
import type { ControlRef, Sound } from '../model/rig.ts';
import { controlRef } from '../model/documents.ts';
import { wantsOf } from '../model/wants.ts';
import { isHeldByContacts, numberIn, powerUpOf, type WiredDevice, type Wiring } from '../model/wiring.ts';

/** What a preset holds of a control, where nobody entered it: the same as itself, and as nothing else that is known. */
export interface UnknownContent {
  readonly device: string;
  readonly preset: number;
  readonly control: ControlRef;
  readonly label: string;
  /** What it may be. */
  readonly options: readonly ControlValue[];
}

export type PlannedValue = ControlValue | UnknownContent;

export const isUnknown = (value: PlannedValue | undefined): value is UnknownContent => typeof value === 'object';

/** A device with presets, by the number of its `preset`. */
interface Presets {
  readonly wired: WiredDevice;
  readonly loads: readonly { readonly number: number; readonly control: Control }[];
}

/**
 * The state in which a sound is planned: power-up, overlaid with what the presets that it wants hold, overlaid with its
 * wants. What is traced, told and drawn of a sound reads this, and the proof judges against the same.
 */
export class PlannedStates {
  /** By the numbers of the rig's controls. */
  private readonly comesUp: readonly PlannedValue[];
  private readonly presets = new Map<number, Presets>();
  private readonly unknowns = new Map<string, UnknownContent>();

  constructor(private readonly wiring: Wiring) {
    const comesUp: PlannedValue[] = [];
    for (const wired of wiring.devices) this.comeUp(wired, comesUp);
    this.comesUp = comesUp;
  }

  /** By the numbers of the rig's controls; without a sound as all comes up. */
  of(sound: Sound | null): readonly PlannedValue[] {
    const values = this.comesUp.slice();
    if (!sound) return values;
    const { controls, controlValues } = wantsOf(this.wiring, sound);
    if (this.presets.size > 0)
      for (let i = 0; i < controls.length; i += 1) {
        const presets = this.presets.get(controls[i]);
        if (presets) this.recall(presets, Number(controlValues[i]), values);
      }
    for (let i = 0; i < controls.length; i += 1) values[controls[i]] = controlValues[i];
    return values;
  }

  /** Puts a device's controls, and its `preset` after them, as they come up; where that is open, on the first value. */
  private comeUp(wired: WiredDevice, values: PlannedValue[]): void {
    const { anatomy, device } = wired;
    for (const control of anatomy.controls) values.push(comesUpAs(this.wiring, wired, control));
    const { presets: facts } = anatomy;
    if (!facts) return;
    const after = device.powerUps['preset'] ?? facts.powerUp;
    const number = after.is === 'value' ? Number(after.value) : (presetNumbers(facts)[0] ?? 0);
    const stored = anatomy.controls.filter(({ scope }) => scope === 'preset');
    const loads = stored.map((control) => ({ number: numberIn(wired, control.id), control }));
    const presets = { wired, loads };
    this.presets.set(values.length, presets);
    values.push(number);
    // What was edited survives the power going where the type says so; the rest comes up as stored.
    this.recall({ wired, loads: loads.filter(({ control }) => isReloaded(wired, control)) }, number, values);
  }

  private recall({ wired, loads }: Presets, preset: number, values: PlannedValue[]): void {
    for (let i = 0; i < loads.length; i += 1) {
      const { number, control } = loads[i];
      if (isHeldByContacts(wired, control)) continue;
      const content = this.contentOf(wired, preset, control);
      if (content !== undefined) values[number] = content;
    }
  }

  /** Undefined where the preset leaves the control as it is. */
  private contentOf({ device }: WiredDevice, preset: number, control: Control): PlannedValue | undefined {
    const entry = device.presets[String(preset)];
    if (entry?.keeps?.includes(control.id)) return undefined;
    const value = entry?.values[control.id] ?? null;
    if (value !== null) return value;
    const options = domainValues(control.domain);
    if (options.length === 1) return options[0];
    const ref = controlRef(device.id, control.id);
    const key = `${preset} ${ref}`;
    let unknown = this.unknowns.get(key);
    if (!unknown) {
      unknown = { device: device.id, preset, control: ref, label: control.label, options };
      this.unknowns.set(key, unknown);
    }
    return unknown;
  }
}

const isReloaded = (wired: WiredDevice, control: Control): boolean => powerUpOf(wired, control).is !== 'last-state';

function comesUpAs(wiring: Wiring, wired: WiredDevice, control: Control): ControlValue {
  if (control.contacts) return byContacts(wiring, wired, control, control.contacts);
  const after = powerUpOf(wired, control);
  return after.is === 'value' ? after.value : firstValue(control.domain);
}

/** With everything unplugged before, contacts are at rest: a wired level input reads that, others do as they do. */
function byContacts(
  { contactLinks, device: deviceOf }: Wiring,
  { device, anatomy, plugged }: WiredDevice,
  control: Control,
  { inputs, table }: NonNullable<Control['contacts']>,
): ControlValue {
  const restsClosed = (id: string): boolean =>
    contactLinks.some((link) => {
      const facts = deviceOf.get(link.controller)?.anatomy.controller;
      return link.device === device.id && link.input === id && facts && restOf(facts, link.contact) === 1;
    });
  const bits = inputs.map((id) => {
    const input = anatomy.inputs.find((other) => other.id === id);
    if (input?.kind === 'level' && plugged.has(id)) return restsClosed(id) ? 1 : 0;
    return !input || input.powerUp === 'last-state' ? 0 : input.powerUp;
  });
  return table[bits.join('')] ?? firstValue(control.domain);
}
