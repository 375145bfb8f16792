import type { Action } from '../../model/documents.ts';
import { compileEvent } from './event-table.ts';
import type { StateModel, ModelSlot } from '../state/state-model.ts';

/**
 * Whether a press of a slot would surely settles, from whatever state, if the slot did these actions instead of its
 * own.
 */
export function wouldSettle(model: StateModel, slot: ModelSlot, actions: readonly Action[]): boolean {
  const instead: ModelSlot = { ...slot, actions, steps: null };
  const slots = model.slots.map((one) => (one === slot ? instead : one));
  const { operations, outcome } = compileEvent(
    { ...model, slots, slot: new Map(slots.map((one) => [one.slot.id, one])) },
    { kind: 'press', slot: instead },
    0,
  );
  return operations !== null && outcome === 'settled';
}
