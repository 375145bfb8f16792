import { expect, test } from '@jest/globals';
import { powered, quiet, withNeeds, withPowerSettings, withSupply } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { littleHeadroom } from './little-headroom.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(littleHeadroom, {
      clean: {
        ...quiet,
        'eighty per cent exactly': withNeeds(powered(), 'drive', { ma: 80 }),
        'a rig that allows nine tenths': withPowerSettings(withNeeds(powered(), 'drive', { ma: 85 }), { headroom: 90 }),
      },
      faulty: {
        'above eighty per cent': { show: withNeeds(powered(), 'drive', { ma: 81 }), messages: ['output'] },
        'the whole supply': {
          show: withSupply(powered(), 'supply', { limits: [{ outputs: ['dc-1', 'dc-6', 'dc-7'], va: 4 }] }),
          messages: ['limit'],
        },
      },
    }),
  ).toEqual([]);
});
