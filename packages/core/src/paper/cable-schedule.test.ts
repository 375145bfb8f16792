import { expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { cableSchedule } from './cable-schedule.ts';

test('the cable schedule has every cable with its ends, the order of plugging, and the cut list', () => {
  const { groups } = cableSchedule(demoShow());
  const single = groups.find(({ heading }) => heading === 'Single cables')!;
  expect(single.lines).toHaveLength(Object.keys(demoShow().rig.cables).length);
  expect(single.lines.find(({ id }) => id.endsWith('cable-1'))!.cells).toEqual([
    'C01',
    'Guitar Out: 6.3 mm plug',
    'Tuner In: 6.3 mm plug',
    '6 m',
    'measured',
  ]);
  expect(groups.find(({ heading }) => heading.startsWith('Order of plugging'))!.lines[0].cells[1]).toMatch(/^S18, /);
  expect(groups.find(({ heading }) => heading.startsWith('Cut list'))!.heading).toContain('no way begins less');
});

test('a loom stands under its own heading, with its length', () => {
  const { rig, songbook } = demoShow();
  const [first] = Object.values(rig.cables);
  const cables = { ...rig.cables, [first.id]: { ...first, loom: 'front' } };
  expect(cableSchedule({ rig: { ...rig, cables }, songbook }).groups[0].heading).toBe('Loom front, 6 m');
});

test('every line of a multi-core stands under its name, with what is spare', () => {
  const { show } = new ShowBuilder()
    .device('core', 'multi-core-power', 'Core')
    .text('guitar > core amp in in; core amp in out > amp > cabinet');
  const lines = cableSchedule(show).groups.find(({ heading }) => heading === 'Lines of Core: 5 of 6 spare')!.lines;
  expect([lines[0], lines[1], lines[4]].map(({ cells }) => cells)).toEqual([
    ['1', 'Amp in in: Guitar out, C01', 'Amp in out: Amp input, C02', '', 'signal'],
    ['2', 'Amp send in', 'Amp send out', '', 'spare'],
    ['5', 'Supply 1 in', 'Supply 1 out', '8 m', 'spare'],
  ]);
});
