import { expect, test } from '@jest/globals';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { adaptCase, type CaseRig } from '../../../testing/recall-adapter.ts';
import { partOutOfReach } from './part-out-of-reach.ts';

/** Two banks whose moves fire slots; the first slot is called away to the other bank by what it sends, or is not. */
const rig = (calls: boolean): CaseRig => ({
  controllers: {
    sw: {
      slots: { S0: { bank: 0, actions: [{ pc: 1, ch: 1 }], sound: 's0' }, S1: { bank: 1, actions: [] } },
      bank_move: 'fires',
      ...(calls ? { rx: 16, pc_map: { 1: 'S1' } } : {}),
    },
  },
  devices: { D0: { ch: 1, presets: { stored: { 1: {} } }, emits: { ch: 16 } } },
  midi: [
    ['sw', 'out', 'D0'],
    ['D0', 'out', 'sw'],
  ],
  topology: { sources: ['n0'], dests: ['n0'], edges: [] },
  sounds: { s0: {} },
  set: [
    ['sw', 'S1'],
    ['sw', 'S0'],
  ],
});

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(partOutOfReach, {
    clean: {
      'the ordinary rig': ordinary().show,
      'moves that fire slots, and nobody calls': adaptCase(rig(false)).show,
    },
    faulty: { 'a slot that calls away': { show: adaptCase(rig(true)).show, messages: ['lost'] } },
  });
  expect(faults).toEqual([]);
});
