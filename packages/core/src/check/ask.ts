import { controlRef, type ControlRef, inOrder, type Slot, type Sound } from '../model/documents.ts';
import type { Control, EffectKind, PresetFacts } from '../model/anatomy.ts';
import { ownerOf, type WiredDevice, type Wiring } from '../model/wiring.ts';
import { midiReach } from '../program/compile.ts';
import { passesAfter } from '../trace/ahead.ts';
import type { Pass } from '../trace/passes.ts';
import type { Trace } from '../trace/trace.ts';
import type { Context } from './define-rule.ts';

type Wired = Pick<Context, 'wiring'>;

/** Nothing to report. */
export const none: readonly never[] = [];

/** Small answers that several rules ask for. */
export const soundsOf = ({ show }: Context): readonly Sound[] => inOrder(show.rig.sounds);

/** Every sound that is to be heard, with what the signal does in it; those that are silent by mistake are told elsewhere. */
export function heardSounds(context: Context): readonly { readonly sound: Sound; readonly trace: Trace }[] {
  return soundsOf(context).flatMap((sound) => {
    if (sound.silence) return [];
    const trace = context.tracer.trace(sound);
    return trace.sounds ? [{ sound, trace }] : [];
  });
}

const bySound = new WeakMap<object, ReadonlyMap<string | null, readonly Slot[]>>();

export function slotsOf({ show }: Context, sound: Sound): readonly Slot[] {
  const { slots } = show.rig;
  let known = bySound.get(slots);
  if (!known) {
    const map = new Map<string | null, Slot[]>();
    for (const slot of Object.values(slots)) map.set(slot.sound, [...(map.get(slot.sound) ?? []), slot]);
    bySound.set(slots, (known = map));
  }
  return known.get(sound.id) ?? [];
}

/** A preset that a sound wants of a device that has presets. */
export interface WantedPreset {
  readonly ref: ControlRef;
  readonly wired: WiredDevice;
  readonly facts: PresetFacts;
  readonly number: number;
}

interface WithPresets {
  readonly devices: readonly Omit<WantedPreset, 'number'>[];
  readonly bySound: WeakMap<Sound, readonly WantedPreset[]>;
}
const withPresets = new WeakMap<Wiring['devices'], WithPresets>();

/** The presets that a sound wants, in the order of the rig's devices; found once for the rules that ask. */
export function wantedPresets({ wiring: { devices } }: Wired, sound: Sound): readonly WantedPreset[] {
  let known = withPresets.get(devices);
  if (!known) {
    const own = devices.flatMap((wired) => (wired.anatomy.presets ? [{ ref: controlRef(wired.device.id, 'preset'), wired, facts: wired.anatomy.presets }] : []));
    withPresets.set(devices, (known = { devices: own, bySound: new WeakMap() }));
  }
  let wanted = known.bySound.get(sound);
  if (!wanted) known.bySound.set(sound, (wanted = wantedOf(known.devices, sound)));
  return wanted;
}

function wantedOf(devices: WithPresets['devices'], sound: Sound): readonly WantedPreset[] {
  const wanted: WantedPreset[] = [];
  for (const { ref, wired, facts } of devices) {
    const value = sound.wants[ref];
    if (value !== undefined) wanted.push({ ref, wired, facts, number: Number(value) });
  }
  return wanted;
}

const reached = new WeakMap<Wiring['devices'], ReadonlySet<string>>();

/** Whether any controller's messages arrive at a device. */
export function isReached({ wiring }: Wired, device: string): boolean {
  let known = reached.get(wiring.devices);
  if (!known) reached.set(wiring.devices, (known = new Set(controllersIn(wiring).flatMap((wired) => [...midiReach(wiring, wired.device.id)]))));
  return known.has(device);
}

const controllers = new WeakMap<Wiring['devices'], readonly WiredDevice[]>();

function controllersIn({ devices }: Wiring): readonly WiredDevice[] {
  let known = controllers.get(devices);
  if (!known) controllers.set(devices, (known = devices.filter((wired) => wired.anatomy.controller)));
  return known;
}

/** Passes that do one of some things, each with the first after it that does another. */
export const inOrderOf = (trace: Trace, first: readonly EffectKind[], then: EffectKind): readonly { readonly first: Pass; readonly then: Pass }[] =>
  trace.passes.filter(({ effects }) => effects.some((effect) => first.includes(effect))).flatMap((pass) => {
    const after = passesAfter(trace, pass).find((one) => one.effects.includes(then));
    return after ? [{ first: pass, then: after }] : [];
  });

export const nameOf = ({ wiring }: Wired, device: string): string => wiring.device.get(device)?.device.name ?? device;

/** Whether a message, a contact or a stored value can put the control where a sound wants it. */
export function isSent(wired: WiredDevice, control: Control): boolean {
  if (control.contacts) return true;
  return wired.anatomy.messages.some((message) => message.control === control.id && (message.mode === 'absolute' || message.mode === 'switch'));
}

/** Controls of everything but instruments that only a hand can move. */
export const handControls = ({ wiring }: Context): readonly { readonly wired: WiredDevice; readonly control: Control; readonly ref: string }[] =>
  wiring.devices.flatMap((wired) =>
    wired.anatomy.source !== undefined ? [] : wired.anatomy.controls.filter((control) => ownerOf(wired, control) === 'hand').map((control) => ({ wired, control, ref: controlRef(wired.device.id, control.id) })),
  );
