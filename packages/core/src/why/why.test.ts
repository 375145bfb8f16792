import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import { noteValues } from '../model/rig.ts';
import { buildWiring } from '../model/wiring.ts';
import { listSlot } from '../program/listing.ts';
import type { Judgement, Verdict } from '../recall/prove/verdict.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { play } from '../recall/replay/play.ts';
import { Tracer } from '../trace/trace.ts';
import { fourCable, lead } from '../testing/build-show.ts';
import type { Evidence } from './evidence.ts';
import * as why from './index.ts';

const show = demoShow();
const wiring = buildWiring(show.rig);
const prover = proverOf(show);
const judgements = prover.all(2);
const input = (evidence: Evidence, name: string): string => evidence.inputs.find(([one]) => one === name)![1];

describe('times', () => {
  // Source: definition of tempo. A quarter at 120 is half a second; a dotted eighth three quarters of it.
  test.each([
    [120, 'quarter', '500.0 ms'],
    [120, 'dotted-eighth', '375.0 ms'],
    [50, 'quarter', '1200 ms'],
  ] as const)('at %i a %s is %s', (tempo, note, value) => {
    expect(why.delayTime(tempo, note)).toMatchObject({
      value,
      inputs: [
        ['tempo', `${tempo} quarter notes a minute`],
        ['part of a quarter', noteValues[note].toFixed(3)],
      ],
      rests: 'entered',
    });
  });
  // Source: MIDI 1.0. A program change is two bytes, a control change three; ten bits a byte at 31,250 baud.
  test('the inputs of bytes and of their time give the figures shown', () => {
    for (const slot of Object.values(show.rig.slots)) {
      const listed = listSlot(wiring, slot);
      const bytes = why.bytesSent(listed);
      expect(`${2 * Number(input(bytes, 'program changes')) + 3 * Number(input(bytes, 'control changes'))}`).toBe(
        bytes.value.split(' ')[0],
      );
      const time = why.wireTime(listed);
      expect(((Number(input(time, 'bytes')) * 10) / 31_250) * 1000).toBeCloseTo(Number.parseFloat(time.value), 2);
    }
  });
  test('when a message is through is its line’s bytes, and what was waited', () => {
    const failing = judgements.filter((judgement) => judgement.sequence);
    let checked = 0;
    for (const { sequence, sound, level } of failing)
      for (const { heard } of play(prover, sequence!, show.rig.sounds[sound], level).steps)
        for (const [i, one] of heard.entries()) {
          const evidence = why.arrivedAfter(heard, i);
          const waited = Number.parseFloat(input(evidence, 'waited before'));
          expect(waited).toBeGreaterThanOrEqual(0);
          expect(Number(input(evidence, 'bytes on this line so far')) * 0.32 + waited).toBeCloseTo(one.at / 1000, 2);
          checked += 1;
        }
    expect(checked).toBeGreaterThan(0);
  });
  test('the foot’s way rests on the typical distance of switches', () => {
    expect(why.footWay(Object.values(show.rig.slots).slice(0, 3), 62, { mm: 124, bankMoves: 1 })).toMatchObject({
      value: '124 mm',
      rests: 'typical',
    });
  });
});

describe('numbers', () => {
  const echo = wiring.device.get('echo')!;
  test.each([
    [0, 200],
    [1, 200],
    [1, 5],
  ])('a panel that counts from %i, preset %i on the wire', (firstPresetNumber, wireNumber) => {
    const device = { ...echo.device, firstPresetNumber } as typeof echo.device;
    expect(why.presetOnPanel(device, wireNumber).value).toBe(String(wireNumber + firstPresetNumber));
    const sent = why.presetOnWire(device, { ...echo.anatomy.presets!, bankSize: 128, scheme: 'lsb' }, wireNumber);
    expect(Number(input(sent, 'bank select')) * 128 + Number(input(sent, 'program change'))).toBe(Number(sent.value));
    expect(Number(input(sent, 'number on its panel')) - firstPresetNumber).toBe(wireNumber);
  });
  test('a device without bank select says so', () => {
    expect(input(why.presetOnWire(echo.device, { ...echo.anatomy.presets!, scheme: 'none' }, 5), 'bank select')).toBe(
      'none',
    );
  });
});

