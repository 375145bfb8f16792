import { expect, test } from '@jest/globals';
import { lengthIn, lengthLabel, metresInFoot } from './length.ts';

test('metres as they are, feet to the hundredth; whole feet come back whole', () => {
  expect(lengthLabel(0.3, undefined)).toBe('0.3 m');
  expect(lengthLabel(6.096, 'ft')).toBe('20 ft');
  for (let feet = 0; feet <= 100; feet += 1)
    expect(lengthIn(Math.round(feet * metresInFoot * 1000) / 1000, 'ft')).toBe(feet);
});
