import { heardSounds, nameOf } from '../../ask.ts';
import { defineRule } from '../../define-rule.ts';

export const notOnPath = defineRule({
  meta: {
    id: 'routing/not-on-path',
    severity: 'fix-before-load-in',
    title: 'Wanted on, but the signal does not pass it',
    why: 'The sound asks for this piece, and the line goes round it: it cannot be heard.',
    remedy: 'Plug it into the line or into a loop that the sound takes, or take it out of the sound.',
    source: 'traced: no pass of the run goes through what it does',
    messages: { unheard: '{sound} wants {device} on, and the signal does not pass it.' },
  },
  check: (context) =>
    heardSounds(context).flatMap(({ sound, trace }) => {
      const passed = new Set(trace.passes.filter((pass) => !pass.bypassed).map((pass) => pass.device));
      return Object.entries(sound.pedals)
        .filter(([device, state]) => state === 'on' && !passed.has(device))
        .map(([device]) => ({ messageId: 'unheard' as const, at: { sound: sound.id, device }, data: { sound: sound.name, device: nameOf(context, device) } }));
    }),
});
