import { presetExists } from '../../../model/anatomy.ts';
import { inOrder, splitRef } from '../../../model/documents.ts';
import { defineRule } from '../../define-rule.ts';

export const programOutOfRange = defineRule({
  meta: {
    id: 'midi/program-out-of-range',
    severity: 'stops-the-show',
    title: 'A preset that the device does not have',
    why: 'The device ignores a number that it does not have and stays on the sound before.',
    remedy: 'Choose a preset that exists, or correct how the device counts.',
    source: 'common practice',
    messages: { missing: '{sound} wants preset {panel} of {device} ({wire} on the wire), which it does not have.' },
  },
  check: ({ show, wiring }) =>
    inOrder(show.rig.sounds).flatMap((sound) =>
      Object.entries(sound.wants).flatMap(([ref, value]) => {
        const { device, control } = splitRef(ref);
        const wired = wiring.device.get(device);
        if (control !== 'preset' || !wired?.anatomy.presets || presetExists(wired.anatomy.presets, Number(value))) return [];
        const data = { sound: sound.name, device: wired.device.name, panel: Number(value) + wired.device.countsFrom, wire: Number(value) };
        return [{ messageId: 'missing' as const, at: { sound: sound.id, device }, data }];
      }),
    ),
});
