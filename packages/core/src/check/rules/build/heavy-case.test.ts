import { expect, test } from '@jest/globals';
import { packedRig, withPacking } from '../../../testing/pack-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { heavyCase } from './heavy-case.ts';

const cases = (change: object) =>
  withPacking(packedRig(), {
    cases: packedRig().rig.settings.pack!.cases!.map((each) => (each.id === 'amp' ? { ...each, ...change } : each)),
  });

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(heavyCase, {
      clean: { 'nothing packed': ordinary().show, 'an amp of 21 kg with its case': packedRig() },
      faulty: {
        'above what two hands lift': { show: cases({ grams: 6_000 }), messages: ['lift'] },
        'above what the carrier allows': { show: cases({ mostKg: 20 }), messages: ['carrier'] },
        'a rig’s own limit': {
          show: withPacking(packedRig(), { ...packedRig().rig.settings.pack, twoHands: 15 }),
          messages: ['lift'],
        },
      },
    }),
  ).toEqual([]);
});
