import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { adaptCase, type CaseRig } from '../../testing/recall-adapter.ts';
import { stepsInShort } from '../../testing/small-rig.ts';
import { proverOf } from './prover-of.ts';
import type { Level } from './verdict.ts';

// The cases that a naive proof gets wrong. Rigs and verdicts: the reference set of recall cases (computed by a
// program of its own); the sequences were written down by hand from the definitions before they were compared.
const file = new URL('../../../fixtures/recall-cases.json', import.meta.url);
const { cases } = JSON.parse(readFileSync(file, 'utf8')).topics['13_recall'];

const R = 'R';
/** slot → what leads to a wrong sound at the four levels; R recalls, - not played, U … cannot be known after …. */
const sequences: Record<string, Record<string, readonly [string, string, string, string]>> = {
  sticky_bank: { A: [R, R, R, R], B: ['A B', 'A B', 'A B', 'A B'] },
  nonsticky_leftover_sent: { A: [R, R, R, R], B: [R, 'X B', 'X B', 'A (lost) B'] },
  lsb_banks_of_100: { A: [R, R, R, R], B: [R, R, R, 'A (lost) B'] },
  pulse_on_belief: { A: [R, R, 'stray amp.fs A', 'B (lost) A'], B: [R, R, 'stray amp.fs B', 'B (lost) B'] },
  amp_restarted: { A: [R, R, R, 'B restart sw A'], B: [R, R, R, 'B restart sw B'] },
  pulse_every_press: { A: [R, 'A', 'A', 'A'], B: [R, 'A B', 'A B', 'A B'] },
  latched_on_level: { A: [R, R, R, R], B: [R, R, R, R] },
  stray_amp_footswitch_level: { A: [R, R, 'stray amp.fs A', R], B: [R, R, 'B stray amp.fs B', R] },
  repeat_ignored: { A: [R, R, R, R], B: [R, 'A B', 'A B', 'A B'] },
  repeat_reloads: { A: [R, R, R, R], B: [R, R, R, R] },
  repeat_ignored_unknown: { A: [R, R, R, R], B: [R, 'U A B', 'U A B', 'U A B'] },
  same_content_number_governs: { A: ['A', 'A', 'A', 'A'] },
  repeat_alternates_device: { A: [R, 'B A A', 'B A A', 'B A A'], B: [R, 'B B', 'B B', 'B B'] },
  repeat_press_ignored: { A: [R, 'hold m A', 'hold m A', 'hold m A'], B: [R, R, R, R] },
  repeat_press_alternates: { A: [R, 'B A A', 'B A A', 'B A A'], B: [R, 'A B B', 'A B B', 'A B B'] },
  bank_move_fires: { A: [R, R, R, R], C: ['-', R, R, R], B: ['A up B', 'up B', 'up B', 'up B'] },
  busy_drops: { A: ['B A', 'A', 'A', 'A'], B: [R, R, R, R] },
  busy_queues: { A: [R, R, R, R], B: [R, R, R, R] },
  toggle_two_slots: { A: [R, 'A A', 'A A', 'A A'], B: [R, 'B', 'B', 'B'] },
  toggle_exclusive_pair: { A: [R, 'A A', 'A A', 'A A'], B: [R, 'B B', 'B B', 'B B'] },
  next_preset_wraps: { A: [R, 'A A', 'A A', 'A A'], B: [R, R, R, R] },
  momentary_restores: { A: [R, 'hold m A', 'hold m A', 'hold m A'], B: [R, 'A hold m B', 'A hold m B', 'A hold m B'] },
  held_sound_no_slot_clears: { A: [R, 'hold m A', 'hold m A', 'hold m A'] },
  slot_1_2_3: { 1: [R, R, R, R], 2: [R, R, R, R], 3: [R, R, R, '1 (lost) 3'] },
  muted_by_another_slot: { A: [R, 'T A', 'T A', 'T A'], B: ['-', 'T B', 'T B', 'T B'], Q: [R, 'T Q', 'T Q', 'T Q'] },
  never_quiet: { S1: ['S1', 'S1', 'S1', 'S1'] },
  stray_own_switch_in_loop: { A: [R, R, 'stray ts.fs A', R], B: [R, R, R, R] },
  external_program_change: { A: [R, 'outside 2 A', 'outside 2 A', 'outside 2 A'] },
  not_played: { A: [R, R, R, R], Z: ['-', 'up Z', 'up Z', 'up Z'] },
  cue_live_position: { A: ['A cue vol/pos=50 B cue vol/pos=100 A', R, R, R], B: [R, R, R, R] },
};

describe('cases that a naive proof gets wrong', () => {
  test.each(Object.entries(sequences))('%s: the shortest sequences', (name, expected) => {
    const item = cases.find((other: { name: string }) => other.name === name);
    const prover = proverOf(adaptCase(item.inputs.rig).show);
    for (const [slotName, levels] of Object.entries(expected)) {
      const pair = prover.pairs().find(({ slot }) => slot.slot.id.endsWith(`.${slotName}`))!;
      const found = ([1, 2, 3, 4] as Level[]).map((level) => {
        const judgement = prover.judge(pair.slot, pair.sound, level);
        if (judgement.verdict === 'recalls') return R;
        if (judgement.verdict === 'not-played') return '-';
        return `${judgement.verdict === 'cannot-be-known' ? 'U ' : ''}${stepsInShort(judgement.sequence!.steps)}`;
      });
      expect([slotName, ...found]).toEqual([slotName, ...levels]);
    }
  });

  test('what a sequence needs of power-up is named: slot 3 fails after a lost message only where D came up on 9', () => {
    const prover = proverOf(
      adaptCase(cases.find((item: { name: string }) => item.name === 'slot_1_2_3').inputs.rig).show,
    );
    const { slot, sound } = prover.pairs()[2];
    expect(prover.judge(slot, sound, 4).sequence!.needs).toEqual([{ device: 'd.D', part: 'preset', value: '9' }]);
  });

  test('a lost bank select, where only what the presets store is heard: another preset loads another value', () => {
    const rig: CaseRig = {
      controllers: {
        c: {
          slots: {
            A: {
              actions: [
                { cc: 0, val: 1, ch: 1 },
                { pc: 2, ch: 1 },
              ],
              sound: 'off',
            },
            B: { pos: 1, actions: [], sound: 'off' },
          },
        },
      },
      devices: {
        D: {
          ch: 1,
          presets: { stored: { 1: { b: 0 }, 2: { b: 1 }, 130: { b: 0 } }, powerup: 1, scheme: 'msb' },
          controls: { b: { domain: [0, 1], scope: 'preset' } },
        },
      },
      midi: [['c', 'out', 'D']],
      topology: { sources: ['in'], dests: ['out'], edges: [{ id: 'D', from: 'in', to: 'out', gov: ['D.b'] }] },
      sounds: { off: { wants: { 'D.b': 0 } } },
      set: [['c', 'A']],
      faults: ['sent'],
    };
    const prover = proverOf(adaptCase(rig).show);
    const found = prover.pairs().map(({ slot, sound }) => {
      const { verdict, sequence } = prover.judge(slot, sound, 4);
      return [prover.judge(slot, sound, 2).verdict, verdict, sequence && stepsInShort(sequence.steps)];
    });
    expect(found).toEqual([
      ['recalls', 'recalls', null],
      ['recalls', 'does-not', 'A (lost) B'],
    ]);
  });
});
