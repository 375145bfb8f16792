import { expect, test } from '@jest/globals';
import { powered, quiet, withNeeds, withPowerCable } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { otherPlug } from './other-plug.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(otherPlug, {
      clean: {
        ...quiet,
        'the lead has the other plug': withNeeds(
          withPowerCable(powered(), 'drive', { lead: { adapts: ['drive'] } }),
          'drive',
          { plug: 'mini-jack' },
        ),
      },
      faulty: {
        'another plug': {
          show: withNeeds(powered(), 'drive', { plug: 'mini-jack' }),
          messages: ['other'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});
