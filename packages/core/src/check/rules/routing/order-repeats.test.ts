import { expect, test } from '@jest/globals';
import { ordered, placed } from '../../../testing/ordered-rigs.ts';
import { byHand } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { orderRepeats } from './order-repeats.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const set = (control: string, value: number) => ({ kind: 'set' as const, control, value });
  const { show } = ordered();
  expect(
    ruleFaults(orderRepeats, {
      clean: {
        'orders of all kinds': show,
        'an order by hand': byHand(show, 'slot-a', [set('place-1', 2), set('place-2', 1)]),
      },
      faulty: {
        'a sound that wants two loops at one place': {
          show: placed(show, 'a', [1, 1, 2, 3]),
          messages: ['sound'],
          fixable: true,
        },
        'a slot by hand that does': {
          show: byHand(show, 'slot-a', [set('place-1', 2)]),
          messages: ['slot'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});
