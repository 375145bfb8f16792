import { expect, test } from '@jest/globals';
import { joined, powered, quiet, withSupply } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { joinedOutputs } from './joined-outputs.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(joinedOutputs, {
      clean: { ...quiet, 'as its papers say': joined('series') },
      faulty: {
        'as its papers do not say': { show: joined('parallel'), messages: ['otherwise'] },
        'two that may not be joined': { show: joined('series', ['dc-3', 'dc-4']), messages: ['forbidden'] },
        'in series on a rail that feeds more': {
          show: withSupply(joined('series'), 'supply', {
            outputs: powered().rig.devices.supply.type.power!.supply!.outputs.map((output) => ({
              ...output,
              ...(['dc-2', 'dc-6'].includes(output.id) ? { rail: 'all' } : {}),
            })),
          }),
          messages: ['shared'],
        },
      },
    }),
  ).toEqual([]);
});
