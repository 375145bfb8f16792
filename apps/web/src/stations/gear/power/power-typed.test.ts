import { expect, test } from '@jest/globals';
import { choicesTyped, limitTyped, limitWords, outputsTyped, outputsWords, voltsTyped } from './power-typed.ts';

test.each([
  ['9', [9, 9]],
  ['9 V', [9, 9]],
  ['9-18', [9, 18]],
  ['9 – 18 V', [9, 18]],
  ['9 to 12', [9, 12]],
  ['18-9', undefined],
  ['nine', undefined],
  ['', undefined],
  ['1-2-3', undefined],
] as const)('a range: %s', (typed, range) => expect(voltsTyped(typed)).toEqual(range));

test.each([
  ['9 V 500 mA', [{ volts: 9, ma: 500 }]],
  ['9V 500', [{ volts: 9, ma: 500 }]],
  ['9 V 0.5 A', [{ volts: 9, ma: 500 }]],
  [
    '9 V 500 mA or 12 V 400 mA',
    [
      { volts: 9, ma: 500 },
      { volts: 12, ma: 400 },
    ],
  ],
  ['500 mA', undefined],
  ['', undefined],
] as const)('what an output may be set to: %s', (typed, choices) => expect(choicesTyped(typed)).toEqual(choices));

const outputs = [1, 2, 3].map((number) => ({
  id: `dc-${number}`,
  label: `Out ${number}`,
  choices: [{ volts: 9, ma: 100 }],
  kind: 'dc' as const,
  centre: '-' as const,
  plug: 'barrel',
}));
test.each([
  ['1, 2', ['dc-1', 'dc-2']],
  ['Out 3', ['dc-3']],
  ['all', ['dc-1', 'dc-2', 'dc-3']],
  ['4', undefined],
  ['', undefined],
] as const)('outputs: %s', (typed, ids) => expect(outputsTyped(outputs, typed)).toEqual(ids));
test('outputs as one reads them, and back', () => {
  for (const ids of [
    ['dc-1', 'dc-3'],
    ['dc-1', 'dc-2', 'dc-3'],
  ])
    expect(outputsTyped(outputs, outputsWords(outputs, ids))).toEqual(ids);
});

test.each([
  ['1500 mA', { ma: 1500 }],
  ['1.5 A', { ma: 1500 }],
  ['18 VA', { va: 18 }],
  ['18', undefined],
] as const)('a limit: %s', (typed, limit) => {
  expect(limitTyped(typed)).toEqual(limit);
  if (limit) expect(limitTyped(limitWords(limit))).toEqual(limit);
});
