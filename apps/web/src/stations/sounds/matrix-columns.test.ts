import { expect, test } from '@jest/globals';
import { buildWiring } from '@yunta/core';
import { clean, fourCable, lead } from '@yunta/core/testing';
import { columnsOf, shownColumns, shownValue, valueIn } from './matrix-columns.ts';

test('a column for each piece with a loop or a switch, then presets and other controls, hands last; presets by panel number', () => {
  const { show } = fourCable().device('tuner', 'tuner', 'Tuner').sound('lead', lead).sound('clean', clean);
  const columns = columnsOf(buildWiring(show.rig));
  expect(columns.map((column) => `${column.name} ${column.note}`)).toEqual([
    'Drive L1',
    'Combo L2',
    'Delay L3',
    'Combo channel',
    'Delay PC',
    'Delay mix',
    'Guitar selector',
    'Guitar volume',
  ]);
  expect(columns.map((column) => valueIn(show.rig.sounds.lead, column))).toEqual([
    'on',
    'on',
    'on',
    'lead',
    5,
    undefined,
    undefined,
    undefined,
  ]);
  expect(shownColumns(columns, Object.values(show.rig.sounds), true).map((column) => column.key)).toEqual([
    'drive',
    'delay',
    'combo/channel',
    'delay/preset',
  ]);
  expect(shownColumns(columns, Object.values(show.rig.sounds), false)).toEqual(columns);
  expect(shownValue(columns[4], 5)).toBe('6');
  expect(shownValue(columns[4], undefined)).toBe('–');
  expect(shownValue(columns[3], 'lead')).toBe('lead');
});
