import { expect, test } from '@jest/globals';
import { powered, quiet, withNeeds, withPowerCable } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { wrongPolarity } from './wrong-polarity.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(wrongPolarity, {
      clean: { ...quiet, 'it does not mind': withNeeds(powered(), 'drive', { centre: 'any' }) },
      faulty: {
        'a straight lead': {
          show: withNeeds(powered(), 'drive', { centre: '+' }),
          messages: ['straight'],
          fixable: true,
        },
        'a lead that reverses what was right': {
          show: withPowerCable(powered(), 'drive', { lead: { reverses: ['drive'] } }),
          messages: ['reversed'],
          fixable: true,
        },
        'a lead that reverses, as it must': {
          show: withNeeds(withPowerCable(powered(), 'drive', { lead: { reverses: ['drive'] } }), 'drive', {
            centre: '+',
          }),
          messages: ['lead'],
          fixable: false,
        },
      },
    }),
  ).toEqual([]);
});
