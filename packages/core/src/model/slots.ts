import type { Rig, Slot } from './rig.ts';

/** The slots of a controller as they lie: by bank, then by switch. */
export const slotsOfController = (rig: Rig, controller: string): readonly Slot[] =>
  Object.values(rig.slots)
    .filter((slot) => slot.controller === controller)
    .sort((a, b) => a.bank - b.bank || a.position - b.position);

/** Where a slot lies, in short: `2·5`. */
export const slotLabel = ({ bank, position }: Pick<Slot, 'bank' | 'position'>): string => `${bank + 1}·${position + 1}`;

/** Where a slot lies, spelled out as people count: *bank 2, switch 5*. */
export const slotPlace = ({ bank, position }: Pick<Slot, 'bank' | 'position'>): string =>
  `bank ${bank + 1}, switch ${position + 1}`;

/** Moves from one bank to another, the shorter way round. */
export function bankDistance(banks: number, from: number, to: number): number {
  const up = (((to - from) % banks) + banks) % banks;
  return Math.min(up, banks - up);
}

/** A place typed as people write it: `2·3`, `2.3`, `2-3`, `2 3`, `bank 2, switch 3`. Null where it is none. */
export function slotPlaceTyped(text: string): Pick<Slot, 'bank' | 'position'> | null {
  const read = /^\s*(?:bank\s+)?(\d{1,3})\s*(?:[·.,:;/\-–]|\s)\s*(?:switch\s+)?(\d{1,3})\s*$/i.exec(text);
  if (!read) return null;
  const [bank, position] = [Number(read[1]) - 1, Number(read[2]) - 1];
  return bank >= 0 && position >= 0 ? { bank, position } : null;
}
