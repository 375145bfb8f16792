import { splitRef } from '../../../model/documents.ts';
import { controllersOf, nameOf, soundsOf } from '../../ask.ts';
import { defineRule, type Reported } from '../../define-rule.ts';

export const noPath = defineRule({
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
  check: (context) => {
    if (!context.wiring.devices.some((wired) => wired.anatomy.controller)) return [];
    const unreached = new Map(context.wiring.devices.map((wired) => [wired.device.id, controllersOf(context, wired.device.id).length === 0]));
    return soundsOf(context).flatMap((sound) =>
      Object.keys(sound.wants).flatMap((ref): Reported<'unreached' | 'deaf'>[] => {
        const { device, control } = splitRef(ref);
        const wired = context.wiring.device.get(device);
        if (control !== 'preset' || !wired?.anatomy.presets) return [];
        const data = { sound: sound.name, device: nameOf(context, device) };
        if (unreached.get(device)) return [{ messageId: 'unreached', at: { sound: sound.id, device }, data }];
        return wired.device.channel === null ? [{ messageId: 'deaf', at: { sound: sound.id, device }, data }] : [];
      }),
    );
  },
});
