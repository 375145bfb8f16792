import { describe, expect, test } from '@jest/globals';
import { check, contextOf } from '../check/engine.ts';
import { rules } from '../check/rules/index.ts';
import { buildWiring } from '../model/wiring.ts';
import { ChoiceSequence } from '../recall/deliver/choice-sequence.ts';
import { SimulatedRig } from '../recall/deliver/simulated-rig.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { seededShow } from '../testing/compare.ts';
import { adaptCase } from '../testing/recall-adapter.ts';
import { isUnknown } from './planned-state.ts';
import { Tracer } from './trace.ts';

/** A modeller whose preset says whether its block is in the line; of preset 3 nobody entered it. */
const { show: modeller } = adaptCase({
  controllers: {
    sw: {
      slots: Object.fromEntries(
        ['on', 'off', 'open', 'again'].map((sound, i) => [`S${i}`, { pos: i, sound, actions: [] }]),
      ),
    },
  },
  devices: {
    M: {
      ch: 1,
      controls: { block: { domain: [0, 1], scope: 'preset' } },
      presets: { stored: { 1: { block: 1 }, 2: { block: 0 }, 3: { block: '?' }, 4: { block: 1 } } },
    },
  },
  midi: [['sw', 'out', 'M']],
  topology: {
    sources: ['n0'],
    dests: ['n1'],
    edges: [
      { id: 'block', from: 'n0', to: 'n1', when: { 'M.block': 1 } },
      { id: 'round', from: 'n0', to: 'n1', when: { 'M.block': 0 }, wire: true },
    ],
  },
  sounds: Object.fromEntries(
    [1, 2, 3, 4].map((number, i) => [
      ['on', 'off', 'open', 'again'][i],
      { wants: { 'M.preset': number }, pedals: { M: 'on' as const } },
    ]),
  ),
});
const tracer = new Tracer(buildWiring(modeller.rig));
const soundNamed = (name: string) => Object.values(modeller.rig.sounds).find((sound) => sound.name === name)!;
const isPassed = (name: string) =>
  tracer.trace(soundNamed(name)).passes.some((pass) => pass.device === 'd.M' && pass.activeSections.length > 0);
const { findings } = check(contextOf(modeller), rules);
const found = (rule: string) => findings.filter(({ ruleId }) => ruleId === rule);

describe('the planned state of a sound', () => {
  test('is power-up, then what the wanted presets hold, then the wants', () => {
    const at = (name: string) => {
      const value = tracer.stateOf(soundNamed(name))[buildWiring(modeller.rig).controls.numberOf.get('d.M/block')!];
      return isUnknown(value) ? `what preset ${value.preset} holds` : value;
    };
    expect(['on', 'off', 'open'].map(at)).toEqual([1, 0, 'what preset 3 holds']);
  });

  test('is what the run is traced in: a block that the preset switches on is passed', () => {
    expect(['on', 'off', 'again'].map(isPassed)).toEqual([true, false, true]);
  });

  test('where nobody entered what decides, both ways are followed, and it is said what decides', () => {
    const trace = tracer.trace(soundNamed('open'));
    expect(trace.undecided).toMatchObject([{ device: 'd.M', preset: 3, control: 'd.M/block' }]);
    expect(trace.passes.filter((pass) => pass.device === 'd.M').length).toBeGreaterThan(0);
    expect(tracer.worlds(soundNamed('open')).map((world) => world.passes.some((pass) => !pass.bypassed))).toHaveLength(
      2,
    );
    expect(tracer.worlds(soundNamed('on'))).toHaveLength(1);
  });

  test('no finding claims what is not known', () => {
    expect(found('routing/not-on-path').map(({ at }) => at.sound)).toEqual([soundNamed('off').id]);
  });

  test('sounds that store the same are the same in effect, those that do not are not', () => {
    expect(found('recall/identical-sounds').map(({ at }) => at.sound)).toEqual([soundNamed('again').id]);
  });
});

// Law: what a sound is traced in sounds as the state that its slot leads to from power-up, where that is right.
test('trace and proof agree: the state after a press that is right runs where the sound is traced', () => {
  let compared = 0;
  for (let seed = 20_000_001; seed <= 20_000_160; seed += 1) {
    const show = seededShow(seed);
    const prover = proverOf(show);
    const { model, comparison } = prover;
    if (model.mayFeedBack) continue;
    const ours = new Tracer(buildWiring(show.rig));
    for (const { slot, sound } of prover.pairs()) {
      const rig = new SimulatedRig(model, new ChoiceSequence());
      if (!rig.comeUp({ needs: [] }) || ours.trace(sound).undecided.length > 0) continue;
      rig.happen({ kind: 'press', slot: slot.slot.id });
      const read = (variable: number) => rig.store.get(variable);
      const target = prover.targetOf(sound);
      if (comparison.judge(read, target, { obey: false, pins: new Map() }).is !== 'right') continue;
      // What the sound says nothing of the slot may have moved: that is not planned.
      const planned = ours.stateOf(sound);
      const isPlanned = model.variableAt.every((variable, number) => {
        const value = planned[number];
        return target.has(variable) || isUnknown(value) || model.values.id(value) === read(variable);
      });
      if (!isPlanned) continue;
      const live = comparison.liveWhen(({ variable, values }) => values.includes(read(variable)));
      const passed = new Set(ours.trace(sound).passes.map((pass) => pass.device));
      const devices = new Set(
        comparison.graph.edges.flatMap((edge) => (live.edges[edge.index] === 1 ? [edge.device] : [])),
      );
      expect([seed, slot.slot.id, [...passed].sort()]).toEqual([seed, slot.slot.id, [...devices].sort()]);
      compared += 1;
    }
  }
  expect(compared).toBeGreaterThan(30);
});
