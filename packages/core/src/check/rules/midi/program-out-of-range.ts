import { presetExists } from '../../../model/anatomy.ts';
import type { Reported } from '../../define-rule.ts';
import { none, wantedPresets } from '../../queries.ts';
import { defineSoundRule } from '../../sound-rule.ts';

export const programOutOfRange = defineSoundRule({
  meta: {
    id: 'midi/program-out-of-range',
    severity: 'stops-the-show',
    title: 'A preset that the device does not have',
    why: 'The device ignores a number that it does not have and stays on the sound before.',
    remedy: 'Choose a preset that exists, or correct how the device counts.',
    source: 'common practice',
    messages: { missing: '{sound} wants preset {panel} of {device} (sent as {wire}), which it does not have.' },
  },
  tellsNumbers: true,
  each: (soundCase) =>
    wantedPresets(soundCase, soundCase.sound).flatMap(
      ({ wired: { device }, facts, number }): readonly Reported<'missing'>[] => {
        if (presetExists(facts, number)) return none;
        const data = {
          sound: soundCase.sound.name,
          device: device.name,
          panel: number + device.firstPresetNumber,
          wire: number,
        };
        return [{ messageId: 'missing', at: { sound: soundCase.sound.id, device: device.id }, data }];
      },
    ),
});
