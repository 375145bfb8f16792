import { expect, test } from '@jest/globals';
import { powered, quiet, withNeeds, withUnitPower } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { wrongVolts } from './wrong-volts.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(wrongVolts, {
      clean: { ...quiet, 'a range that holds it': withNeeds(powered(), 'drive', { volts: [6, 9] }) },
      faulty: {
        'too much': { show: withUnitPower(powered(), 'supply', { volts: { 'dc-7': 18 } }), messages: ['over'] },
        'too little': { show: withNeeds(powered(), 'drive', { volts: [12, 12] }), messages: ['under'] },
      },
    }),
  ).toEqual([]);
});
