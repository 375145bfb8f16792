import { inOrder, type Rig, type Slot, slotLabel, type Sound } from '@yunta/core';
import type { Choice } from '../../ui/choices.ts';

/** What plays a part, in short; undefined where nothing does. */
export const playedWords = (rig: Rig, slot: Slot | undefined, sound: Sound | undefined): string | undefined =>
  slot
    ? `${slot.sound === null ? 'no sound' : (rig.sounds[slot.sound]?.name ?? '?')}, ${slotLabel(slot)}`
    : sound && `${sound.name}, by feet`;

/** Everything that can play a part: slots as they lie, then sounds that have none. */
export function playable(rig: Rig): readonly Choice[] {
  const slots = Object.values(rig.slots)
    .filter((slot) => slot.sound !== null)
    .sort((a, b) => a.bank - b.bank || a.position - b.position);
  const placed = new Set(slots.map((slot) => slot.sound));
  return [
    ...slots.map((slot) => ({ value: `slot:${slot.id}`, label: playedWords(rig, slot, undefined)! })),
    ...inOrder(rig.sounds)
      .filter((sound) => !placed.has(sound.id))
      .map((sound) => ({ value: `sound:${sound.id}`, label: playedWords(rig, undefined, sound)! })),
  ];
}
