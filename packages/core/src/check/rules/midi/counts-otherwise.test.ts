import { expect, test } from '@jest/globals';
import { byHand, ordinary, wanting } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { countsOtherwise } from './counts-otherwise.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(countsOtherwise, {
    clean: {
      'the last preset that there is': wanting('lead', 'delay/preset', 127),
      'two past the last': wanting('lead', 'delay/preset', 129),
      'a slot by hand that sends what is wanted': byHand(ordinary().show, 'slot-lead', [
        { kind: 'program', channel: 2, program: 5 },
      ]),
    },
    faulty: {
      'one past the last': { show: wanting('lead', 'delay/preset', 128), messages: ['edge'], fixable: true },
      'a slot by hand, one off': {
        show: byHand(ordinary().show, 'slot-lead', [{ kind: 'program', channel: 2, program: 6 }]),
        messages: ['slot'],
        fixable: true,
      },
    },
  });
  expect(faults).toEqual([]);
});
