import { expect, test } from '@jest/globals';
import { hundredths, kilograms, tenths } from './shown.ts';

test('figures are shown with the places that they are good for', () => {
  expect([12, 12.04, 12.05, 0.1 + 0.2].map(tenths)).toEqual(['12', '12', '12.1', '0.3']);
  expect([0.1 + 0.2, 44.099999999999994].map(hundredths)).toEqual([0.3, 44.1]);
  expect([0, 960, 18_040].map(kilograms)).toEqual(['0.0 kg', '1.0 kg', '18.0 kg']);
});
