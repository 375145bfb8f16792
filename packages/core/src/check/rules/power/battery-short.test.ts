import { expect, test } from '@jest/globals';
import {
  powered,
  quiet,
  withNeeds,
  withPowerCable,
  withPowerSettings,
  withSupply,
  withUnitPower,
} from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { batteryShort } from './battery-short.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(batteryShort, {
      clean: {
        ...quiet,
        'long enough': withUnitPower(withPowerCable(powered(), 'drive', null), 'drive', { onBattery: true }),
      },
      faulty: {
        'a hungry one': {
          show: withNeeds(
            withUnitPower(withPowerCable(powered(), 'drive', null), 'drive', { onBattery: true }),
            'drive',
            { ma: 200 },
          ),
          messages: ['short'],
        },
        'a board’s battery for a long day': {
          show: withPowerSettings(withSupply(powered(), 'supply', { battery: { wh: 20, efficiency: 80 } }), {
            hours: 12,
          }),
          messages: ['short'],
        },
      },
    }),
  ).toEqual([]);
});
