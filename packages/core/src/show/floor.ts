import { slotOfCast } from '../model/casting.ts';
import { castOf, inOrder, type Show } from '../model/documents.ts';
import { type Slot } from '../model/rig.ts';

/** A switch of the floor unit, in millimetres from its top left. */
export interface FloorSwitch {
  readonly position: number;
  readonly x: number;
  readonly y: number;
}

/** Switches as they lie: rows from the toe away, the first row nearest the player, so it is drawn last. */
export function floorSwitches(positions: number, perRow: number, pitchMm: number): readonly FloorSwitch[] {
  const rows = Math.ceil(positions / perRow);
  return Array.from({ length: positions }, (_, position) => ({
    position,
    x: (position % perRow) * pitchMm,
    y: (rows - 1 - Math.floor(position / perRow)) * pitchMm,
  }));
}

/**
 * The foot's way through a song on one controller: the slots of its parts in order, as long as they are pressed one
 * after the other.
 */
export function footPath(show: Show, song: string, controller: string): readonly Slot[] {
  const parts = inOrder(show.songbook.parts).filter((part) => part.song === song);
  const slots = parts.flatMap((part) => {
    const cast = castOf(show.rig, part.id);
    const slot = cast && slotOfCast(show.rig, cast);
    return slot && slot.controller === controller ? [slot] : [];
  });
  return slots.filter((slot, i) => slot.id !== slots[i - 1]?.id);
}

/** Millimetres between the switches that a way presses; bank moves are counted apart. */
export function footTravel(
  path: readonly Slot[],
  switches: readonly FloorSwitch[],
): { readonly mm: number; readonly bankMoves: number } {
  let mm = 0;
  let bankMoves = 0;
  path.slice(1).forEach((slot, i) => {
    const from = switches[path[i].position];
    const to = switches[slot.position];
    if (from && to) mm += Math.hypot(to.x - from.x, to.y - from.y);
    if (slot.bank !== path[i].bank) bankMoves += 1;
  });
  return { mm: Math.round(mm), bankMoves };
}

/** The song whose part the slot plays first; of several, the first as filed. */
export function songOf(show: Show, slot: Slot | null): string | null {
  const cast = slot && Object.values(show.rig.casting).find((entry) => slotOfCast(show.rig, entry)?.id === slot.id);
  return cast ? (show.songbook.parts[cast.part]?.song ?? null) : null;
}
