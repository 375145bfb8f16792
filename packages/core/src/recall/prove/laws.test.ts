import { describe, expect, test } from '@jest/globals';
import { demoShow, flyShow } from '../../demo/demo.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { Delivery } from '../deliver/delivery.ts';
import { begin } from '../deliver/events.ts';
import { comesUpAs } from '../device/power-up.ts';
import type { Operation } from '../device/recording.ts';
import { Stepper } from '../explore/stepper.ts';
import { summarise } from '../explore/write-summary.ts';
import type { StateModel } from '../state/state-model.ts';
import { WholeStore } from '../state/store.ts';
import { proverOf } from './prover-of.ts';

const seeds = Array.from({ length: 14 }, (_, i) => 700 + i);

/** Values that a variable can hold, by its kind; enough to start an event from anywhere. */
function anyState(model: StateModel, r: Random): Int32Array {
  const state = new Int32Array(model.variables.length);
  for (const device of model.devices) {
    for (const control of device.controls.values()) state[control.variable] = r.pick(control.options);
    for (const input of device.inputs.values()) state[input.bit] = model.values.id(r.below(2));
    const { presets, controller } = device;
    if (presets) {
      state[presets.variable] = model.values.id(r.pick(presets.numbers));
      if (presets.previous >= 0) state[presets.previous] = model.values.id(r.pick(presets.numbers));
      if (presets.bank >= 0) state[presets.bank] = model.values.id(r.below(2));
    }
    if (!controller) continue;
    state[controller.bank] = model.values.id(r.below(controller.facts.banks));
    for (const variable of [controller.currentSlot, controller.previousSlot])
      if (variable >= 0) state[variable] = model.values.id('');
    for (const variable of [...controller.held.values(), ...controller.contact.values(), ...controller.belief.values()])
      state[variable] = model.values.id(r.below(2));
    for (const variable of controller.saved.values()) state[variable] = model.values.id('');
  }
  return state;
}

