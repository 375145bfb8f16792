import { defineRule } from '../../define-rule.ts';
import { soundsOf } from '../../queries.ts';

export const moreSoundsThanSlots = defineRule({
  meta: {
    id: 'routing/more-sounds-than-slots',
    severity: 'fix-before-load-in',
    title: 'More sounds than slots',
    why: 'Every sound needs a slot of its own to be called by one press.',
    remedy: 'Merge sounds that are alike, or take a controller with more banks.',
    source: 'counted: banks times switches',
    messages: { many: '{sounds} sounds, and {slots} slots in all.' },
  },
  check: (context) => {
    const slots = context.wiring.devices.reduce(
      (sum, { anatomy }) => sum + (anatomy.controller ? anatomy.controller.banks * anatomy.controller.positions : 0),
      0,
    );
    const sounds = soundsOf(context).length;
    return slots > 0 && sounds > slots ? [{ messageId: 'many' as const, at: {}, data: { sounds, slots } }] : [];
  },
});
