import { expect, test } from '@jest/globals';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { proverOf } from './prove.ts';
import { strayReports } from './strays.ts';

// By hand: the drive sits in a loop that a clean sound takes out; the amp's input holds its channel, so that its own
// switch does nothing; the delay's slot switches it back on by message.
test('what a stray foot breaks at once, and what the next presses still bring up wrong, switch by switch', () => {
  const { show } = fourCable().device('tuner', 'tuner', 'Tuner').sound('lead', lead).sound('clean', clean).laid();
  const reports = strayReports(proverOf(show));
  expect(reports.map((one) => [`${one.device}.${one.switch}`, one.atOnce, one.after])).toEqual([
    ['drive.switch', ['lead'], ['lead']],
    ['combo.channel', [], []],
    ['delay.switch', ['lead'], []],
    ['tuner.switch', [], []],
  ]);
});

test('a switch that is planned is no stray', () => {
  const { show } = fourCable().sound('lead', lead).laid();
  const planned = { ...show, rig: { ...show.rig, devices: { ...show.rig.devices, drive: { ...show.rig.devices.drive, plannedFeet: ['switch'] } } } };
  expect(strayReports(proverOf(planned)).map((one) => one.device)).toEqual(['combo', 'delay']);
});
