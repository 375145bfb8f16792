import { slotsOfController } from '../model/slots.ts';
import type { Rig, Slot } from '../model/rig.ts';

/** What a unit’s display shows of its slots: so many characters, and each is to be told from the others. */

/** The name that a slot shows: its own, or its sound’s in short. Null where there is neither. */
export function displayName(rig: Rig, slot: Slot, length: number): string | null {
  if (slot.name !== undefined) return slot.name;
  const sound = slot.sound === null ? undefined : rig.sounds[slot.sound];
  return sound ? shortName(sound.name, length) : null;
}

/**
 * A name in so many characters: as it is where it fits; else the first letters of the words before its last comma (the
 * song) and what stands after it (the part): *Harbour Light, chorus* in ten is *HL chorus*; cut where that is too long.
 */
export function shortName(name: string, length: number): string {
  if (name.length <= length) return name;
  const comma = name.lastIndexOf(',');
  if (comma > 0) {
    const initials = name
      .slice(0, comma)
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word !== '')
      .map((word) => word[0].toUpperCase())
      .join('');
    const short = `${initials} ${name.slice(comma + 1).trim()}`;
    if (short.length <= length || initials.length + 2 <= length) return short.slice(0, length).trim();
  }
  return name.slice(0, length).trim();
}

/** A name that does not fit, or (`like`) that another slot shows too. */
export interface DisplayFault {
  readonly slot: Slot;
  readonly name: string;
  readonly like: Slot | null;
}

/** Slots of a controller that show the same name though they are not the same sound, or one that is too long. */
export function displayFaults(rig: Rig, controller: string, length: number): readonly DisplayFault[] {
  const shown = new Map<string, Slot>();
  return slotsOfController(rig, controller).flatMap((slot): readonly DisplayFault[] => {
    const name = displayName(rig, slot, length);
    if (name === null) return [];
    const key = name.slice(0, length).toLowerCase();
    const like = shown.get(key);
    if (!like) shown.set(key, slot);
    if (name.length > length) return [{ slot, name, like: null }];
    return like && like.sound !== slot.sound ? [{ slot, name, like }] : [];
  });
}
