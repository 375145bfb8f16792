import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const noRoute = defineSoundRule({
  meta: {
    id: 'routing/no-route',
    severity: 'stops-the-show',
    title: 'No route to any destination',
    why: 'Nothing is heard in this sound: the line from the instrument stops before a loudspeaker or the desk.',
    remedy: 'Follow the run from the left, plug in or switch on what stops it; or mark the sound as silent.',
    source: 'common practice',
    messages: { silent: '{sound} is silent: no route from an instrument to a loudspeaker or the desk.' },
  },
  applies: ({ wiring }) => wiring.devices.some((wired) => wired.anatomy.source !== undefined),
  each: (soundCase) =>
    soundCase.sound.silence || isHeard(soundCase)
      ? []
      : [{ messageId: 'silent' as const, at: { sound: soundCase.sound.id }, data: { sound: soundCase.sound.name } }],
});