describe('laws of the pieces that the proof is made of', () => {
  /** How much the laws over seeds had to look at. */
  const seen = { untouched: 0, left: 0, wrong: 0, inaudible: 0, sounding: 0 };

  test.each(seeds)('seed %i: what a compiled press is said to leave, it leaves, from whatever state', (seed) => {
    const { model, table } = proverOf(seededShow(seed));
    const r = new Random(seed);
    for (const compiled of table.press.values()) {
      if (compiled.operations === null || compiled.event.kind !== 'press') continue;
      const again = summarise(model, compiled.losses().operations);
      expect(model.variables.map(({ index }) => again.leaves(index))).toEqual(
        model.variables.map(({ index }) => compiled.summary.leaves(index)),
      );
      for (let i = 0; i < 12; i += 1) {
        const before = anyState(model, r);
        const store = new WholeStore(before.slice(), new Map());
        const delivery = new Delivery(model, store);
        begin(model, compiled.event, delivery);
        if (delivery.settle() !== 'settled') continue;
        for (const { index } of model.variables) {
          const left = compiled.summary.leaves(index);
          expect(compiled.summary.mayWrite(index)).toBe(compiled.summary.written.includes(index));
          if (!compiled.summary.mayWrite(index)) {
            expect([index, store.state[index]]).toEqual([index, before[index]]);
            seen.untouched += 1;
          } else if (left >= 0) {
            expect([index, store.state[index]]).toEqual([index, left]);
            seen.left += 1;
          }
        }
      }
    }
  });

  test.each(seeds)(
    'seed %i: what is certainly wrong or certainly inaudible from one variable is so in every state',
    (seed) => {
      const prover = proverOf(seededShow(seed));
      const { model, threeValued, comparison } = prover;
      const r = new Random(seed);
      const pins = new Map();
      for (const { sound } of prover.pairs()) {
        const target = prover.targetOf(sound);
        for (const variable of target.variables) {
          const states = Array.from({ length: 25 }, () => anyState(model, r));
          for (const value of new Set(states.map((state) => state[variable]))) {
            const status = threeValued.status(
              target,
              new Map([[variable, value]]),
              threeValued.ground(() => null),
              pins,
            );
            for (const state of states) {
              const here = state.slice();
              here[variable] = value;
              const heard = comparison.judge((other) => here[other], target, { obey: true, pins });
              if (status === 'wrong') {
                expect([sound.id, variable, heard.is]).toEqual([sound.id, variable, 'wrong']);
                seen.wrong += 1;
              }
              if (status !== 'inaudible' || target.cues.has(variable)) continue;
              seen.inaudible += 1;
              here[variable] = target.wants(variable);
              expect([
                sound.id,
                variable,
                comparison.judge((other) => here[other], target, { obey: true, pins }).is,
              ]).toEqual([sound.id, variable, heard.is]);
            }
          }
        }
      }
    },
  );

  test.each(seeds)('seed %i: a line that surely sounds sounds in every state', (seed) => {
    const prover = proverOf(seededShow(seed));
    const r = new Random(seed);
    if (!prover.threeValued.surelySounds(() => null)) return;
    for (const { sound } of prover.pairs())
      for (let i = 0; i < 10; i += 1) {
        const state = anyState(prover.model, r);
        seen.sounding += 1;
        expect(
          prover.comparison.judge((variable) => state[variable], prover.targetOf(sound).restrictedTo(new Set(), -1), {
            obey: false,
            pins: new Map(),
          }).is,
        ).toBe('right');
      }
  });

  test('each of these had much to look at', () => {
    for (const [what, count] of Object.entries(seen)) expect([what, count > 100]).toEqual([what, true]);
  });

  // The demo waits for devices that load and opens and closes contacts; random rigs send over chains and merges.
  test('a press recorded straight does the same, at the same times and in the same order, as one delivered message by message', () => {
    // When it arrives makes a difference only to a device that may be loading.
    const statesOf = ({ devices }: StateModel, operations: readonly Operation[]) =>
      operations.map(({ update, time }) => [
        update.writes,
        update.constant ?? null,
        devices[update.device]?.wired.anatomy.busy ? time : null,
      ]);
    let compared = 0;
    let waited = 0;
    for (const show of [demoShow(), flyShow(), ...Array.from({ length: 80 }, (_, i) => seededShow(700 + i))]) {
      const { model, table } = proverOf(show);
      if (model.mayFeedBack) continue;
      for (const compiled of table.ordinary) {
        if (compiled.operations === null) continue;
        const operations = compiled.operations().operations();
        expect(statesOf(model, operations)).toEqual(statesOf(model, compiled.losses().operations.operations()));
        compared += operations.length;
        if (compiled.event.kind === 'press' && compiled.event.slot.actions.some((action) => action.kind === 'wait'))
          waited += 1;
      }
    }
    expect(compared).toBeGreaterThan(1000);
    expect(waited).toBeGreaterThan(10);
  });

  test('what a control is said to come up with, it comes up with alone; controls that something else decides are left out', () => {
    const said = new Map<string, number>();
    for (const show of [demoShow(), flyShow(), ...seeds.map(seededShow)]) {
      const { model } = proverOf(show);
      for (const { index, kind } of model.variables) {
        const value = comesUpAs(model, index);
        said.set(value < 0 ? `${kind}: open` : kind, (said.get(value < 0 ? `${kind}: open` : kind) ?? 0) + 1);
        if (value < 0) continue;
        const stepper = new Stepper(model, [index], new Map());
        expect(stepper.comesUp().map((row) => row[0])).toEqual([value]);
      }
    }
    expect(said.get('control')).toBeGreaterThan(20);
    expect(said.get('control: open')).toBeGreaterThan(20);
    expect(said.get('preset')).toBeUndefined();
  });

  test('what others shut is heard in no state in which they are as they were', () => {
    let shut = 0;
    for (const show of [demoShow(), flyShow(), ...seeds.map(seededShow)]) {
      const { model, comparison, threeValued } = proverOf(show);
      const r = new Random(6);
      for (let i = 0; i < 60; i += 1) {
        const fixed = anyState(model, r);
        const isFixed = model.variables.map(() => r.chance(0.5));
        for (const { index } of model.variables) {
          if (!threeValued.isBlocked(index, (variable) => (isFixed[variable] ? fixed[variable] : -1))) continue;
          const state = anyState(model, r);
          for (const variable of state.keys())
            if (isFixed[variable] && variable !== index) state[variable] = fixed[variable];
          const { edges } = comparison.liveWhen((condition) => condition.values.includes(state[condition.variable]));
          for (const edge of comparison.edges)
            if (edges[edge.index] === 1)
              expect(
                edge.parameters.includes(index) || edge.when.some((condition) => condition.variable === index),
              ).toBe(false);
          if (comparison.edges.some((edge) => edge.parameters.includes(index))) shut += 1;
        }
      }
    }
    expect(shut).toBeGreaterThan(50);
  });

  test('what a loop mutes while it is out is heard in no state in which it is out', () => {
    let muted = 0;
    let heard = 0;
    for (const show of [demoShow(), flyShow(), ...seeds.map(seededShow)]) {
      const { model, comparison, threeValued } = proverOf(show);
      const r = new Random(5);
      for (const { index } of model.variables) {
        const loop = threeValued.loopAround(index);
        if (loop < 0 || loop === index) continue;
        const own = comparison.edges.filter(
          (edge) => edge.parameters.includes(index) || edge.when.some((condition) => condition.variable === index),
        );
        const isMuted = threeValued.isMutedByItsLoop(index);
        for (let i = 0; i < 20; i += 1) {
          const state = anyState(model, r);
          state[loop] = model.values.id(i % 2);
          const { edges } = comparison.liveWhen((condition) => condition.values.includes(state[condition.variable]));
          const isLive = own.some((edge) => edges[edge.index] === 1);
          if (isLive) heard += 1;
          if (isMuted && i % 2 === 0) expect(isLive).toBe(false);
        }
        if (isMuted) muted += 1;
      }
    }
    expect(muted).toBeGreaterThan(10);
    expect(heard).toBeGreaterThan(50);
  });
});
