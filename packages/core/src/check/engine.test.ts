import { describe, expect, test } from '@jest/globals';
import { applySteps, type Step } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import type { Action } from '../model/rig.ts';
import { commands } from '../testing/commands.ts';
import { seededShow } from '../testing/compare.ts';
import { Random } from '../testing/random.ts';
import { adaptCase, type CaseRig } from '../testing/recall-adapter.ts';
import { check, contextOf } from './engine.ts';
import { rules } from './rules/index.ts';

const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

describe('a context made from the one before', () => {
  test('says after every one of 30 mixed edits just what one made anew says', () => {
    const r = new Random(11);
    let show = demoShow();
    let context = contextOf(show);
    for (let i = 0; i < 30; i += 1) {
      const sounds = Object.keys(show.rig.sounds);
      const slots = Object.keys(show.rig.slots);
      const edits = [
        () => commands.wantPedal(show, r.pick(sounds), r.pick(['drive-1', 'drive-2', 'echo']), r.pick(['on', 'off'])),
        () => commands.want(show, r.pick(sounds), 'echo/preset', r.below(128)),
        () => commands.want(show, r.pick(sounds), 'combo/channel', r.pick(['clean', 'lead'])),
        () =>
          commands.setSlotActions(
            show,
            r.pick(slots),
            r.chance(0.6) ? null : [{ kind: 'set', control: 'loop-4', value: 1 }],
          ),
        () => commands.setDevice(show, 'hall', 'channel', 2 + r.below(3)),
        () => commands.setSound(show, r.pick(sounds), 'role', r.pick(['solo', ''])),
        () => commands.setCable(show, 'cable-3', 'length', r.below(9)),
        () => commands.setDevice(show, r.pick(['echo', 'hall']), 'firstPresetNumber', r.pick([0, 1])),
        () => commands.setDevice(show, 'echo', 'name', `Echo ${r.below(9)}`),
      ];
      show = applied(show, r.pick(edits)().steps);
      context = contextOf(show, context);
      const anew = contextOf(show);
      expect(check(context, rules)).toEqual(check(anew, rules));
      expect(context.prover.all(2)).toEqual(anew.prover.all(2));
      if (i % 6 === 5)
        for (const level of [1, 3, 4] as const) expect(context.prover.all(level)).toEqual(anew.prover.all(level));
      for (const sound of Object.values(show.rig.sounds))
        expect(context.tracer.trace(sound)).toEqual(anew.tracer.trace(sound));
    }
  });

  test('judges random rigs of every kind as one made anew does, at every level, while their slots are rewritten', () => {
    for (let seed = 1; seed <= 16; seed += 1) {
      const r = new Random(seed);
      let show = seededShow(seed);
      let context = contextOf(show);
      context.prover.all(2);
      for (let i = 0; i < 4; i += 1) {
        const slots = Object.values(show.rig.slots);
        if (slots.length < 2) break;
        const [one, other] = [r.pick(slots), r.pick(slots)];
        const some = other.actions ?? [];
        const actions = r.chance(0.3)
          ? []
          : r.chance(0.5)
            ? some.slice(0, r.below(some.length + 1))
            : [...some].reverse();
        const result = applySteps(show, commands.setSlotActions(show, one.id, actions).steps);
        if (!result.ok) continue;
        show = result.value;
        context = contextOf(show, context);
        const anew = contextOf(show);
        for (const level of [2, 3, 4, 1] as const)
          expect([seed, i, level, context.prover.all(level)]).toEqual([seed, i, level, anew.prover.all(level)]);
      }
    }
  });

  test.each([true, false])(
    'judges slots that rest on what another leaves, while that other one is rewritten (sticky bank: %s)',
    (sticky) => {
      const messages: readonly Action[] = [
        { kind: 'control', channel: 1, cc: 32, value: 0 },
        { kind: 'control', channel: 1, cc: 32, value: 1 },
        { kind: 'program', channel: 1, program: 3 },
        { kind: 'program', channel: 1, program: 5 },
        { kind: 'control', channel: 1, cc: 20, value: 20 },
      ];
      const slots = Object.fromEntries(
        ['A', 'B', 'C', 'D'].map((name, pos) => [name, { bank: 0, pos, actions: [], sound: name }]),
      );
      const device = {
        ch: 1,
        presets: {
          stored: { '3': { mix: 20 }, '5': {}, '131': { mix: 90 }, '133': {} },
          powerup: 3,
          scheme: 'lsb',
          sticky,
        },
        controls: { mix: { domain: [20, 50, 90], scope: 'preset' } },
        cc: [{ cc: 20, control: 'mix', mode: 'abs' }],
      };
      const sounds = Object.fromEntries(
        ['A', 'B', 'C', 'D'].map((name, i) => [name, { wants: { 'D.preset': [3, 3, 131, 5][i] } }]),
      );
      const { show: start } = adaptCase({
        controllers: { sw: { slots } },
        devices: { D: device },
        midi: [['sw', 'out', 'D']],
        topology: {
          sources: ['n0'],
          dests: ['n1'],
          edges: [{ id: 'D', from: 'n0', to: 'n1', gov: ['D.preset', 'D.mix'] }],
        },
        sounds,
      } as unknown as CaseRig);
      const r = new Random(sticky ? 3 : 4);
      let show = start;
      let context = contextOf(show);
      const seen = new Set<string>();
      for (let i = 0; i < 150; i += 1) {
        show = applied(
          show,
          commands.setSlotActions(show, r.pick(Object.keys(show.rig.slots)), r.some(messages, 0.35)).steps,
        );
        context = contextOf(show, context);
        const anew = contextOf(show);
        for (const level of [2, 3, 4] as const) {
          const judged = context.prover.all(level);
          expect([i, level, judged]).toEqual([i, level, anew.prover.all(level)]);
          for (const { verdict } of judged) seen.add(verdict);
        }
      }
      expect([...seen].sort()).toEqual(expect.arrayContaining(['does-not', 'recalls']));
    },
  );

  test('takes the wiring over where an edit leaves devices and cables alone, and not where it does not', () => {
    const show = demoShow();
    const first = contextOf(show);
    expect(contextOf(applied(show, commands.setSound(show, 'sound-1', 'role', 'solo').steps), first).tracer).toBe(
      first.tracer,
    );
    expect(contextOf(applied(show, commands.setDevice(show, 'hall', 'channel', 9).steps), first).tracer).not.toBe(
      first.tracer,
    );
  });
});
