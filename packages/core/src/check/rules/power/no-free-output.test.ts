import { expect, test } from '@jest/globals';
import { powered, quiet, withPowerCable, withSupply } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noFreeOutput } from './no-free-output.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(noFreeOutput, {
      clean: {
        ...quiet,
        'one adapter for one piece': withPowerCable(
          withSupply(powered(), 'supply', {
            outputs: powered().rig.devices.supply.type.power!.supply!.outputs.slice(0, 1),
            limits: [],
            joins: [],
          }),
          'supply',
          null,
        ),
      },
      faulty: {
        'three outputs, three pieces': {
          show: withSupply(powered(), 'supply', {
            outputs: powered().rig.devices.supply.type.power!.supply!.outputs.filter(({ id }) =>
              ['dc-1', 'dc-6', 'dc-7'].includes(id),
            ),
            limits: [],
            joins: [],
          }),
          messages: ['full'],
        },
      },
    }),
  ).toEqual([]);
});
