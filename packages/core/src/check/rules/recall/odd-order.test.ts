import { expect, test } from '@jest/globals';
import { ordered, placed } from '../../../testing/ordered-rigs.ts';
import { byHand } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { oddOrder } from './odd-order.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const { show } = ordered();
  const four = ordered('d').show;
  const set = (control: string, value: number) => ({ kind: 'set' as const, control, value });
  const backwards = [4, 3, 2, 1];
  expect(
    ruleFaults(oddOrder, {
      clean: {
        'each in an order of its own': show,
        'two and two': placed(placed(placed(four, 'a', backwards), 'b', backwards), 'c', [1, 2, 3, 4]),
      },
      faulty: {
        'one of four, with both pedals on': {
          show: placed(
            placed(placed(placed(four, 'a', [1, 2, 3, 4]), 'b', [1, 2, 3, 4]), 'c', [1, 2, 3, 4]),
            'd',
            backwards,
          ),
          messages: ['heard'],
          fixable: true,
        },
        'one of four, with nothing in the loops that changed places': {
          show: placed(
            placed(placed(placed(four, 'a', [1, 2, 3, 4]), 'b', [1, 2, 3, 4]), 'c', [1, 2, 3, 4]),
            'd',
            [1, 2, 4, 3],
          ),
          messages: ['unheard'],
          fixable: true,
        },
        'written by hand': {
          show: byHand(
            placed(placed(placed(four, 'a', [1, 2, 3, 4]), 'b', [1, 2, 3, 4]), 'c', [1, 2, 3, 4]),
            'slot-d',
            [set('place-1', 2), set('place-2', 1), set('place-3', 3), set('place-4', 4)],
          ),
          messages: ['heard'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});
