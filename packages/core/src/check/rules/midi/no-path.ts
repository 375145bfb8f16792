import type { Reported } from '../../define-rule.ts';
import { isReached, none, wantedPresets } from '../../queries.ts';
import { defineSoundRule } from '../../sound-rule.ts';

export const noPath = defineSoundRule({
  meta: {
    id: 'midi/no-path',
    severity: 'stops-the-show',
    title: 'No MIDI path to a device that a sound addresses',
    why: 'The preset can be sent, and nothing carries it there: the device stays on what it was.',
    remedy: 'Plug the MIDI cable in, through every hop; and give the device a receive channel.',
    source: 'MIDI 1.0: a message goes where a cable takes it and a receiver set to its channel takes it in',
    messages: {
      unreached: '{sound} wants a preset of {device}, and no MIDI cable leads there from a controller.',
      deaf: '{sound} wants a preset of {device}, which listens on no channel.',
    },
  },
  applies: ({ wiring }) => wiring.devices.some((wired) => wired.anatomy.controller),
  each: (soundCase) =>
    wantedPresets(soundCase, soundCase.sound).flatMap(
      ({ wired: { device } }): readonly Reported<'unreached' | 'deaf'>[] => {
        if (device.channel !== null && isReached(soundCase, device.id)) return none;
        const about = {
          at: { sound: soundCase.sound.id, device: device.id },
          data: { sound: soundCase.sound.name, device: device.name },
        };
        return [
          isReached(soundCase, device.id) ? { messageId: 'deaf', ...about } : { messageId: 'unreached', ...about },
        ];
      },
    ),
});
