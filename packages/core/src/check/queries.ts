import type { Control, EffectKind, PresetFacts } from '../model/anatomy.ts';
import { castsByPart, soundOfCast } from '../model/casting.ts';
import { playedParts } from '../model/set-order.ts';
import { controlRef, inOrder } from '../model/documents.ts';
import { type Memo, memoised } from '../model/memo.ts';
import { type ControlRef, type Rig, type Slot, type Sound } from '../model/rig.ts';
import { ownerOf, type WiredDevice } from '../model/wiring.ts';
import { midiReach } from '../program/compile.ts';
import { passesAfter } from '../trace/reachable-passes.ts';
import type { Pass } from '../trace/passes.ts';
import type { Trace } from '../trace/trace.ts';
import type { Context } from './define-rule.ts';

type Wired = Pick<Context, 'wiring'>;

/** Nothing to report. */
export const none: readonly never[] = [];

/** Small answers that several rules ask for. */
export const soundsOf = ({ show }: Context): readonly Sound[] => inOrder(show.rig.sounds);

/**
 * Every sound that is to be heard, with what the signal does in it; those that are silent by mistake are told
 * elsewhere.
 */
export function heardSounds(context: Context): readonly { readonly sound: Sound; readonly trace: Trace }[] {
  return soundsOf(context).flatMap((sound) => {
    if (sound.silence) return [];
    const trace = context.tracer.trace(sound);
    return trace.sounds ? [{ sound, trace }] : [];
  });
}

/** The sounds that the parts of the set play, one after the other. */
export function playedSounds({ show }: Context): readonly Sound[] {
  const casts = castsByPart(show.rig);
  return playedParts(show).flatMap((part) => {
    const cast = casts.get(part.id);
    return (cast && soundOfCast(show.rig, cast)) ?? [];
  });
}

/** The slots of each sound, as they are filed now. */
class Filed {
  private slots: Rig['slots'] | undefined;
  private bySound: ReadonlyMap<string | null, readonly Slot[]> = new Map();

  of({ show: { rig } }: Context, sound: Sound): readonly Slot[] {
    if (this.slots !== rig.slots) {
      this.slots = rig.slots;
      this.bySound = bySound(Object.values(rig.slots));
    }
    return this.bySound.get(sound.id) ?? none;
  }
}

function bySound(slots: readonly Slot[]): ReadonlyMap<string | null, readonly Slot[]> {
  const found = new Map<string | null, Slot[]>();
  for (const slot of slots) {
    const own = found.get(slot.sound);
    if (own) own.push(slot);
    else found.set(slot.sound, [slot]);
  }
  return found;
}

const filed = memoised(
  ({ wiring }: Context) => wiring.wiringMemo,
  () => new Filed(),
);

export const slotsOf = (context: Context, sound: Sound): readonly Slot[] => filed(context).of(context, sound);

/** A preset that a sound wants of a device that has presets. */
export interface WantedPreset {
  readonly ref: ControlRef;
  readonly wired: WiredDevice;
  readonly facts: PresetFacts;
  readonly number: number;
}

/** A device with presets, and those of them that sounds want, by their numbers. */
interface WithPresets extends Omit<WantedPreset, 'number'> {
  readonly wanted: Map<number, WantedPreset>;
}

const displayMemo = ({ wiring }: Wired): Memo => wiring.displayMemo;

const withPresets = memoised(
  displayMemo,
  ({
    wiring: { devices },
  }): { readonly devices: readonly WithPresets[]; readonly bySound: WeakMap<Sound, readonly WantedPreset[]> } => ({
    devices: devices.flatMap((wired) =>
      wired.anatomy.presets
        ? [{ ref: controlRef(wired.device.id, 'preset'), wired, facts: wired.anatomy.presets, wanted: new Map() }]
        : [],
    ),
    bySound: new WeakMap(),
  }),
);

/** The presets that a sound wants, in the order of the rig's devices; found once for the rules that ask. */
export function wantedPresets(rig: Wired, sound: Sound): readonly WantedPreset[] {
  const { devices, bySound: known } = withPresets(rig);
  let wanted = known.get(sound);
  if (!wanted) known.set(sound, (wanted = wantedOf(devices, sound)));
  return wanted;
}

function wantedOf(devices: readonly WithPresets[], sound: Sound): readonly WantedPreset[] {
  const found: WantedPreset[] = [];
  for (const { ref, wired, facts, wanted } of devices) {
    const value = sound.wants[ref];
    if (value === undefined) continue;
    const number = Number(value);
    let preset = wanted.get(number);
    if (!preset) wanted.set(number, (preset = { ref, wired, facts, number }));
    found.push(preset);
  }
  return found;
}

const reached = memoised(
  ({ wiring }: Wired) => wiring.wiringMemo,
  ({ wiring }): ReadonlySet<string> =>
    new Set(
      wiring.devices.flatMap(({ anatomy, device }) =>
        anatomy.controller || anatomy.emits ? [...midiReach(wiring, device.id)] : [],
      ),
    ),
);

/** Whether messages arrive at a device: a controller's, or a recall that another device sends on. */
export const isReached = (rig: Wired, device: string): boolean => reached(rig).has(device);

/** Passes that do one of some things, each with the first after it that does another. */
export const inOrderOf = (
  trace: Trace,
  first: readonly EffectKind[],
  then: EffectKind,
): readonly { readonly first: Pass; readonly then: Pass }[] =>
  trace.passes
    .filter(({ effects }) => effects.some((effect) => first.includes(effect)))
    .flatMap((pass) => {
      const after = passesAfter(trace, pass).find((pass) => pass.effects.includes(then));
      return after ? [{ first: pass, then: after }] : [];
    });

export const nameOf = ({ wiring }: Wired, device: string): string => wiring.device.get(device)?.device.name ?? device;

/** Whether a device has a signal that comes in and one that goes out: neither end of a line. */
export const isBetweenEnds = ({ anatomy }: WiredDevice): boolean =>
  anatomy.source === undefined && anatomy.destination === undefined && anatomy.sections.length > 0;

/** Whether a message, a contact or a stored value can put the control where a sound wants it. */
export function isSent(wired: WiredDevice, control: Control): boolean {
  if (control.contacts) return true;
  return wired.anatomy.messages.some(
    (message) => message.control === control.id && (message.mode === 'absolute' || message.mode === 'switch'),
  );
}

/** Controls of everything but instruments that only a hand can move. */
export const handControls = ({
  wiring,
}: Context): readonly { readonly wired: WiredDevice; readonly control: Control; readonly ref: string }[] =>
  wiring.devices.flatMap((wired) =>
    wired.anatomy.source !== undefined
      ? []
      : wired.anatomy.controls
          .filter((control) => ownerOf(wired, control) === 'hand')
          .map((control) => ({ wired, control, ref: controlRef(wired.device.id, control.id) })),
  );
