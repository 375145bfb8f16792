import { slotOfCast } from '../../model/casting.ts';
import type { Action } from '../../model/rig.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';
import { NeedPin } from '../state/values.ts';
import { type CompiledEvent, compileEvent, type EventTable } from './event-table.ts';
import { TooManyStates } from './row.ts';
import { type Limits, StateSpace } from './state-space.ts';
import { widening } from './widening.ts';

/**
 * Whether a press of a slot would surely settle, from whatever state, if the slot did these actions instead of its own.
 */
export function wouldSettle(model: StateModel, slot: ModelSlot, actions: readonly Action[]): boolean {
  const instead: ModelSlot = { ...slot, actions, steps: null };
  const slots = model.slots.map((other) => (other === slot ? instead : other));
  const { operations, outcome } = compileEvent(
    { ...model, slots, slot: new Map(slots.map((other) => [other.slot.id, other])) },
    { kind: 'press', slot: instead },
    0,
  );
  return operations !== null && outcome === 'settled';
}

/** Slots that may never settle, from some state, and that no part uses and nothing fires at power-up. */
export function neverSettlingAndUnused(model: StateModel, table: EventTable, limits: Limits): ReadonlySet<number> {
  const used = new Set([
    ...Object.values(model.wiring.rig.casting).map((cast) => slotOfCast(model.wiring.rig, cast)?.id),
    ...model.devices.flatMap((device) => device.controller?.powerUpSlot ?? []),
  ]);
  const found = new Set<number>();
  for (const compiled of table.ordinary) {
    if (compiled.event.kind !== 'press' || used.has(compiled.event.slot.slot.id)) continue;
    if (mayNeverSettle(model, table, compiled, limits)) found.add(compiled.event.slot.index);
  }
  return found;
}

function mayNeverSettle(model: StateModel, table: EventTable, compiled: CompiledEvent, limits: Limits): boolean {
  if (compiled.outcome === 'never-settles') return true;
  if (compiled.operations !== null || !model.mayFeedBack) return false;
  try {
    const space = widening(new Set<number>(), (variables) =>
      new StateSpace(table, variables, { level: 4, pins: new Map(), limits, also: [compiled] }).complete(),
    );
    return space.unsettled.some((item) => item.compiled === compiled && item.outcome === 'never-settles');
  } catch (reason) {
    if (!(reason instanceof TooManyStates) && !(reason instanceof NeedPin)) throw reason;
    return false;
  }
}
