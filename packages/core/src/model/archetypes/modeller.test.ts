import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../catalogue/types.ts';
import { setParam, setPreset } from '../../change/commands.ts';
import { contextOf } from '../../check/engine.ts';
import { ShowBuilder } from '../../testing/build-show.ts';
import { describeProblem } from '../../units/problem.ts';
import type { ControlValue } from '../anatomy.ts';
import { orderTyped } from '../orders.ts';
import { checkParams } from './archetype.ts';
import { checkAnatomy } from './check-anatomy.ts';
import { anatomyOf, archetypeOf } from './registry.ts';

const modeller = archetypeOf('modeller')!;
const faults = (params: Readonly<Record<string, unknown>>) =>
  checkParams(modeller, params, '').map((problem) => `${problem.pointer} ${describeProblem(problem)}`);

test('every combination of a sample names only what is there', () => {
  for (const order of ['fixed', 'by preset'])
    for (const width of ['mono', 'mono to stereo', 'stereo'])
      for (const states of [1, 3])
        for (const [branch, loops, ends] of [
          [false, 0, 1],
          [true, 2, 2],
        ] as const) {
          const params = {
            ...{ order, width, states, branch, loops, inputs: ends, outputs: ends, stereoLoopsFrom: 2 },
            blocks: ['Wah', 'Amp', 'Delay'],
            parameters: ['Delay mix'],
            assignments: ['Solo: Amp, Delay mix', 'Swell @ 2: Delay'],
            ...{ blocksFromCc: 20, stateCc: 40, assignmentsFromCc: 50, parametersFromCc: 60, pedal: 'Delay mix' },
            ...{ footPresets: true, footStates: true, footBlocks: ['Wah'] },
          };
          expect(faults(params)).toEqual([]);
          const anatomy = anatomyOf({ id: 't', revision: 1, name: 'T', archetype: 'modeller', params });
          expect(checkAnatomy({ ...anatomy }, '')).toEqual([]);
        }
});

test('the types of the library on it are checked as typed ones are', () => {
  const types = catalogue.filter(({ type }) => type.archetype === 'modeller');
  expect(types.length).toBeGreaterThan(3);
  for (const { type } of types) expect(checkAnatomy({ ...anatomyOf(type) }, '')).toEqual([]);
});

test('what cannot be is refused where it stands, by name', () => {
  expect(faults({ blocks: ['Amp'], assignments: ['Solo: Hall'] })).toEqual([
    '/assignments There is no block or parameter "Hall". Choose one that exists.',
  ]);
  expect(faults({ blocks: ['Amp'], assignments: ['Solo'] })).toEqual([
    '/assignments Expected Solo: Drive, Delay mix. Correct the value.',
  ]);
  expect(faults({ blocks: ['Amp', 'amp'] })).toEqual(['/blocks Name "amp" is there twice. Keep one.']);
  expect(faults({ blocks: ['Amp'], footBlocks: ['Wah'] })).toEqual([
    '/footBlocks There is no block "Wah". Choose one that exists.',
  ]);
  expect(faults({ blocks: ['Amp'], pedal: 'Amp gain' })).toEqual([
    '/pedal There is no parameter "Amp gain". Choose one that exists.',
  ]);
});

/** A guitar into a modeller into two ends, with presets as they are typed. */
function rig(params: Readonly<Record<string, unknown>>, presets: Readonly<Record<number, Stored>>) {
  const builder = new ShowBuilder().text('guitar > hub = modeller');
  for (const [name, value] of Object.entries({ loops: 0, width: 'mono', ...params }))
    builder.do(setParam(builder.show, 'hub', name, value));
  const [order] = anatomyOf(builder.show.rig.devices.hub.type).orders ?? [];
  for (const [number, { order: typed, ...values }] of Object.entries(presets)) {
    const placed = order && typed !== undefined ? orderTyped(order, String(typed)) : new Map<string, ControlValue>();
    if (typeof placed === 'string') throw new Error(placed);
    builder.do(
      setPreset(builder.show, 'hub', Number(number), { values: { ...values, ...Object.fromEntries(placed) } }),
    );
  }
  return builder;
}
type Stored = Readonly<Record<string, string | number>>;

/** The sections that do something, in the order in which the signal comes to them; a bracket holds what is parallel. */
function line(builder: ShowBuilder, preset: number, wants: Readonly<Record<string, ControlValue>> = {}): string {
  builder.show = { ...builder.show, rig: { ...builder.show.rig, sounds: {} } };
  builder.sound('s', { wants: { 'hub/preset': preset, ...wants } });
  const { tracer } = contextOf(builder.show);
  const sound = builder.show.rig.sounds.s;
  expect(tracer.trace(sound).undecided).toEqual([]);
  if (!tracer.trace(sound).sounds) return 'silent';
  const { graph } = tracer;
  const live = graph.edges.filter((edge) => tracer.passesThrough(sound, edge.index));
  const done: string[] = [];
  let nodes = new Set(graph.sources.map(({ node }) => node));
  const met = new Set<number>();
  for (let round = 0; round < 400 && nodes.size > 0; round += 1) {
    const next = live.filter((edge) => nodes.has(edge.from) && !met.has(edge.index));
    for (const edge of next) {
      met.add(edge.index);
      if (edge.active && edge.device === 'hub' && !edge.section.startsWith('join')) done.push(edge.label);
    }
    nodes = new Set(next.map(({ to }) => to));
  }
  return done.join(', ');
}

