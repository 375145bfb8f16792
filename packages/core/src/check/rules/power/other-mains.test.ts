import { expect, test } from '@jest/globals';
import { europe, powered, quiet, withPowerSettings } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { otherMains } from './other-mains.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(otherMains, {
      clean: { ...quiet, 'made for it': withPowerSettings(powered(), { venues: [europe] }) },
      faulty: {
        'another voltage': {
          show: withPowerSettings(powered(), { venues: [{ ...europe, volts: 120, hertz: 60 }] }),
          messages: ['volts'],
        },
        'another frequency': {
          show: withPowerSettings(powered(), { venues: [{ ...europe, hertz: 400 }] }),
          messages: ['hertz', 'hertz'],
        },
      },
    }),
  ).toEqual([]);
});
