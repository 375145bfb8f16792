import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { adaptCase } from '../../../testing/recall-adapter.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { manyThroughs } from './many-throughs.ts';

/** So many devices one behind the other. */
const chain = (count: number, last: 'thru' | 'merge' = 'thru'): Show =>
  adaptCase({
    controllers: { sw: { slots: { S: { sound: 's' } } } },
    devices: Object.fromEntries(Array.from({ length: count }, (_, i) => [`D${i}`, { ch: i + 1 }])),
    midi: Array.from({ length: count }, (_, i) =>
      i === 0 ? (['sw', 'out', 'D0'] as const) : ([`D${i - 1}`, i === count - 1 ? last : 'thru', `D${i}`] as const),
    ),
    topology: { sources: ['n0'], dests: ['n0'], edges: [] },
    sounds: { s: {} },
  }).show;

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(manyThroughs, {
    clean: {
      'the ordinary rig': ordinary().show,
      'five devices: the last behind four throughs': chain(5),
      'an output that sends anew': chain(6, 'merge'),
    },
    faulty: { 'six devices: the last behind five': { show: chain(6), messages: ['far'] } },
  });
  expect(faults).toEqual([]);
});
