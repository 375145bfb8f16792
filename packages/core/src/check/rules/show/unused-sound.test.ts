import { expect, test } from '@jest/globals';
import { clean, fourCable, lead } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { unusedSound } from './unused-sound.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(unusedSound, {
    clean: {
      'every sound cast': ordinary().show,
      'no songs yet': fourCable().sound('lead', lead).show,
      'a silent one': ordinary().sound('off', { silence: true }).show,
    },
    faulty: { 'one that no part plays': { show: ordinary().sound('spare', clean).show, messages: ['idle'] } },
  });
  expect(faults).toEqual([]);
});
