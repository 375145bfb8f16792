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
