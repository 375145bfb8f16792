import { defineRule } from '../../define-rule.ts';

export const unquietSlot = defineRule({
  meta: {
    id: 'recall/unquiet-slot',
    severity: 'fix-before-load-in',
    title: 'A slot that never settles',
    why: 'Its messages call each other round in a circle. No part uses it, so the proof sets it aside.',
    remedy: 'Break the circle: take the call out of one of the slots.',
    source: 'common practice',
    messages: { round: 'Bank {bank}, switch {position} of {controller} never settles.' },
  },
  check: ({ prover, wiring }) =>
    prover.excludedSlots.map((slot) => ({
      messageId: 'round' as const,
      at: { slot: slot.id },
      data: {
        bank: slot.bank + 1,
        position: slot.position + 1,
        controller: wiring.device.get(slot.controller)!.device.name,
      },
    })),
});