describe('verdicts', () => {
  test('a level is counted over what is played', () => {
    expect(why.recalled(2, judgements).value).toBe('34 of 37 recall');
    const of = (...verdicts: Verdict[]) => verdicts.map((verdict) => ({ verdict }) as Judgement);
    expect(why.recalled(1, of('recalls', 'cannot-be-known', 'not-played')).value).toBe(
      '1 of 2 recall, 1 cannot be known, 1 not played',
    );
  });
  test('its inputs add up to the slots judged', () => {
    const evidence = why.recalled(3, prover.all(3));
    expect(
      ['recall', 'do not', 'cannot be known', 'not played'].reduce(
        (sum, name) => sum + Number(input(evidence, name)),
        0,
      ),
    ).toBe(Number(input(evidence, 'slots with a sound')));
  });
  test('the length of a way is the sum of its steps; what recalls has none', () => {
    for (const judgement of judgements) {
      const evidence = why.shortestWay(judgement);
      if (judgement.verdict === 'recalls') expect(evidence).toBeNull();
      else
        expect(evidence!.inputs.reduce((sum, [, value]) => sum + (/^\d+$/.test(value) ? Number(value) : 0), 0)).toBe(
          Number(evidence!.value),
        );
    }
    expect(judgements.filter((judgement) => judgement.verdict === 'does-not')).toHaveLength(3);
  });
  test('in set order it is the first time, not the shortest way', () => {
    const inSet = prover.all(1).find((judgement) => judgement.verdict === 'does-not')!;
    expect(why.shortestWay(inSet)).toMatchObject({
      of: 'First time that it goes wrong in the set',
      value: String(inSet.length),
      source: expect.stringContaining('part by part'),
    });
    expect(why.shortestWay(judgements.find((judgement) => judgement.verdict === 'does-not')!)).toMatchObject({
      of: 'Shortest way to a wrong sound',
      source: expect.stringContaining('nothing shorter'),
    });
  });
  test('what was given up is told', () => {
    expect(
      why.shortestWay({ ...judgements[0], length: 3, sequence: null, gaveUp: 'more than 30000 states' })!.inputs,
    ).toContainEqual(['left open', 'more than 30000 states']);
  });
  test('what was looked through, one or many', () => {
    expect(why.explored(1, 1200, 0.2, 0)).toMatchObject({
      value: 'every combination checked',
      inputs: [
        ['groups of settings that decide each other', '1'],
        ['combinations in all', '1200'],
        ['worked out in', 'less than 1 ms'],
      ],
    });
    expect(why.explored(1, 1200, 0.2, 2).value).toBe('too many combinations for 2 slots');
  });
});

describe('the run', () => {
  test('the four-cable rig: ten passes, the switcher and the combo more than once', () => {
    const { show: rig } = fourCable().sound('lead', lead);
    const evidence = why.passesOf(new Tracer(buildWiring(rig.rig)).trace(rig.rig.sounds.lead));
    expect(evidence.value).toBe('10 passes');
    expect(input(evidence, 'passed more than once')).toBe('2');
  });
  test('a loop gain says that its gains are typical', () => {
    expect(why.loopGain({ devices: ['echo'], radius: 0.7071, verdict: 'rings' })).toMatchObject({
      value: '0.71',
      rests: 'typical',
    });
  });
});

test('the latency of the units on the way is the sum of what was entered; nothing where nobody did', () => {
  const wiring = buildWiring(demoShow().rig);
  const unit = (device: string, latencyMs: number | null) => ({ device, words: '', latencyMs });
  expect(why.latencyInside(wiring, [unit('echo', null)])).toBeNull();
  expect(why.latencyInside(wiring, [unit('echo', 1.5), unit('hall', null), unit('hall', 2.25)])).toMatchObject({
    value: '3.8 ms',
    inputs: [
      ['Echo', '1.5 ms'],
      ['Hall', '2.25 ms'],
    ],
  });
});
