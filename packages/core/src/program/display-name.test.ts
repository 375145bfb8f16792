import { expect, test } from '@jest/globals';
import { shortName } from './display-name.ts';

test('a name that fits is as it is; a longer one keeps what tells it from its song’s others', () => {
  expect(shortName('Ebb, verse', 16)).toBe('Ebb, verse');
  expect(shortName('Harbour Light, chorus', 10)).toBe('HL chorus');
  expect(shortName('Harbour Light, chorus', 6)).toBe('HL cho');
  expect(shortName('Harbour Light', 7)).toBe('Harbour');
  expect(shortName('A Very Long Song Title Indeed, solo', 4)).toBe('A Ve');
  for (let length = 1; length < 30; length += 1)
    expect(shortName('Harbour Light, second chorus', length).length).toBeLessThanOrEqual(length);
});
