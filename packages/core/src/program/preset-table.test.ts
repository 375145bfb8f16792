import { expect, test } from '@jest/globals';
import { typeById } from '../catalogue/types.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import type { StoredPreset } from '../model/rig.ts';
import { presetColumns, presetText, presetTurned, presetTyped } from './preset-table.ts';

const anatomy = anatomyOf(typeById('modeller-states').type);
const columns = presetColumns(anatomy);
const column = (label: string) => columns.find((each) => each.label === label)!;
const empty: StoredPreset = { values: {} };
const typed = (label: string, text: string, preset = empty): StoredPreset => {
  const result = presetTyped(column(label), preset, text);
  if (typeof result === 'string') throw new Error(result);
  return result;
};

test('every stored control has its place in one column, an order all of its own', () => {
  const held = columns.flatMap((each) => (each.kind === 'control' ? [each.id] : []));
  expect(columns[0].label).toBe('Name');
  expect(columns[1].label).toBe('Order');
  expect(columns.slice(-5).map(({ label }) => label)).toEqual([
    'Latency, ms',
    ...[1, 2, 3, 4].map((state) => `Latency, state ${state}, ms`),
  ]);
  expect(held).toContain('block-delay-in-3');
  expect(held.some((id) => id.endsWith('-place'))).toBe(false);
});

test('what is typed is told as it was typed, and empty is unknown again', () => {
  const cells: readonly (readonly [string, string])[] = [
    ['Name', 'Harbour'],
    ['State', '3'],
    ['Delay, state 1', 'on'],
    ['Input', 'B'],
    ['Note value', 'dotted eighth'],
    ['Latency, ms', '3.2'],
    ['Latency, state 2, ms', '4.5'],
    ['Latency, state 4, ms', '0'],
    ['Order', 'Drive > Compressor > [Amp | Cabinet > Modulation] > …'],
    ['Drive, state 2', '='],
  ];
  const full = cells.reduce((preset, [label, text]) => typed(label, text, preset), empty);
  expect(cells.map(([label]) => [label, presetText(column(label), full)])).toEqual(cells);
  expect(full.values['block-delay-in-1']).toBe(1);
  expect(full.keeps).toEqual(['block-drive-in-2']);
  expect(cells.reduce((preset, [label]) => typed(label, '', preset), full)).toEqual(empty);
});

test('what cannot be is refused with what can', () => {
  expect(presetTyped(column('State'), empty, '9')).toBe('“9” is no value of State: 1, 2, 3, 4.');
  expect(presetTyped(column('Delay, state 1'), empty, 'loud')).toBe('“loud” is no value of Delay, state 1: on or off.');
  expect(presetTyped(column('Order'), empty, 'Drive > Drive')).toBe('Drive stands twice: each has one place.');
  expect(presetTyped(column('Note value'), empty, 'whole')).toMatch(/^“whole” is none of half, dotted quarter/);
  expect(presetTyped(column('Latency, ms'), empty, '2000')).toBe('“2000” is no latency: 0 to 1,000 ms.');
  expect(presetTyped(column('Latency, state 3, ms'), empty, '-1')).toBe('“-1” is no latency: 0 to 1,000 ms.');
  expect(presetTyped(column('Name'), empty, 'x'.repeat(201))).toBe('A name has 200 characters at most.');
});

test('a press turns a switch on, off and back to unknown, a choice to its next, and leaves numbers to be typed', () => {
  const turns = (label: string, count: number): (string | null)[] => {
    let preset = empty;
    return Array.from({ length: count }, () => {
      const next = presetTurned(column(label), preset);
      if (next !== null) preset = typed(label, next, preset);
      return next;
    });
  };
  expect(turns('Delay, state 1', 4)).toEqual(['on', 'off', '', 'on']);
  expect(turns('Input', 3)).toEqual(['A', 'B', '']);
  expect(turns('Order', 1)).toEqual([null]);
});
