import { controlRef, inOrder, type Slot, type Sound } from '../model/documents.ts';
import type { Control, EffectKind } from '../model/anatomy.ts';
import { ownerOf, type WiredDevice } from '../model/wiring.ts';
import { midiReach } from '../program/compile.ts';
import { passesAfter } from '../trace/ahead.ts';
import type { Pass, Trace } from '../trace/trace.ts';
import type { Context } from './define-rule.ts';

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

/** Controllers whose messages arrive at a device. */
export const controllersOf = ({ wiring }: Context, device: string): readonly WiredDevice[] => wiring.devices.filter((wired) => wired.anatomy.controller && midiReach(wiring, wired.device.id).has(device));

/** In each heard sound, a pass that does one of some things, and the first after it that does another. */
export const inOrderOf = (context: Context, first: readonly EffectKind[], then: EffectKind): readonly { readonly sound: Sound; readonly first: Pass; readonly then: Pass }[] =>
  heardSounds(context).flatMap(({ sound, trace }) =>
    trace.passes.flatMap((pass) => {
      if (!pass.effects.some((effect) => first.includes(effect))) return [];
      const after = passesAfter(trace, pass).find((one) => one.effects.includes(then));
      return after ? [{ sound, first: pass, then: after }] : [];
    }),
  );

export const nameOf = ({ wiring }: Context, device: string): string => wiring.device.get(device)?.device.name ?? device;

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
