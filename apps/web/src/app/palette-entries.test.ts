import { expect, test } from '@jest/globals';
import { matching } from './palette-entries.ts';

const entries = ['Low Water, verse', 'Water', 'Undo'].map((name) => ({
  name,
  kind: name === 'Undo' ? 'command' : 'sound',
  act: () => undefined,
}));
const names = (typed: string) => matching(entries, typed).map((entry) => entry.name);

test('every typed word must be there, in name or kind; names that begin with it come first', () => {
  expect(names('')).toEqual(['Low Water, verse', 'Water', 'Undo']);
  expect(names('water')).toEqual(['Water', 'Low Water, verse']);
  expect(names('ver low')).toEqual(['Low Water, verse']);
  expect(names('command')).toEqual(['Undo']);
  expect(names('moon')).toEqual([]);
});
