import { expect, test } from '@jest/globals';
import { europe, onStrip, quiet, withPowerSettings, withTypePower } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { mainsOverload } from './mains-overload.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(mainsOverload, {
      clean: { ...quiet, 'an amp on a strip': onStrip() },
      faulty: {
        'a strip that passes on too little': {
          show: withTypePower(onStrip(), 'strip', (power) => ({ ...power, outlets: { count: 6, va: 100 } })),
          messages: ['outlets'],
        },
        'a fuse of half an ampere': {
          show: withPowerSettings(onStrip(), { venues: [{ ...europe, amps: 0.5 }] }),
          messages: ['venue'],
        },
      },
    }),
  ).toEqual([]);
});
