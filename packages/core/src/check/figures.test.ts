import { expect, test } from '@jest/globals';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { cellarBarRig } from '../demo/by-feet.ts';
import { figureRows, figuresOf } from './figures.ts';

test('the figures of a rig: what it has, what recalls, what is found', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const figures = figuresOf(show);
  expect(figures).toMatchObject({
    pieces: 6,
    cables: 11,
    plugs: 22,
    loads: 3,
    outputs: 0,
    unweighed: 1,
    judged: 2,
    byFeet: 0,
    playedByFeet: 0,
  });
  expect(figures.recall).toBe(2);
  expect(figureRows.map(({ of }) => of(figures)).every((text) => !/undefined|NaN/.test(text))).toBe(true);
});

test('of a rig by feet the parts that feet bring up, and every press of the set', () => {
  const figures = figuresOf(cellarBarRig());
  expect(figures.judged).toBe(0);
  expect(figures.playedByFeet).toBeGreaterThan(5);
  expect(figures.byFeet).toBe(figures.playedByFeet);
  expect(figures.presses).toBeGreaterThan(5);
});
