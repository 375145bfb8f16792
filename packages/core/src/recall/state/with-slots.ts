import type { Action, Slot } from '../../model/rig.ts';
import type { Wiring } from '../../model/wiring.ts';
import type { SlotActions } from '../../program/compile.ts';
import type { ModelSlot, StateModel } from './state-model.ts';

/**
 * The same model with other actions in its slots, where everything else of the rig is the same: variables, values and
 * devices are taken over, so that what was worked out about them stays true. Null where the slots lie differently.
 */
export function withSlots(
  model: StateModel,
  wiring: Wiring,
  actionsOf: (slot: Slot) => SlotActions,
): StateModel | null {
  const before = model.wiring.rig;
  const { slots: filed, casting, outside, settings } = wiring.rig;
  if (
    before.casting !== casting ||
    before.outside !== outside ||
    settings.messageLimit !== before.settings.messageLimit ||
    settings.faults !== before.settings.faults
  )
    return null;
  if (Object.keys(filed).length !== Object.keys(before.slots).length) return null;
  const slots: ModelSlot[] = [];
  for (const old of model.slots) {
    const slot: Slot | undefined = filed[old.slot.id];
    if (
      !slot ||
      slot.controller !== old.slot.controller ||
      slot.bank !== old.slot.bank ||
      slot.position !== old.slot.position
    )
      return null;
    slots.push(
      slot.sound === old.slot.sound && sendsTheSame(old, slot, actionsOf) ? old : modelSlot(old.index, slot, actionsOf),
    );
  }
  if (slots.length !== Object.values(filed).filter((slot) => model.device.has(slot.controller)).length) return null;
  return { ...model, wiring, slots, slot: new Map(slots.map((slot) => [slot.slot.id, slot])) };
}

export function modelSlot(index: number, slot: Slot, actionsOf: (slot: Slot) => SlotActions): ModelSlot {
  if (slot.actions !== null) return { index, slot, steps: null, actions: slot.actions };
  const steps = actionsOf(slot);
  return { index, slot, steps, actions: steps.map((step) => step.action) };
}

function sendsTheSame(old: ModelSlot, slot: Slot, actionsOf: (slot: Slot) => SlotActions): boolean {
  if (slot.actions !== null)
    return (
      slot.actions === old.actions ||
      (slot.actions.length === old.actions.length &&
        slot.actions.every((action, i) => sameAction(action, old.actions[i])))
    );
  const steps = actionsOf(slot);
  return (
    steps === old.steps ||
    (steps.length === old.actions.length && steps.every((step, i) => sameAction(step.action, old.actions[i])))
  );
}

function sameAction(item: Action, other: Action): boolean {
  if (item === other) return true;
  const [a, b] = [item, other] as unknown as readonly Readonly<Record<string, unknown>>[];
  let count = 0;
  for (const key in a) {
    if (a[key] !== b[key]) return false;
    count += 1;
  }
  for (const _ in b) count -= 1;
  return count === 0;
}
