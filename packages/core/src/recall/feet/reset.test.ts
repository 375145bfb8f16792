import { expect, test } from '@jest/globals';
import { adaptCase, type CaseRig } from '../../testing/recall-adapter.ts';
import { seededRig } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import { SimulatedRig } from '../deliver/simulated-rig.ts';
import { proverOf } from '../prove/prover-of.ts';
import { footPlan } from '../replay/foot-plan.ts';

/** Three presets that a switch steps through, as far as the last or round. */
const unit = (wrap: boolean): CaseRig => ({
  devices: {
    D: {
      presets: { stored: { 0: { mix: 1 }, 1: { mix: 2 }, 2: { mix: 3 } }, powerup: 0 },
      controls: { mix: { domain: [1, 2, 3], scope: 'preset' } },
      foot: {
        down: { does: [{ next: 'preset', by: -1, wrap }] },
        up: { does: [{ next: 'preset', by: 1, wrap }] },
      },
    },
  },
  topology: { sources: ['a'], dests: ['b'], edges: [{ id: 'D', from: 'a', to: 'b', gov: ['D.mix'] }] },
  sounds: { first: { wants: { 'D.preset': 0 } }, middle: { wants: { 'D.preset': 1 } } },
  set: [{ sound: 'first' }, { sound: 'middle' }],
});

const resetsOf = (rig: CaseRig) =>
  footPlan(proverOf(adaptCase(rig).show))!.resets.map(({ steps, lookAt }) =>
    steps ? steps.map((step) => ('switch' in step ? step.switch : 'a hand')).join(', ') : `look at ${lookAt.join()}`,
  );

test('presses that stop at the end set a preset whatever came before: to the end, and from there', () => {
  expect(resetsOf(unit(false))).toEqual(['down, down', 'down, down, up']);
});
test('presses that go round set nothing: one has to look', () => {
  expect(resetsOf(unit(true))).toEqual(['look at d.D/preset', 'look at d.D/preset']);
});

test('a slot that sets what matters is the reset, with the presses that it leaves', () => {
  const { devices, ...rest } = unit(true);
  const rig: CaseRig = {
    ...rest,
    devices: { D: { ...devices!.D, ch: 1 } },
    controllers: { c: { slots: { home: { actions: [{ pc: 0, ch: 1 }] } } } },
    midi: [['c', 'out', 'D']],
  };
  const { resets } = footPlan(proverOf(adaptCase(rig).show))!;
  expect(
    resets.map(({ steps }) => steps?.map((step) => ('slot' in step ? 'slot' : 'switch' in step && step.switch))),
  ).toEqual([['slot'], ['slot', 'up']]);
});

test('after a reset the sound is right, whatever was pressed before (random rigs, random presses)', () => {
  let tried = 0;
  for (let seed = 30_000_000; tried < 12; seed += 1) {
    const prover = proverOf(seededRig(seed).show);
    const plan = footPlan(prover);
    const r = new Random(seed + 7);
    const feet = prover.model.devices.flatMap((device) =>
      device.wired.anatomy.switches.map((footSwitch): SequenceStep => ({
        kind: 'foot',
        device: device.id,
        switch: footSwitch.id,
        stray: true,
      })),
    );
    const presses = prover.model.slots.map(({ slot }): SequenceStep => ({ kind: 'press', slot: slot.id }));
    if (prover.model.devices.some(({ controller }) => controller && controller.facts.banks > 1)) continue;
    for (const { sound, steps } of plan?.resets ?? []) {
      if (!steps) continue;
      tried += 1;
      const choices = new ChoiceSequence();
      choices.begin();
      const rig = new SimulatedRig(prover.model, choices);
      rig.comeUp({ needs: [] });
      for (let i = 0; i < 12; i += 1) rig.happen(r.pick([...feet, ...presses]));
      for (const step of steps)
        rig.happen(
          'slot' in step
            ? { kind: 'press', slot: step.slot }
            : step.kind === 'foot'
              ? { ...step, stray: false }
              : { kind: 'cue', control: step.control, value: String(step.value) },
        );
      const target = prover.targetOf(prover.model.wiring.rig.sounds[sound]);
      const heard = prover.comparison.judge((variable) => rig.store.get(variable), target, {
        obey: false,
        pins: new Map(),
      });
      expect({ seed, sound, is: heard.is }).toEqual({ seed, sound, is: 'right' });
    }
  }
});
