import { expect, test } from '@jest/globals';
import { spectralRadius } from './feedback.ts';

// Eigenvalues by hand (linear algebra): a cycle of n edges of gain g has the radius g; [[a, b], [b, a]] has a + b.
test.each([
  [
    'a cycle of three at 0.5',
    [
      [0, 1, 0.5],
      [1, 2, 0.5],
      [2, 0, 0.5],
    ],
    0.5,
  ],
  [
    'a cycle of two, 0.2 and 0.8: their geometric mean',
    [
      [0, 1, 0.2],
      [1, 0, 0.8],
    ],
    0.4,
  ],
  [
    'two that feed themselves and each other',
    [
      [0, 0, 0.3],
      [0, 1, 0.4],
      [1, 0, 0.4],
      [1, 1, 0.3],
    ],
    0.7,
  ],
  [
    'parallel edges add',
    [
      [0, 0, 0.25],
      [0, 0, 0.5],
    ],
    0.75,
  ],
] as const)('%s', (_, edges, radius) => {
  expect(spectralRadius(edges.map(([from, to, gain]) => ({ from, to, gain })))).toBeCloseTo(radius, 6);
});
