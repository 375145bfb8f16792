import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { Device } from '../../../model/rig.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { heldByPedal } from './held-by-pedal.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(heldByPedal, {
    clean: {
      'stored in the preset that the sound recalls': byPedal({ '5': { values: { mix: 60 } } }, {}),
      'declared live': byPedal({}, { mix: 'live' }),
    },
    faulty: { 'neither stored nor sent': { show: byPedal({}, {}), messages: ['held'], fixable: true } },
  });
  expect(faults).toEqual([]);
});

function byPedal(presets: Device['presets'], owners: Device['owners']): Show {
  return new ShowBuilder()
    .device('delay', 'midi-delay', 'Delay', { presets, owners }, { mixCc: -1, mixByPedal: true })
    .sound('a', { wants: { 'delay/preset': 5, 'delay/mix': 60 } }).show;
}
