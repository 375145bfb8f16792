import { describe, expect, test } from '@jest/globals';
import { confirmed, fieldOf, typedInto, valueChanged } from './field-state.ts';

const taken: string[] = [];
const evenOnly = (text: string): string | null => {
  if (Number(text) % 2 === 1) return `${text} is odd`;
  taken.push(text);
  return null;
};

describe('a field', () => {
  test('what is taken stands; what was typed back is no edit', () => {
    taken.length = 0;
    expect(confirmed(typedInto(fieldOf('2'), ' 4 '), '2', evenOnly)).toEqual({ text: '4', reason: null });
    expect(confirmed(typedInto(fieldOf('2'), '2'), '2', evenOnly)).toEqual(fieldOf('2'));
    expect(taken).toEqual(['4']);
  });

  test('what is refused stays as typed with its reason, through an edit elsewhere, until it is mended', () => {
    const refused = confirmed(typedInto(fieldOf('2'), '3'), '2', evenOnly);
    expect(refused).toEqual({ text: '3', reason: '3 is odd' });
    expect(valueChanged(refused, '8')).toBe(refused);
    const mending = typedInto(refused, '6');
    expect(mending.reason).toBe('3 is odd');
    expect(confirmed(mending, '8', evenOnly)).toEqual({ text: '6', reason: null });
  });

  test('given up, or changed elsewhere with nothing refused, it shows what is there', () => {
    expect(valueChanged(typedInto(fieldOf('2'), '3'), '8')).toEqual(fieldOf('8'));
  });
});
