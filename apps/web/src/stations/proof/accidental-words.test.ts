import { expect, test } from '@jest/globals';
import { demoShow, type StrayReport } from '@yunta/core';
import { costWords, lostTo, untilWords } from './accidental-words.ts';

const show = demoShow();
const sounds = Object.keys(show.rig.sounds);
const report: StrayReport = {
  device: 'tuner',
  switch: 'switch',
  effect: 'silences',
  tried: sounds.length,
  silenced: sounds,
  atOnce: sounds,
  after: sounds,
  isUndoneByItself: true,
};

test('a tuner pressed by accident is one line', () => {
  expect(`${costWords(show, report)} until ${untilWords(report)}`).toBe(
    'silences everything until it is pressed again',
  );
});

test('few sounds are named, many are counted, and what heals by itself is told so', () => {
  const [first, second] = sounds.map((id) => show.rig.sounds[id].name);
  expect(costWords(show, { ...report, silenced: sounds.slice(0, 2) })).toBe(`silences ${first}; ${second}`);
  expect(costWords(show, { ...report, silenced: sounds.slice(0, 5) })).toBe('silences 5 sounds');
  expect(costWords(show, { ...report, effect: 'spoils-others' })).toMatch(
    /more than the piece itself wrong in everything/,
  );
  expect(costWords(show, { ...report, effect: 'changes-itself', atOnce: sounds.slice(0, 5) })).toMatch(/heard in 5 of/);
  expect(costWords(show, { ...report, effect: 'unheard' })).toBe('is not heard');
  expect(lostTo(show, [report, { ...report, effect: 'changes-itself' }], sounds[0])).toBe('lost to Tuner');
  expect(lostTo(show, [{ ...report, effect: 'changes-itself' }], sounds[0])).toBe('—');
  expect(untilWords({ ...report, after: [] })).toBe('the next slot is pressed');
  expect(untilWords({ ...report, isUndoneByItself: false })).toMatch(/by hand/);
});
