import { expect, test } from '@jest/globals';
import { quiet, shared, withNeeds } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { digitalShares } from './digital-shares.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(digitalShares, {
      clean: { ...quiet, 'two analogue ones on one lead': withNeeds(shared(), 'switcher', { digital: false }) },
      faulty: {
        'a chain lead': { show: shared(), messages: ['shared'] },
        'two digital ones, told once': { show: withNeeds(shared(), 'drive', { digital: true }), messages: ['shared'] },
      },
    }),
  ).toEqual([]);
});
