import { expect, test } from '@jest/globals';
import { onStrip, quiet, withTypePower } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { unearthed } from './unearthed.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(unearthed, {
      clean: { ...quiet, 'an earthed strip': onStrip() },
      faulty: {
        'a strip without earth': {
          show: withTypePower(onStrip(), 'strip', (power) => ({
            ...power,
            outlets: { ...power.outlets!, unearthed: true },
          })),
          messages: ['lifted'],
        },
      },
    }),
  ).toEqual([]);
});
