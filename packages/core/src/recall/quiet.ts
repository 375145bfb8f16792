import type { Action } from '../model/documents.ts';
import { compileEvent } from './compiled.ts';
import type { Plant, PlantSlot } from './plant.ts';

/** Whether a press of a slot would surely fall quiet, from whatever state, if the slot did these actions instead of its own. */
export function wouldFallQuiet(plant: Plant, slot: PlantSlot, actions: readonly Action[]): boolean {
  const instead: PlantSlot = { ...slot, actions, steps: null };
  const slots = plant.slots.map((one) => (one === slot ? instead : one));
  const { operations, outcome } = compileEvent({ ...plant, slots, slot: new Map(slots.map((one) => [one.slot.id, one])) }, { kind: 'press', slot: instead }, 0);
  return operations !== null && outcome === 'quiet';
}
