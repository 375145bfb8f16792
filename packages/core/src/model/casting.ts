import { byOrder } from './documents.ts';
import type { Cast, Rig, Slot, Sound } from './rig.ts';

/** By the slots as they are filed, the first slot of each sound in document order. */
const firstSlots = new WeakMap<
  Rig['slots'],
  { readonly devices: Rig['devices']; readonly bySound: ReadonlyMap<string, Slot> }
>();

function firstSlotsOf({ slots, devices }: Rig): ReadonlyMap<string, Slot> {
  const known = firstSlots.get(slots);
  if (known?.devices === devices) return known.bySound;
  const bySound = new Map<string, Slot>();
  for (const slot of Object.values(slots)) {
    if (slot.sound === null || !Object.hasOwn(devices, slot.controller)) continue;
    const other = bySound.get(slot.sound);
    if (!other || isEarlier(devices, slot, other)) bySound.set(slot.sound, slot);
  }
  firstSlots.set(slots, { devices, bySound });
  return bySound;
}

function isEarlier(devices: Rig['devices'], a: Slot, b: Slot): boolean {
  const unit = a.controller === b.controller ? 0 : byOrder(devices[a.controller], devices[b.controller]);
  const place = unit || a.bank - b.bank || a.position - b.position;
  return place === 0 ? a.id < b.id : place < 0;
}

/**
 * The slot that is pressed for a part: the one that it is cast to, else the first that its sound has. Undefined where
 * feet and hands bring the sound up.
 */
export const slotOfCast = (rig: Rig, cast: Cast): Slot | undefined =>
  cast.slot !== null ? rig.slots[cast.slot] : cast.sound === undefined ? undefined : firstSlotsOf(rig).get(cast.sound);

/** The sound that a part plays: its own, or its slot's. */
export function soundOfCast(rig: Rig, cast: Cast): Sound | undefined {
  const id = cast.slot === null ? cast.sound : rig.slots[cast.slot]?.sound;
  return id === undefined || id === null ? undefined : rig.sounds[id];
}

/** Whether feet and hands alone bring a part's sound up. */
export const isByFeet = (rig: Rig, cast: Cast): boolean =>
  slotOfCast(rig, cast) === undefined && soundOfCast(rig, cast) !== undefined;

/** When something is done for a part: before its bar line, on it, or after it. */
export const moments = ['before', 'on', 'after'] as const;
export type Moment = (typeof moments)[number];

/** What plays each part, by part. */
export const castsByPart = ({ casting }: Rig): ReadonlyMap<string, Cast> =>
  new Map(Object.values(casting).map((cast) => [cast.part, cast]));
