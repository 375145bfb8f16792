import { expect, test } from '@jest/globals';
import { catalogue } from '../../../catalogue/types.ts';
import type { Show } from '../../../model/documents.ts';
import { adaptCase } from '../../../testing/recall-adapter.ts';
import { ordinary, withDevice } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { manyThroughs } from './many-throughs.ts';

/** So many devices one behind the other. */
const chain = (count: number, last: 'thru' | 'merge' = 'thru', panel?: string): Show =>
  asPanel(behind(count, last), panel);
const asPanel = (show: Show, id: string | undefined): Show =>
  id === undefined
    ? show
    : withDevice(show, id, { type: catalogue.find(({ type }) => type.id === 'edge-panel-midi')!.type });
const behind = (count: number, last: 'thru' | 'merge'): Show =>
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
      'the third of six is a panel, which is only wire': chain(6, 'thru', 'd.D2'),
      'an output that sends anew': chain(6, 'merge'),
    },
    faulty: { 'six devices: the last behind five': { show: chain(6), messages: ['far'] } },
  });
  expect(faults).toEqual([]);
});
