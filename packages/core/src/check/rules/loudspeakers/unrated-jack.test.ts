import { expect, test } from '@jest/globals';
import { loudspeakerIntoPedal, ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { unratedJack } from './unrated-jack.ts';

test('a loudspeaker output into a jack that is not rated for it', () => {
  const faults = ruleFaults(unratedJack, {
    clean: { 'the ordinary rig': ordinary().show },
    faulty: { 'into a pedal': { show: loudspeakerIntoPedal(), messages: ['into'] } },
  });
  expect(faults).toEqual([]);
});
