import { expect, test } from '@jest/globals';
import { anySaid, said } from './said.ts';

test('what nobody says any more goes; nought, no and nothing typed stay', () => {
  expect(said({ a: 0, b: false, c: '', d: null, e: undefined })).toStrictEqual({ a: 0, b: false, c: '', d: null });
  expect(anySaid({ a: undefined })).toBeUndefined();
  expect(anySaid({ a: undefined, b: 0 })).toStrictEqual({ b: 0 });
});
