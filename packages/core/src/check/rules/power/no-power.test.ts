import { expect, test } from '@jest/globals';
import { onLine, plugs, powered, quiet, withPowerCable, withUnitPower } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noPower } from './no-power.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(noPower, {
      clean: {
        ...quiet,
        'on its battery': withUnitPower(withPowerCable(powered(), 'drive', null), 'drive', { onBattery: true }),
      },
      faulty: {
        'pulled out': { show: withPowerCable(powered(), 'drive', null), messages: ['nothing'] },
        'a battery that it has not': {
          show: withUnitPower(withPowerCable(powered(), 'delay', null), 'delay', { onBattery: true }),
          messages: ['nothing'],
        },
        'a lead that comes from nowhere': {
          show: withPowerCable(onLine(20), 'delay', { plugs: plugs('snake/power-1-out', 'delay/power-in') }),
          messages: ['loose'],
        },
      },
    }),
  ).toEqual([]);
});
