import { expect, test } from '@jest/globals';
import { matching } from './choices.ts';

const choices = ['Switcher Send 1', 'Send of the amp', 'Switcher Return 1'].map((label) => ({ value: label, label }));
const labels = (typed: string) => matching(choices, typed).map(({ label }) => label);

test('choices that hold every word typed, those that begin with it first', () => {
  expect(labels('')).toHaveLength(3);
  expect(labels('send')).toEqual(['Send of the amp', 'Switcher Send 1']);
  expect(labels('1 switcher')).toEqual(['Switcher Send 1', 'Switcher Return 1']);
  expect(labels('moon')).toEqual([]);
});
