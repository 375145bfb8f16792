import { expect, test } from '@jest/globals';
import { fourCable, lead } from '../../../testing/build-show.ts';
import { ordinary, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { deadEnd } from './dead-end.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(deadEnd, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a direct line beside the amp, not used': fourCable().device('boost', 'boost', 'Boost').sound('lead', lead).show,
    },
    faulty: {
      'a loop that is in and has no return cable': { show: without(ordinary().show, 'drive.out'), messages: ['open'] },
      'the preamp sent nowhere': { show: without(ordinary().show, 'combo.send'), messages: ['open', 'open'] },
    },
  });
  expect(faults).toEqual([]);
});
