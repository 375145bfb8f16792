import { expect, test } from '@jest/globals';
import { quiet, throughLine } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { voltageDrop } from './voltage-drop.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(voltageDrop, {
      clean: { ...quiet, 'thick enough': throughLine(18) },
      faulty: { 'thin wire': { show: throughLine(30), messages: ['dropped'] } },
    }),
  ).toEqual([]);
});
