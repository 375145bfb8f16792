import { describe, expect, test } from '@jest/globals';
import { lengthTyped, numberTyped, rangeText, rangeTyped } from './typed.ts';

describe('numbers as people type them', () => {
  test.each([
    ['0.3', 0.3],
    ['0,3', 0.3],
    [',5', 0.5],
    ['1 250', 1250],
    ['−2', -2],
    ['96,5', 96.5],
  ])('%s', (text, value) => expect(numberTyped(text)).toBe(value));
  test.each(['', 'x', '1,2,3', '1.2.3', '3 m', 'Infinity', '1e5'])('“%s” is none', (text) =>
    expect(numberTyped(text)).toBeUndefined(),
  );
});

describe('ranges', () => {
  test.each([
    ['12', [12, 12]],
    ['12–15', [12, 15]],
    ['9 to 18', [9, 18]],
    ['15-12', undefined],
    ['1-2-3', undefined],
    ['-5', undefined],
    ['cheap', undefined],
  ] as const)('%s', (text, range) => expect(rangeTyped(text)).toEqual(range));
  test('are written as they are typed', () => {
    for (const text of ['12', '12–15']) expect(rangeText(...rangeTyped(text)!)).toBe(text);
  });
});

// Source: 1 ft = 0.3048 m and 1 in = 25.4 mm exactly (international yard and pound agreement, 1959).
describe('lengths', () => {
  test.each([
    ['6', 6],
    ['6 m', 6],
    ['6m', 6],
    ['0,3', 0.3],
    ['30 cm', 0.3],
    ['20 ft', 6.096],
    ['20ft', 6.096],
    ['1\' 6"', 0.457],
    ['18 in', 0.457],
    ['450 mm', 0.45],
  ])('%s', (text, metres) => expect(lengthTyped(text)).toBe(metres));
  test('a bare number is in the unit of the rig', () => {
    expect([lengthTyped('20', 'ft'), lengthTyped('6 m', 'ft'), lengthTyped('20')]).toEqual([6.096, 6, 20]);
  });
  test('nothing typed: not known', () => expect(lengthTyped(' ')).toBeNull());
  test.each(['x', '6 miles', '6 m 3', 'm', '1..2', '-3'])('“%s” is none', (text) =>
    expect(lengthTyped(text)).toBeUndefined(),
  );
});
