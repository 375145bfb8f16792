import { expect, test } from '@jest/globals';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withDevice, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noPath } from './no-path.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noPath, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no controller': new ShowBuilder()
        .device('delay', 'midi-delay', 'Delay')
        .sound('a', { wants: { 'delay/preset': 3 } }).show,
    },
    faulty: {
      'the MIDI cable not plugged in': { show: without(ordinary().show, 'switcher.midi-out'), messages: ['unreached'] },
      'no receive channel': { show: withDevice(ordinary().show, 'delay', { channel: null }), messages: ['deaf'] },
    },
  });
  expect(faults).toEqual([]);
});
