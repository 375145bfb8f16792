import { expect, test } from '@jest/globals';
import { powered, quiet, shared, withNeeds, withSupply } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { bothEarths } from './both-earths.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(bothEarths, {
      clean: { ...quiet, 'on an output of its own': withNeeds(powered(), 'drive', { earth: '+' }) },
      faulty: {
        'on one lead': { show: withNeeds(shared(), 'drive', { earth: '+' }), messages: ['both'] },
        'on one rail': {
          show: withSupply(withNeeds(powered(), 'drive', { earth: '+' }), 'supply', {
            outputs: powered().rig.devices.supply.type.power!.supply!.outputs.map((output) => ({
              ...output,
              rail: 'all',
            })),
          }),
          messages: ['both'],
        },
      },
    }),
  ).toEqual([]);
});
