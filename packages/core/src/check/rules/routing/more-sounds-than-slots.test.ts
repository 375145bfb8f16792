import { expect, test } from '@jest/globals';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { moreSoundsThanSlots } from './more-sounds-than-slots.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(moreSoundsThanSlots, {
    clean: {
      'two sounds, forty slots': ordinary().show,
      'no controller at all': new ShowBuilder().sound('a').sound('b').show,
    },
    faulty: {
      'three sounds on a controller of two slots': {
        show: new ShowBuilder()
          .device('switcher', 'switcher-4', 'Switcher', {}, { banks: 1, positions: 2 })
          .sound('a')
          .sound('b')
          .sound('c').show,
        messages: ['many'],
      },
    },
  });
  expect(faults).toEqual([]);
});
