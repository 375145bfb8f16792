import { expect, test } from '@jest/globals';
import { tiersTyped, tiersWords } from './tiers-typed.ts';

test.each([
  ['', []],
  ['250–400: 60', [{ from: 250, to: 400, height: 60 }]],
  [
    '250-400: 60 mm; 0-100=55',
    [
      { from: 250, to: 400, height: 60 },
      { from: 0, to: 100, height: 55 },
    ],
  ],
  ['400-250: 60', undefined],
  ['high', undefined],
] as const)('tiers: %s', (typed, tiers) => {
  expect(tiersTyped(typed)).toEqual(tiers);
  if (tiers) expect(tiersTyped(tiersWords(tiers))).toEqual(tiers);
});
