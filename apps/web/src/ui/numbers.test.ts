import { expect, test } from '@jest/globals';
import { numberTyped } from '@yunta/core';
import { numberShown } from './numbers.ts';

test('shown in a language, it can be typed back', () => {
  expect(numberShown(0.3, 'de')).toBe('0,3');
  expect(numberShown(0.3, 'en')).toBe('0.3');
  for (const locale of ['de', 'en', 'fr', 'es', 'sv'])
    for (const value of [0.3, 1250, 96.5, 12]) expect(numberTyped(numberShown(value, locale))).toBe(value);
});
