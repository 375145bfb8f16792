import { describe, expect, test } from '@jest/globals';
import { arrangeProblemOf, boardOf } from '../build/arrangement.ts';
import { standing } from '../build/judge-board.ts';
import { cableRuns } from '../build/runs.ts';
import { costOfArrangement } from '../arrange/problem.ts';
import { demoShow } from '../demo/demo.ts';
import { whatCanStayAtHome } from '../home/at-home.ts';
import { filledCases } from '../pack/cases.ts';
import { billOf, partsToBuy } from '../pack/parts.ts';
import { batteryLives } from '../power/battery.ts';
import { mainsChain } from '../power/mains.ts';
import { powerInUse } from '../power/wired.ts';
import { onBoard } from '../testing/board-rigs.ts';
import { lookedUp, powered, withSupply, withUnitPower } from '../testing/power-rigs.ts';
import { packedRig, withShopping } from '../testing/pack-rigs.ts';
import type { Evidence } from './evidence.ts';
import * as why from './index.ts';

const figure = (text: string): number => Number.parseFloat(text);
const input = (evidence: Evidence, name: string): string => evidence.inputs.find(([one]) => one === name)![1];
const sumOf = (evidence: Evidence, unit: string): number =>
  evidence.inputs.filter(([, value]) => value.endsWith(unit)).reduce((sum, [, value]) => sum + figure(value), 0);
/** Rounded to tenths, every input may be half a tenth off. */
const near = (evidence: Evidence): number => evidence.inputs.length * 0.05 + 1e-9;

describe('power: the inputs give the figure', () => {
  const { rig } = demoShow();
  const power = powerInUse(rig);
  test('of each output', () => {
    const feeds = power.feeds.filter(({ loads }) => loads.length > 0);
    expect(feeds.length).toBeGreaterThan(4);
    for (const feed of feeds) {
      const drawn = why.outputDrawn(feed);
      const loads = drawn.inputs.slice(0, feed.loads.length).reduce((sum, [, value]) => sum + figure(value), 0);
      expect(Math.abs(loads - figure(drawn.value))).toBeLessThanOrEqual(near(drawn));
      const used = why.outputUsed(feed, 80);
      expect(Math.round((figure(input(used, 'drawn')) / figure(input(used, 'it gives'))) * 100)).toBe(
        figure(used.value),
      );
      expect(input(used, 'may be used')).toBe('80 %');
    }
  });
  test('of all pieces, of what outputs give together, of the wall', () => {
    const all = why.allDrawn(power);
    expect(Math.abs(sumOf(all, 'mA') - figure(all.value))).toBeLessThanOrEqual(near(all));
    const limited = withSupply(powered(), 'supply', {
      limits: [{ outputs: ['dc-1', 'dc-6', 'dc-7'], ma: 900 }],
    });
    const used = powerInUse(limited.rig);
    const limit = why.limitTaken(used.limits[0], used);
    expect(limit.inputs).toHaveLength(3);
    expect(Math.abs(sumOf(limit, 'mA') - figure(limit.value))).toBeLessThanOrEqual(near(limit));
    const chain = mainsChain(rig);
    const wall = why.wallTaken(chain);
    expect(sumOf(wall, 'VA')).toBeCloseTo(figure(wall.value), 0);
    const at = why.wallCurrent(chain, { id: 'hall', name: 'Hall', volts: 230, hertz: 50 });
    expect(figure(input(at, 'taken')) / 230).toBeCloseTo(figure(at.value), 1);
  });
  test('of a battery; typical until it is looked up', () => {
    const battery = withUnitPower(powered(), 'drive', { onBattery: true });
    const cables = Object.fromEntries(
      Object.entries(battery.rig.cables).filter(([, { plugs }]) => !plugs.some(({ jack }) => jack === 'power-in')),
    );
    const alone = { ...battery, rig: { ...battery.rig, cables } };
    const livesOf = (show: typeof alone) =>
      batteryLives(show.rig, powerInUse(show.rig)).filter(({ hours }) => hours !== null);
    const [life] = livesOf(alone);
    const lasts = why.batteryLasts(life);
    expect(figure(input(lasts, 'it holds')) / figure(input(lasts, 'drawn'))).toBeCloseTo(life.hours!, 5);
    expect(lasts.rests).toBe('typical');
    expect(why.batteryLasts(livesOf(lookedUp(alone))[0]).rests).toBe('entered');
  });
});

