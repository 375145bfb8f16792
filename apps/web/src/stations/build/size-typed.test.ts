import { expect, test } from '@jest/globals';
import { sizeTyped } from './size-typed.ts';

test.each([
  ['600 × 400 × 300', [600, 400, 300]],
  ['600x400x300 mm', [600, 400, 300]],
  ['600 400 300', [600, 400, 300]],
  ['600 * 400', undefined],
  ['0 × 400 × 300', undefined],
  ['600 × 400 × 1e9', undefined],
  ['large', undefined],
] as const)('a size: %s', (typed, size) => expect(sizeTyped(typed)).toEqual(size));
