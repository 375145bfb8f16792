import { expect, test } from '@jest/globals';
import { wire } from '@yunta/core';
import { clean, fourCable, lead } from '@yunta/core/testing';
import { columnsOf, shownValue, valueIn } from './matrix-columns.ts';

test('a column for each piece with a loop or a switch, then presets and other controls; presets by panel number', () => {
  const { show } = fourCable().device('tuner', 'tuner', 'Tuner').sound('lead', lead).sound('clean', clean);
  const columns = columnsOf(wire(show.rig));
  expect(columns.map((column) => `${column.name} ${column.note}`)).toEqual(['Drive L1', 'Combo L2', 'Delay L3', 'Combo channel', 'Delay PC', 'Delay mix']);
  expect(columns.map((column) => valueIn(show.rig.sounds.lead, column))).toEqual(['on', 'on', 'on', 'lead', 5, undefined]);
  expect(shownValue(columns[4], 5)).toBe('6');
  expect(shownValue(columns[4], undefined)).toBe('–');
  expect(shownValue(columns[3], 'lead')).toBe('lead');
});
