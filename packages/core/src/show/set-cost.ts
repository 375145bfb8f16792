import { anatomyOf } from '../model/archetypes/registry.ts';
import { slotOfCast } from '../model/casting.ts';
import { castOf, type Show } from '../model/documents.ts';
import type { Slot } from '../model/rig.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import { bankDistance } from '../model/slots.ts';
import { layoutCost, type LayoutCost, roleMismatches, type SoundChange } from '../program/layout-cost.ts';
import { floorSwitches } from './floor.ts';

/** A bank that is left between two parts of one song: there is no time for it. */
export interface BankChange {
  readonly song: string;
  readonly from: string;
  readonly to: string;
  /** Bank presses, before the slot's own. */
  readonly presses: number;
}

/** What the set costs the feet on one controller. */
export interface SetCost extends LayoutCost {
  /** Sounds on no switch of their role. */
  readonly mismatches: number;
  readonly inMidSong: readonly BankChange[];
}

/**
 * What the layout of a controller costs in the chosen set: parts that play a slot of it, one after the other. Bank
 * switches have no place on the floor in a rig's data: their presses count, the way to them does not.
 */
export function setCost(show: Show, controller: string): SetCost {
  const { rig, songbook } = show;
  const facts = anatomyOf(rig.devices[controller].type).controller!;
  const floor = facts.floor ?? { perRow: facts.positions, pitchMm: 0 };
  const played = partsInSetOrder(show).flatMap((id) => {
    const cast = castOf(rig, id);
    const slot: Slot | undefined = cast && slotOfCast(rig, cast);
    return slot && slot.controller === controller ? [{ part: songbook.parts[id], slot }] : [];
  });
  const changes = played.map(({ part, slot }, i): SoundChange => {
    const isHurried = i > 0 && played[i - 1].part.song === part.song;
    return { bank: slot.bank, position: slot.position, hurried: isHurried, sent: false };
  });
  const at = floorSwitches(facts.positions, floor.perRow, floor.pitchMm).map(({ x, y }) => [x, y] as const);
  const unit = { banks: facts.banks, at, up: 'unplaced', down: 'unplaced', wrap: true, start: 0 } as const;
  const places = Object.values(rig.slots).flatMap((slot) =>
    slot.controller === controller && slot.sound !== null
      ? [{ bank: slot.bank, position: slot.position, role: rig.sounds[slot.sound].role }]
      : [],
  );
  return {
    // Up and down are there, so that every bank can be reached.
    ...layoutCost(unit, changes)!,
    mismatches: roleMismatches(places, facts.positions),
    inMidSong: played.slice(1).flatMap(({ part, slot }, i): BankChange[] => {
      const before = played[i];
      const presses = bankDistance(facts.banks, before.slot.bank, slot.bank);
      return before.part.song !== part.song || presses === 0
        ? []
        : [{ song: songbook.songs[part.song].name, from: before.part.name, to: part.name, presses }];
    }),
  };
}
