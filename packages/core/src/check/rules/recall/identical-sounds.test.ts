import { expect, test } from '@jest/globals';
import { clean, fourCable, lead } from '../../../testing/build-show.ts';
import { ordinary, wantingEach } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { identicalSounds } from './identical-sounds.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(identicalSounds, {
    clean: {
      'clean and lead': ordinary().show,
      'a difference in a preset': wantingEach('delay/preset', 3, 4, lead),
      'a difference by hand': wantingEach('guitar/selector', 'neck', 'bridge', lead),
    },
    faulty: {
      'the same sound twice': { show: fourCable().sound('a', lead).sound('b', lead).show, messages: ['same'] },
      'a difference where nothing is heard': {
        show: fourCable()
          .sound('a', clean)
          .sound('b', { ...clean, wants: { ...clean.wants, 'delay/preset': 4 } }).show,
        messages: ['same'],
      },
    },
  });
  expect(faults).toEqual([]);
});
