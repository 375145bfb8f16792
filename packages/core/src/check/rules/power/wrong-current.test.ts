import { expect, test } from '@jest/globals';
import { powered, quiet, withNeeds } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { wrongCurrent } from './wrong-current.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(wrongCurrent, {
      clean: quiet,
      faulty: {
        'alternating current wanted': {
          show: withNeeds(powered(), 'drive', { kind: 'ac' }),
          messages: ['other'],
          fixable: false,
        },
      },
    }),
  ).toEqual([]);
});
