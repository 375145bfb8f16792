import { expect, test } from '@jest/globals';
import { numberTyped } from '@yunta/core';
import { numberShown, wholeNumber } from './numbers.ts';

test('shown in a language, it can be typed back', () => {
  expect(numberShown(0.3, 'de')).toBe('0,3');
  expect(numberShown(0.3, 'en')).toBe('0.3');
  for (const locale of ['de', 'en', 'fr', 'es', 'sv'])
    for (const value of [0.3, 1250, 96.5, 12]) expect(numberTyped(numberShown(value, locale))).toBe(value);
});

test.each([
  ['12', 12],
  [' 7 ', 7],
  ['−3', undefined],
  ['1.5', undefined],
  ['1e3', undefined],
  ['', undefined],
  ['501', undefined],
] as const)('a whole number of 0 to 500: %s', (typed, value) => expect(wholeNumber(typed, 0, 500)).toBe(value));