describe('build: the inputs give the figure', () => {
  const board = boardOf(onBoard(), 'board')!;
  test('of a board', () => {
    const weight = why.boardWeight(board);
    expect(sumOf(weight, 'kg')).toBeCloseTo(figure(weight.value), 1);
    const [[, whole], ...pieces] = why.boardArea(board).inputs;
    const area = (text: string): number => text.split(' × ').reduce((product, each) => product * figure(each), 1);
    const share = pieces.reduce((sum, [, each]) => sum + area(each), 0) / area(whole);
    expect(Math.round(share * 100)).toBe(figure(why.boardArea(board).value));
  });
  test('of a run and of an arrangement', () => {
    const runs = cableRuns(onBoard().rig).filter((run) => run.runs !== null);
    expect(runs.length).toBeGreaterThan(4);
    for (const run of runs) {
      const evidence = why.cableRun(run, `${run.runs} m`);
      const mm = figure(input(evidence, 'from jack to jack')) * 1.1 + 80;
      expect(Math.abs(Math.ceil(mm / 50 - 1e-9) * 50 - run.runs! * 1000)).toBeLessThan(1e-6);
    }
    const spots = standing(board).map(({ spot }) => spot);
    const cost = costOfArrangement(arrangeProblemOf(onBoard(), board), spots);
    expect(figure(input(why.arrangedCable(cost), 'along the edges of the board')) / 1000).toBeCloseTo(
      figure(why.arrangedCable(cost).value),
      1,
    );
    expect(figure(input(why.arrangedWalk(cost), 'touches × way to each piece')) / 1000).toBeCloseTo(
      figure(why.arrangedWalk(cost).value),
      1,
    );
  });
  test('of what is bought and packed', () => {
    const show = withShopping(powered(), { rows: [{ name: 'MIDI cable', have: 1, low: 10, high: 15 }] });
    const parts = partsToBuy(show.rig);
    for (const part of parts) {
      const evidence = why.partBought(part);
      const [needed, spares, there] = ['needed', 'spares', 'there'].map((name) => figure(input(evidence, name)));
      expect(Math.max(0, needed + spares - there)).toBe(figure(evidence.value));
    }
    expect(why.billTotal(billOf(show.rig), parts)).toMatchObject({
      value: '10–15',
      inputs: [
        ['1 × MIDI cable', '10–15'],
        ['without a price', `${parts.filter(({ buy, price }) => buy > 0 && !price).length} parts`],
      ],
    });
    for (const filled of filledCases(packedRig().rig)) {
      const weight = why.caseWeight(filled);
      expect(sumOf(weight, 'kg')).toBeCloseTo(figure(weight.value), 1);
      expect(weight.rests).toBe('typical');
    }
  });
  test('of what stays at home', () => {
    const [none, ...more] = whatCanStayAtHome(demoShow());
    expect(why.songsLost(none, String)).toMatchObject({ value: '0', rests: 'exact' });
    for (const point of more) {
      const lost = why.songsLost(point, String);
      expect(input(lost, 'at home').split(', ')).toHaveLength(point.left.length);
      expect(figure(lost.value)).toBe(point.songs.length);
      expect(figure(why.weightAlong(point).value.replace('≥ ', ''))).toBeLessThan(
        figure(why.weightAlong(none).value.replace('≥ ', '')),
      );
    }
  });
});
