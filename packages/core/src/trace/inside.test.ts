import { expect, test } from '@jest/globals';
import { setParam, setPreset } from '../change/commands.ts';
import { contextOf } from '../check/engine.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { orderTyped } from '../model/orders.ts';
import { starterById } from '../starters/starters.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { insideOf } from './inside.ts';

const told = (builder: ShowBuilder, preset: number) => {
  if (!builder.show.rig.sounds[`s${preset}`]) builder.sound(`s${preset}`, { wants: { 'hub/preset': preset } });
  return insideOf(contextOf(builder.show).tracer, builder.show.rig.sounds[`s${preset}`]);
};

test('the blocks that the signal passes, in the order of the preset, both sides of a branch', () => {
  const builder = new ShowBuilder().text('guitar > hub = modeller > desk');
  const settings = { loops: 0, width: 'mono', branch: true, blocks: ['Wah', 'Amp', 'Second amp', 'Delay'] };
  for (const [name, value] of Object.entries(settings)) builder.do(setParam(builder.show, 'hub', name, value));
  const [order] = anatomyOf(builder.show.rig.devices.hub.type).orders!;
  const store = (preset: number, typed: string, off: readonly string[]) => {
    const blocks = ['wah', 'amp', 'second-amp', 'delay'].map((id) => [`block-${id}`, off.includes(id) ? 0 : 1]);
    const values = {
      ...Object.fromEntries(blocks),
      ...Object.fromEntries(orderTyped(order, typed) as Map<string, number>),
    };
    builder.do(setPreset(builder.show, 'hub', preset, { values, ...(preset === 0 ? { latencyMs: 2.5 } : {}) }));
  };
  store(0, 'Wah > [Amp | Second amp] > Delay', ['wah']);
  store(1, 'Delay > Amp > Wah > Second amp', ['wah', 'second-amp']);
  expect(told(builder, 0)).toEqual([{ device: 'hub', words: '[Amp | Second amp] > Delay', latencyMs: 2.5 }]);
  expect(told(builder, 1)).toEqual([{ device: 'hub', words: 'Delay > Amp', latencyMs: null }]);
  // Nobody entered what the third holds.
  expect(told(builder, 2)).toEqual([]);
});

test('the latency of the state that is on, where one was entered for it; of the preset else', () => {
  const builder = new ShowBuilder().text('guitar > hub = modeller, states > desk');
  const { controls } = anatomyOf(builder.show.rig.devices.hub.type);
  const values = Object.fromEntries(
    controls.flatMap(({ id }) => (/^block-/.test(id) && !/-(place|side)$/.test(id) ? [[id, 1]] : [])),
  );
  const [order] = anatomyOf(builder.show.rig.devices.hub.type).orders!;
  const places = orderTyped(order, order.of.map(({ name }) => name).join(' > ')) as Map<string, number>;
  const inState = (state: number | null, more: object) => {
    builder.do(
      setPreset(builder.show, 'hub', 0, { values: { ...values, ...Object.fromEntries(places), state }, ...more }),
    );
    return told(builder, 0).map(({ latencyMs }) => latencyMs);
  };
  const latencies = { latencyMs: 2, latencyInState: { 2: 3.5 } };
  expect(inState(1, latencies)).toEqual([2]);
  expect(inState(2, latencies)).toEqual([3.5]);
  expect(inState(2, { latencyInState: { 3: 4 } })).toEqual([null]);
  // Which state comes up is not known: neither is the latency, unless it is the same in all.
  expect(inState(null, { latencyMs: 2 })).toEqual([2]);
});

test('of a unit in a fixed order as it is wired inside; of pieces with one block nothing', () => {
  const show = starterById('silent-stage').make('rig', 'Rig');
  const { tracer } = contextOf(show);
  expect(insideOf(tracer, show.rig.sounds.lead)).toEqual([
    { device: 'simulator', words: 'Amp > Cabinet > Room', latencyMs: null },
  ]);
  expect(insideOf(tracer, null).map(({ device }) => device)).not.toContain('drive');
});
