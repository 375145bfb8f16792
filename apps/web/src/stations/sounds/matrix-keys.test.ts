import { describe, expect, test } from '@jest/globals';
import { buildWiring } from '@yunta/core';
import { clean, fourCable, lead } from '@yunta/core/testing';
import { type Column, columnsOf } from './matrix-columns.ts';
import { actionOfKey, nextNamed, numberTyped, outOfRange, turned } from './matrix-keys.ts';

const { show } = fourCable().sound('lead', lead).sound('clean', clean);
const columns = columnsOf(buildWiring(show.rig));
const column = (name: string): Column => columns.find((column) => `${column.name} ${column.note}` === name)!;
const [pedal, preset, range, choice] = ['Drive L1', 'Delay PC', 'Delay mix', 'Combo channel'].map(column);
const plain = { altKey: false, shiftKey: false, ctrlKey: false, metaKey: false };
const press = (key: string, at: Column, typed: string | null = null, more = {}) =>
  actionOfKey({ key, ...plain, ...more }, at, typed);

describe('a key in a cell', () => {
  test.each([
    ['ArrowUp', { kind: 'walk', rows: -1, columns: 0 }],
    ['ArrowRight', { kind: 'walk', rows: 0, columns: 1 }],
    [' ', { kind: 'turn' }],
    ['Enter', { kind: 'turn' }],
    ['Delete', { kind: 'clear' }],
    ['PageDown', { kind: 'walk', rows: 10, columns: 0 }],
    ['End', { kind: 'walk', rows: 0, columns: 1000 }],
    ['d', { kind: 'find', letter: 'd' }],
    ['é', { kind: 'find', letter: 'é' }],
    ['F5', null],
    ['Tab', null],
  ])('%s', (key, action) => expect(press(key, pedal)).toEqual(action));
  test.each([
    [preset, { kind: 'type', text: '7' }],
    [range, { kind: 'type', text: '7' }],
    [pedal, null],
    [choice, null],
  ])('a digit begins a number where numbers are typed', (at, action) => expect(press('7', at)).toEqual(action));
  test('with Shift: copied, built on, marked; of a piece whether it may be heard though it is wanted off', () => {
    const kinds = ['D', 'B', 'X', 'H'].map((key) => press(key, pedal, null, { shiftKey: true })?.kind);
    expect(kinds).toEqual(['copy', 'build', 'mark', 'tolerate']);
    expect(press('H', range, null, { shiftKey: true })).toBeNull();
  });
  test('with Alt the sound moves, up and down alone; with Ctrl or Cmd the key is the browser’s', () => {
    expect(press('ArrowDown', pedal, null, { altKey: true })).toEqual({ kind: 'move', by: 1 });
    expect(press('ArrowLeft', pedal, null, { altKey: true })).toBeNull();
    expect(press('d', pedal, null, { ctrlKey: true })).toBeNull();
    expect(press('x', pedal, null, { metaKey: true })).toBeNull();
  });
});

test('with Shift, letters do what they say', () => {
  expect(press('D', pedal, null, { shiftKey: true })).toEqual({ kind: 'copy' });
  expect(press('X', pedal, null, { shiftKey: true })).toEqual({ kind: 'mark' });
});

test('typing finds the next name that begins so, and goes round', () => {
  const names = ['Low Water', 'Ferry Bell', 'Long Wharf'];
  expect([
    nextNamed(names, 0, 'l'),
    nextNamed(names, 2, 'l'),
    nextNamed(names, 2, 'lo'),
    nextNamed(names, 0, 'x'),
  ]).toEqual([2, 0, 2, null]);
});

test('a number outside the range of its control is refused with the range', () => {
  expect(outOfRange(range, 500)).toMatch(/goes from 0 to/);
  expect([outOfRange(range, 1), outOfRange(preset, 500)]).toEqual([null, null]);
});

describe('while a number is typed', () => {
  test.each([
    ['2', { kind: 'type', text: '12' }],
    ['Backspace', { kind: 'type', text: '' }],
    ['Escape', { kind: 'give-up' }],
    ['Enter', { kind: 'take-typed', rows: 0, columns: 0, leaves: false }],
    ['ArrowDown', { kind: 'take-typed', rows: 1, columns: 0, leaves: false }],
    ['Tab', { kind: 'take-typed', rows: 0, columns: 0, leaves: true }],
    ['d', { kind: 'type', text: '1' }],
  ])('%s', (key, action) => expect(press(key, preset, '1')).toEqual(action));
});

describe('a turn', () => {
  test('switches a pedal on, and off again', () => {
    expect([undefined, 'off', 'on'].map((before) => turned(pedal, before))).toEqual(['on', 'on', 'off']);
  });
  test('goes through a few values in their order, round', () => {
    const seen: (string | number | null)[] = [];
    for (let value = turned(choice, undefined); !seen.includes(value); value = turned(choice, value!)) seen.push(value);
    expect(seen).toEqual(
      choice.kind === 'control' && choice.control.domain.kind === 'choice' ? choice.control.domain.values : [],
    );
    expect(seen.length).toBeGreaterThan(1);
  });
  test('asks for a number where there are many', () => {
    expect([turned(preset, 5), turned(range, 30)]).toEqual([null, null]);
  });
});

test('a typed preset is stored as sent, a number as it is; what is none is refused', () => {
  const first = preset.kind === 'preset' ? preset.firstPresetNumber : NaN;
  expect(numberTyped(preset, '12')).toBe(12 - first);
  expect(numberTyped(range, '12')).toBe(12);
  expect(['', 'x', '1.5', '-1'].map((typed) => numberTyped(range, typed))).toEqual([null, null, null, null]);
  if (first === 1) expect(numberTyped(preset, '0')).toBeNull();
});
