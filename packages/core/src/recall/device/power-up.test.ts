import { describe, expect, test } from '@jest/globals';
import type { PowerUp } from '../../model/anatomy.ts';
import { fourCable, lead } from '../../testing/build-show.ts';
import { proverOf } from '../prove/prover-of.ts';
import { WholeStore } from '../state/store.ts';
import { powerUp } from './power-up.ts';

/** A delay with five presets, one of them entered, and what its facts say about power. */
function plantWith(params: Record<string, string | number | boolean>, powerUps: Record<string, PowerUp> = {}) {
  const { show } = fourCable().sound('lead', lead).laid();
  const { delay } = show.rig.devices;
  const mended = {
    ...delay,
    powerUps,
    presets: { '3': { values: { mix: 77, on: 0 } } },
    type: { ...delay.type, params: { ...delay.type.params, presets: 5, ...params } },
  };
  return proverOf({ ...show, rig: { ...show.rig, devices: { ...show.rig.devices, delay: mended } } }).model;
}

/** Every way the delay may come up: preset and mix, by controlValues; with what each choice was among. */
function powerUps(model: ReturnType<typeof plantWith>, first: boolean, before: Record<string, number> = {}) {
  const device = model.device.get('delay')!;
  const [preset, mix] = ['delay/preset', 'delay/mix'].map((ref) => model.variableOf.get(ref as 'delay/mix')!);
  const choices: number[] = [];
  const run = (script: readonly number[]) => {
    const store = new WholeStore(new Int32Array(model.variables.length), new Map());
    for (const [ref, value] of Object.entries(before))
      store.set(model.variableOf.get(ref as 'delay/mix')!, model.values.id(value));
    let at = 0;
    powerUp(model, device, store, first, (values) => {
      choices[at] = values.length;
      return values[script[at++] ?? 0];
    });
    return [model.values.controlValue(store.get(preset)), model.values.controlValue(store.get(mix)) ?? 'unknown'];
  };
  run([]);
  return { choices, outcomes: Array.from({ length: choices[0] ?? 1 }, (_, i) => run([i])) };
}

describe('power-up', () => {
  test('of a device that comes up on a preset of its own choice: each of them, with what it stores, unknown where nobody entered it', () => {
    const { choices, outcomes } = powerUps(plantWith({}, { preset: { is: 'any' } }), true);
    expect(choices[0]).toBe(5);
    expect(outcomes.map(([preset]) => preset)).toEqual([0, 1, 2, 3, 4]);
    expect(outcomes[3]).toEqual([3, 77]);
    expect(outcomes[0][1]).toBe('unknown');
  });
  test('on a stated preset there is no choice', () => {
    expect(powerUps(plantWith({}, { preset: { is: 'value', value: 3 } }), true)).toEqual({
      choices: [],
      outcomes: [[3, 77]],
    });
  });
  test('as left: anything when the whole rig comes up, what it was when it alone restarts', () => {
    const model = plantWith({}, { preset: { is: 'last-state' } });
    expect(powerUps(model, true).choices[0]).toBe(5);
    const restarted = powerUps(model, false, { 'delay/preset': 3, 'delay/mix': 5 });
    expect(restarted).toEqual({ choices: [], outcomes: [[3, 77]] });
  });
  test('a control that keeps its edits through the power going is left as it was; else its preset’s value comes', () => {
    const model = plantWith({}, { preset: { is: 'last-state' }, mix: { is: 'last-state' } });
    expect(powerUps(model, false, { 'delay/preset': 3, 'delay/mix': 5 }).outcomes).toEqual([[3, 5]]);
  });
  test('clears what a controller remembers: bank, contacts, nothing current', () => {
    const model = plantWith({});
    const switcher = model.device.get('switcher')!;
    const { bank, contact } = switcher.controller!;
    const store = new WholeStore(new Int32Array(model.variables.length), new Map());
    store.set(bank, model.values.id(3));
    for (const variable of contact.values()) store.set(variable, model.values.id(1));
    powerUp(model, switcher, store, false, (values) => values[0]);
    expect(model.values.controlValue(store.get(bank))).toBe(0);
    for (const variable of contact.values()) expect(model.values.controlValue(store.get(variable))).toBe(0);
  });
  test('an input that follows its contact finds it open when all is off, and as it is when it alone restarts', () => {
    const model = plantWith({});
    const combo = model.device.get('combo')!;
    const [input] = [...combo.inputs.values()].filter((modelInput) => modelInput.wires.length > 0);
    const contact = model.device.get('switcher')!.controller!.contact.get('contact-1')!;
    const channel = (first: boolean) => {
      const store = new WholeStore(new Int32Array(model.variables.length), new Map());
      store.set(contact, model.values.id(1));
      powerUp(model, combo, store, first, (values) => values[0]);
      return [
        model.values.controlValue(store.get(input.bit)),
        model.values.controlValue(store.get(model.variableOf.get('combo/channel')!)),
      ];
    };
    expect([channel(true), channel(false)]).toEqual([
      [0, 'clean'],
      [1, 'lead'],
    ]);
  });
});
