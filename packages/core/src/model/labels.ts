import type { ControlValue, Domain } from './anatomy.ts';
import { splitRef } from './documents.ts';
import type { CastAction, ControlRef, NoteValue, Plug } from './rig.ts';
import type { Wiring } from './wiring.ts';

/** The one way in which findings, lists, sheets and screens call a control and say its value. */

export const deviceName = (wiring: Wiring, id: string): string => wiring.device.get(id)?.device.name ?? id;

/** “Drive, Out”: where a plug is. */
export function plugLabel(wiring: Wiring, { device, jack }: Plug): string {
  const wired = wiring.device.get(device);
  return `${wired?.device.name ?? device}, ${wired?.jack.get(jack)?.label ?? jack}`;
}

/** The number that a device's panel shows for a preset number as sent. */
export const panelNumber = (wiring: Wiring, device: string, sent: number): number =>
  sent + (wiring.device.get(device)?.device.firstPresetNumber ?? 0);

/** A control as people say it: *Echo preset*, *Combo channel*, *Switcher loop 3*. */
export function controlLabel(wiring: Wiring, ref: ControlRef): string {
  const { device, control } = splitRef(ref);
  const label = control === 'preset' ? control : (wiring.device.get(device)?.control.get(control)?.label ?? control);
  return `${deviceName(wiring, device)} ${label.toLowerCase()}`;
}

/** A value as people say it: switches by word, presets by panel number; *unknown* where nobody knows it. */
export function valueLabel(wiring: Wiring, ref: ControlRef, value: ControlValue | null): string {
  if (value === null) return 'unknown';
  const { device, control } = splitRef(ref);
  if (control === 'preset') return String(panelNumber(wiring, device, Number(value)));
  return domainLabel(wiring.device.get(device)?.control.get(control)?.domain, value);
}

/** The same of a value of a domain. */
export const domainLabel = (domain: Domain | undefined, value: ControlValue): string =>
  domain?.kind === 'switch' ? (value === 1 ? 'on' : 'off') : String(value);

/** “Guitar selector neck”: a cue as hands are told it. */
export const cueLabel = (wiring: Wiring, ref: string, value: string | number): string =>
  `${controlLabel(wiring, ref)} ${valueLabel(wiring, ref, value)}`;

/** “Drive”, or “Floor unit: Preset up” where a device has several: a switch as feet are told it. */
export function switchLabel(wiring: Wiring, device: string, footSwitch: string): string {
  const wired = wiring.device.get(device);
  if (!wired) return device;
  const { name } = wired.device;
  const { switches } = wired.anatomy;
  const label = switches.find(({ id }) => id === footSwitch)?.label ?? footSwitch;
  return switches.length > 1 ? `${name}: ${label}` : name;
}

/** A press or a hand move as the player is told it. */
export const actionLabel = (wiring: Wiring, action: CastAction): string =>
  action.kind === 'cue'
    ? cueLabel(wiring, action.control, action.value)
    : switchLabel(wiring, action.device, action.switch) + (action.meant === undefined ? '' : `, ${action.meant}`);

/** Parts of a beat as people say them. */
export const noteWords: Readonly<Record<NoteValue, string>> = {
  half: 'half',
  'dotted-quarter': 'dotted quarter',
  quarter: 'quarter',
  'quarter-triplet': 'quarter triplet',
  'dotted-eighth': 'dotted eighth',
  eighth: 'eighth',
  'eighth-triplet': 'eighth triplet',
  sixteenth: 'sixteenth',
};
