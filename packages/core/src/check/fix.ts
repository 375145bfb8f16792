import type { Step } from '../change/steps.ts';
import type { Slot } from '../model/rig.ts';
import type { Finding } from './define-rule.ts';

type Fix = NonNullable<Finding['fix']>;

/** A fix that puts one value in the place of another. */
export function setFix(
  label: string,
  at: readonly string[],
  value: unknown,
  old: unknown,
  doc: Step['doc'] = 'rig',
): Fix {
  return { label, steps: [{ doc, op: 'set', at, value, ...(old === undefined ? {} : { old }) }] };
}

export const actionsFix = (label: string, slot: Slot, actions: Slot['actions']): Fix =>
  setFix(label, ['slots', slot.id, 'actions'], actions, slot.actions);
export const generateFix = (slot: Slot): Fix => actionsFix('Generate this slot from its sound', slot, null);
