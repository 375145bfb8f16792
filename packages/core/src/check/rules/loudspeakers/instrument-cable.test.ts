import { expect, test } from '@jest/globals';
import { loudspeakerIntoPedal, ordinary, withSpeakerCable } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { instrumentCable } from './instrument-cable.ts';

test('an instrument cable at a loudspeaker', () => {
  const faults = ruleFaults(instrumentCable, {
    clean: { 'the ordinary rig': ordinary().show, 'into a pedal: that is told as what it is': loudspeakerIntoPedal() },
    faulty: { 'a signal cable': { show: withSpeakerCable({ kind: 'signal' }), messages: ['thin'] } },
  });
  expect(faults).toEqual([]);
});
