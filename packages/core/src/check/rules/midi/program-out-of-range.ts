import { presetExists } from '../../../model/anatomy.ts';
import { wantedPresets } from '../../ask.ts';
import { defineSoundRule } from '../../sound-rule.ts';

export const programOutOfRange = defineSoundRule({
  meta: {
    id: 'midi/program-out-of-range',
    severity: 'stops-the-show',
    title: 'A preset that the device does not have',
    why: 'The device ignores a number that it does not have and stays on the sound before.',
    remedy: 'Choose a preset that exists, or correct how the device counts.',
    source: 'common practice',
    messages: { missing: '{sound} wants preset {panel} of {device} ({wire} on the wire), which it does not have.' },
  },
  tellsNumbers: true,
  each: (one) =>
    wantedPresets(one, one.sound).flatMap(({ wired: { device }, facts, number }) => {
      if (presetExists(facts, number)) return [];
      const data = { sound: one.sound.name, device: device.name, panel: number + device.countsFrom, wire: number };
      return [{ messageId: 'missing' as const, at: { sound: one.sound.id, device: device.id }, data }];
    }),
});
