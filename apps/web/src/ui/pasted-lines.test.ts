import { expect, test } from '@jest/globals';
import { pastedLines } from './pasted-lines.ts';

test('a column becomes lines, whatever ends them; of a table the first column', () => {
  expect(pastedLines('Guitar\r\nTuner\tBoard\n\n Drive \rAmp')).toEqual(['Guitar', 'Tuner', 'Drive', 'Amp']);
});
test('one line is the field’s own', () => {
  expect([pastedLines('Guitar'), pastedLines('Guitar\n'), pastedLines('')]).toEqual([null, null, null]);
});