describe('what a preset opens', () => {
  const blocks = ['Wah', 'Amp', 'Second amp', 'Delay'];
  const on = { 'block-wah': 1, 'block-amp': 1, 'block-second-amp': 1, 'block-delay': 1 };
  const end = 'hub > desk';

  test('the order by preset, and what is off is passed by', () => {
    const builder = rig(
      { blocks, order: 'by preset' },
      {
        0: { ...on, order: 'wah > amp > second amp > delay' },
        1: { ...on, order: 'delay > second amp > amp > wah' },
        2: { ...on, 'block-second-amp': 0, order: 'second amp > delay > wah > amp' },
      },
    ).text(end);
    expect(line(builder, 0)).toBe('Wah, Amp, Second amp, Delay');
    expect(line(builder, 1)).toBe('Delay, Second amp, Amp, Wah');
    expect(line(builder, 2)).toBe('Delay, Wah, Amp');
  });

  test('a branch beside the line: both sides are heard, and meet again where it comes back', () => {
    const builder = rig(
      { blocks, branch: true },
      {
        0: { ...on, order: 'wah > [amp | second amp] > delay' },
        1: { ...on, 'block-amp': 0, order: 'wah > [amp | second amp > delay]' },
        2: { ...on, order: 'wah > amp > second amp > delay' },
      },
    ).text(end);
    expect(line(builder, 0)).toBe('Wah, Amp, Second amp, Delay');
    // The two amps stand side by side: each of them alone carries the sound to the end.
    expect(line(builder, 0, { 'hub/block-amp': 0 })).toBe('Wah, Second amp, Delay');
    expect(line(builder, 1)).toBe('Wah, Second amp, Delay');
    expect(line(builder, 2)).toBe('Wah, Amp, Second amp, Delay');
    const { tracer } = contextOf(builder.show);
    expect(tracer.heard({ ...builder.show.rig.sounds.s, wants: { 'hub/preset': 0 } })).not.toBe(
      tracer.heard({ ...builder.show.rig.sounds.s, wants: { 'hub/preset': 2 } }),
    );
  });

  test('states inside a preset have blocks on and off apart', () => {
    const stored = (state: number) => ({
      state,
      'block-wah-in-1': 1,
      'block-wah-in-2': 0,
      'block-amp-in-1': 0,
      'block-amp-in-2': 1,
    });
    const builder = rig({ blocks: ['Wah', 'Amp'], states: 2, order: 'fixed' }, { 0: stored(1), 1: stored(2) }).text(
      end,
    );
    expect(line(builder, 0)).toBe('Wah');
    expect(line(builder, 1)).toBe('Amp');
    expect(line(builder, 0, { 'hub/state': 2 })).toBe('Amp');
  });

  test('inputs and outputs by preset', () => {
    const builder = rig(
      { blocks: ['Amp'], inputs: 2, outputs: 2 },
      {
        0: { 'block-amp': 1, input: 'A', 'output-1': 1, 'output-2': 0 },
        1: { 'block-amp': 1, input: 'A', 'output-1': 0, 'output-2': 1 },
        2: { 'block-amp': 1, input: 'B', 'output-1': 1, 'output-2': 0 },
      },
    ).text('hub out A > desk');
    expect([0, 1, 2].map((preset) => line(builder, preset))).toEqual(['Amp', 'silent', 'silent']);
  });

  test('what is global stays where it is whatever the preset holds', () => {
    const anatomy = anatomyOf({
      id: 't',
      revision: 1,
      name: 'T',
      archetype: 'modeller',
      params: { blocks: ['Amp', 'Room'], global: ['room'] },
    });
    expect(anatomy.controls.filter(({ scope }) => scope === 'global').map(({ label }) => label)).toEqual(['Room']);
  });

  test('assignments on one switch move those that the preset has armed', () => {
    const params = { blocks: ['Amp'], parameters: ['Amp gain'], assignments: ['Solo @ 1: Amp gain', 'Clean @ 1: Amp'] };
    const anatomy = anatomyOf({ id: 't', revision: 1, name: 'T', archetype: 'modeller', params });
    expect(anatomy.switches).toEqual([
      {
        id: 'assigned-1',
        label: 'Solo or Clean',
        actions: [
          { toggle: 'move-solo', armed: { control: 'armed-solo', values: [1] } },
          { toggle: 'move-clean', armed: { control: 'armed-clean', values: [1] } },
        ],
      },
    ]);
    expect(anatomy.sections.find(({ id }) => id === 'block-amp')!.parameters).toEqual([
      'preset',
      'value-amp-gain',
      'move-solo',
      'move-clean',
    ]);
  });
});
