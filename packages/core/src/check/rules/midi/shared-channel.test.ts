import { expect, test } from '@jest/globals';
import { twoEffects, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { sharedChannel } from './shared-channel.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(sharedChannel, {
    clean: {
      'two devices on two channels': twoEffects(3),
      'two devices on one channel, one of them not in the chain': without(twoEffects(2), 'delay.midi-thru'),
    },
    faulty: { 'two devices on one channel': { show: twoEffects(2), messages: ['shared'], fixable: true } },
  });
  expect(faults).toEqual([]);
});
