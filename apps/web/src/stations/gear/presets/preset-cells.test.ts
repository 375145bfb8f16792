import { anatomyOf, presetColumns, presetText, typeById } from '@yunta/core';
import { describe, expect, test } from '@jest/globals';
import {
  copiedText,
  type Edit,
  filledDown,
  numbersTyped,
  pastedCells,
  type PresetRow,
  turnedAt,
  typedInto,
} from './preset-cells.ts';

const columns = presetColumns(anatomyOf(typeById('multi-effect-moves').type));
const at = (label: string) => columns.findIndex((column) => column.label === label);
const rows: readonly PresetRow[] = [
  { number: 0, preset: { name: 'Verse', values: { 'block-drive': 1, 'block-modulation': 0 } } },
  { number: 1, preset: { values: { 'block-drive': 0 } } },
  { number: 2, preset: { values: {} } },
];
const [drive, modulation] = [at('Drive'), at('Modulation')];
const two = { top: 0, bottom: 2, left: drive, right: modulation };
const told = (edit: Edit | null) =>
  edit === null || typeof edit === 'string'
    ? edit
    : edit.map(([number, preset]) => [
        number,
        presetText(columns[drive], preset),
        presetText(columns[modulation], preset),
      ]);

test('filling puts the first row into the others; one row alone says how to select', () => {
  expect(told(filledDown(rows, columns, two))).toEqual([
    [0, 'on', 'off'],
    [1, 'on', 'off'],
    [2, 'on', 'off'],
  ]);
  expect(filledDown(rows, columns, { ...two, bottom: 0 })).toBe('Select the rows to fill first: Shift and an arrow.');
});

test('a press turns all that is selected to what the one in hand becomes', () => {
  expect(told(turnedAt(rows, columns, { row: 0, column: drive }, { ...two, right: drive }))).toEqual([
    [0, 'off', 'off'],
    [1, 'off', ''],
    [2, 'off', ''],
  ]);
  expect(turnedAt(rows, columns, { row: 0, column: at('Delay mix') }, two)).toBeNull();
});

describe('what is pasted', () => {
  test('goes where it was copied from as it was', () => {
    const copied = copiedText(rows, columns, two);
    expect(copied).toBe('on\toff\noff\t\n\t');
    expect(told(pastedCells(rows, columns, two, copied))).toEqual(
      rows.map(({ number, preset }) => [
        number,
        presetText(columns[drive], preset),
        presetText(columns[modulation], preset),
      ]),
    );
  });
  test('rows past the last one are presets of the next numbers', () => {
    expect(told(pastedCells(rows, columns, { ...two, top: 2, bottom: 2 }, 'on\ton\r\noff\toff\r\n'))).toEqual([
      [2, 'on', 'on'],
      [3, 'off', 'off'],
    ]);
  });
  test('one cell goes into all that is selected', () => {
    expect(told(pastedCells(rows, columns, two, 'off'))).toEqual([0, 1, 2].map((number) => [number, 'off', 'off']));
  });
  test('what cannot be read refuses all, with its place', () => {
    expect(pastedCells(rows, columns, two, 'on\ton\non\tloud')).toBe(
      'Line 2, Modulation: “loud” is no value of Modulation: on or off.',
    );
    expect(pastedCells(rows, columns, { ...two, left: columns.length - 1 }, '\t')).toBe(
      'Line 1 has more columns than are left: 2.',
    );
    expect(typedInto(rows, columns, two, 'loud')).toBe('“loud” is no value of Drive: on or off.');
  });
});

test('numbers as the panel shows them, one or a stretch', () => {
  expect(numbersTyped('12', 1)).toEqual([11]);
  expect(numbersTyped('1–3', 1)).toEqual([0, 1, 2]);
  expect(numbersTyped('0 to 1', 0)).toEqual([0, 1]);
  expect(numbersTyped('0', 1)).toBe('Its panel counts from 1.');
  expect(numbersTyped('9-3', 1)).toBe('9 to 3 runs backwards.');
  expect(numbersTyped('12a', 1)).toBe('“12a” is no preset number: write 12, or 1–20.');
  expect(numbersTyped('1-2000', 1)).toBe('A thousand at a time at most.');
});
