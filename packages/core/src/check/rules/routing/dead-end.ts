import { defineSoundRule } from '../../sound-rule.ts';

export const deadEnd = defineSoundRule({
  meta: {
    id: 'routing/dead-end',
    severity: 'fix-before-load-in',
    title: 'A branch ends at an open jack',
    why: 'The signal goes into a jack that nothing is plugged into (or a cable that leads nowhere) though nothing else carries it on. An unused direct output is none of this.',
    remedy: 'Plug the cable in, or take the loop out of this sound.',
    source: 'common practice',
    messages: { open: 'In {sound} the signal ends at {jack} of {device}, which leads nowhere.' },
  },
  each: ({ sound, wiring, trace }) =>
    sound.silence
      ? []
      : trace().deadEnds.map((end) => {
          const wired = wiring.device.get(end.device)!;
          return {
            messageId: 'open' as const,
            at: { sound: sound.id, device: end.device },
            data: { sound: sound.name, device: wired.device.name, jack: wired.jack.get(end.jack)!.label },
          };
        }),
});
