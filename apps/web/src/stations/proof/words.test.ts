import { describe, expect, test } from '@jest/globals';
import {
  controlLabel,
  demoShow,
  type Judgement,
  proverOf,
  type SequenceStep,
  valueLabel,
  buildWiring,
} from '@yunta/core';
import { worstOf } from './levels.ts';
import { endWords, powerUpWords, wordsOf } from './step-labels.ts';

const show = demoShow();
const wiring = buildWiring(show.rig);

describe('steps in words', () => {
  test.each([
    [{ kind: 'power-up' }, 'power up', 'all as it comes up'],
    [{ kind: 'press', slot: 'slot-sound-1' }, '1·1', 'Slow Lock, verse'],
    [
      { kind: 'press', slot: 'slot-sound-1', lost: { point: 0, kind: 'receiver', device: 'echo' } },
      '1·1',
      'Slow Lock, verse, lost: at Echo',
    ],
    [{ kind: 'press', slot: 'slot-sound-1', never: true }, '1·1', 'Slow Lock, verse, never settles'],
    [{ kind: 'bank', controller: 'switcher', by: 1 }, 'bank up', 'Switcher'],
    [{ kind: 'bank', controller: 'switcher', by: -1 }, 'bank down', 'Switcher'],
    [{ kind: 'hold', controller: 'switcher', momentary: 'm' }, 'hold', 'Switcher: m'],
    [{ kind: 'release', controller: 'switcher', momentary: 'm' }, 'release', 'Switcher: m'],
    [{ kind: 'foot', device: 'tuner', switch: 'switch', stray: true }, 'accidental press', 'Tuner: Tune'],
    [{ kind: 'foot', device: 'combo', switch: 'channel', stray: false }, 'foot', 'Combo: Channel switch'],
    [{ kind: 'cue', control: 'combo/channel', value: 'lead' }, 'cue', 'Combo channel to lead'],
    [
      { kind: 'outside', device: 'echo', channel: 2, program: 3 },
      'program change',
      '3 (panel 4), channel 2, into Echo',
    ],
    [{ kind: 'restart', device: 'echo' }, 'restart', 'Echo'],
  ] as const)('%j', (step, title, note) => {
    expect(wordsOf(show, wiring, step as SequenceStep)).toEqual({ title, note });
  });
  test('a momentary switch is called what the controller calls it', () => {
    const { switcher } = show.rig.devices;
    const momentary = buildWiring({
      ...show.rig,
      devices: {
        ...show.rig.devices,
        switcher: { ...switcher, type: { ...switcher.type, params: { ...switcher.type.params, momentaries: 1 } } },
      },
    });
    expect(wordsOf(show, momentary, { kind: 'hold', controller: 'switcher', momentary: 'momentary-1' }).note).toBe(
      'Switcher: Momentary 1',
    );
  });
  test('a program from outside is told as it is sent where the panel counts so too', () => {
    const { echo } = show.rig.devices;
    const fromNought = {
      ...show,
      rig: { ...show.rig, devices: { ...show.rig.devices, echo: { ...echo, firstPresetNumber: 0 as const } } },
    };
    expect(
      wordsOf(fromNought, buildWiring(fromNought.rig), { kind: 'outside', device: 'echo', channel: 2, program: 3 })
        .note,
    ).toBe('3, channel 2, into Echo');
  });
  test('controls and values as people say them: presets by panel number, switches by word', () => {
    expect(controlLabel(wiring, 'echo/preset')).toBe('Echo preset');
    expect(valueLabel(wiring, 'echo/preset', 5)).toBe('6');
    expect(valueLabel(wiring, 'echo/on', 1)).toBe('on');
    expect(valueLabel(wiring, 'echo/mix', 30)).toBe('30');
    expect(valueLabel(wiring, 'combo/channel', 'lead')).toBe('lead');
    expect(valueLabel(wiring, 'echo/mix', null)).toBe('unknown');
  });
});

test('what power-up must bring, and what is lost in it', () => {
  const needs = [
    { device: 'echo', part: 'preset', value: '5' },
    { device: 'combo', part: 'channel', value: 'lead' },
  ];
  expect(powerUpWords(wiring, { needs, steps: [] })).toEqual(['Echo preset 6', 'Combo channel lead']);
  expect(powerUpWords(wiring, { needs: [], steps: [] })).toEqual([]);
  const firing = buildWiring({
    ...show.rig,
    devices: { ...show.rig.devices, switcher: { ...show.rig.devices['switcher'], powerUpSlot: 'slot-sound-2' } },
  });
  expect(powerUpWords(firing, { needs, steps: [] })).toEqual(['Echo preset 6', 'Combo channel lead', 'fires 1·3']);
  expect(
    powerUpWords(wiring, {
      needs: [],
      lostAtPowerUp: { firing: 'switcher', point: 2, kind: 'receiver', device: 'echo' },
      steps: [],
    }),
  ).toEqual(['lost: at Echo']);
});

test('the end of a played sequence: the wants that came up otherwise, two at most; else what is heard instead', () => {
  const want = (
    ref: 'echo/preset' | 'combo/channel' | 'echo/mix',
    wanted: string | number,
    cameUp: string | number,
    right = false,
  ) => ({ ref, wanted, cameUp, right });
  const three = [want('echo/preset', 5, 0), want('combo/channel', 'lead', 'clean'), want('echo/mix', 1, 2)];
  expect(endWords(wiring, { wants: three, silent: false, heard: 'wrong' })).toEqual([
    'Echo preset 1, wanted 6',
    'Combo channel clean, wanted lead',
  ]);
  const right = [want('echo/preset', 5, 5, true)];
  expect(endWords(wiring, { wants: right, silent: true, heard: 'wrong' })).toEqual(['nothing is heard']);
  expect(endWords(wiring, { wants: right, silent: false, heard: 'wrong' })).toEqual([
    'each right alone, not what is wanted together',
  ]);
  expect(endWords(wiring, { wants: right, silent: false, heard: 'right' })).toEqual([]);
});

test('a level is told by its worst', () => {
  const judgements = proverOf(show).all(2);
  expect(worstOf(judgements)).toBe('does-not');
  const of = (...verdicts: Judgement['verdict'][]) => verdicts.map((verdict) => ({ verdict }) as Judgement);
  expect(worstOf(of('recalls', 'cannot-be-known'))).toBe('cannot-be-known');
  expect(worstOf([])).toBe('not-played');
});
