import { describe, expect, test } from '@jest/globals';
import { actionOfPlanKey, findTyped, floorRows, type Place } from './plan-keys.ts';

const shape = { banks: 3, positions: 8, perRow: 5 };
const press = (key: string, at: Place, held = {}) =>
  actionOfPlanKey({ key, ctrlKey: false, metaKey: false, altKey: false, ...held }, shape, at);
const at = (bank: number, position: number): Place => ({ bank, position });

test('the row nearest the player is drawn last', () => {
  expect(floorRows(shape)).toEqual([
    [5, 6, 7],
    [0, 1, 2, 3, 4],
  ]);
  expect(floorRows({ positions: 5, perRow: 5 })).toEqual([[0, 1, 2, 3, 4]]);
});

describe('keys of the plan', () => {
  test.each([
    ['ArrowRight', at(0, 7), at(1, 0)],
    ['ArrowLeft', at(1, 0), at(0, 7)],
    ['ArrowLeft', at(0, 0), at(0, 0)],
    ['ArrowRight', at(2, 7), at(2, 7)],
    ['ArrowUp', at(1, 1), at(1, 6)],
    ['ArrowUp', at(1, 4), at(1, 7)],
    ['ArrowDown', at(1, 6), at(1, 1)],
    ['ArrowDown', at(1, 1), at(2, 6)],
    ['ArrowDown', at(2, 0), at(2, 0)],
    ['ArrowUp', at(0, 6), at(0, 6)],
    ['PageDown', at(0, 3), at(1, 3)],
    ['PageUp', at(0, 3), at(0, 3)],
    ['Home', at(1, 6), at(1, 0)],
    ['End', at(1, 0), at(1, 7)],
  ])('%s from %j goes to %j', (key, from, to) => expect(press(key, from)).toEqual({ kind: 'walk', to }));

  test.each([
    [' ', 'carry'],
    ['Enter', 'select'],
    ['Delete', 'clear'],
    ['Escape', 'give-up'],
    ['l', 'find'],
  ])('“%s” asks: %s', (key, kind) => expect(press(key, at(0, 0))).toMatchObject({ kind }));

  test('what others listen to is left to them', () => {
    expect(press('k', at(0, 0), { ctrlKey: true })).toBeNull();
    expect(press('3', at(0, 0), { altKey: true })).toBeNull();
    expect(press('Tab', at(0, 0))).toBeNull();
  });
});

test('typing finds the sound after this one that begins so, and goes round', () => {
  const named = [
    { ...at(0, 0), name: 'Low Water' },
    { ...at(1, 2), name: 'Long Wharf' },
    { ...at(2, 0), name: 'Ferry Bell' },
  ];
  expect(findTyped(named, at(0, 0), 'l')).toMatchObject(at(1, 2));
  expect(findTyped(named, at(1, 2), 'l')).toMatchObject(at(0, 0));
  expect(findTyped(named, at(0, 0), 'lo')).toMatchObject(at(0, 0));
  expect(findTyped(named, at(0, 0), 'LON')).toMatchObject(at(1, 2));
  expect(findTyped(named, at(0, 0), 'x')).toBeNull();
});
