import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { CastAction } from '../../../model/rig.ts';
import { ordinary, withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { feetAtOnce } from './feet-at-once.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(feetAtOnce, {
    clean: { 'one press a part': ordinary().show, 'a foot where the slot stays': footed(['lead', 'lead'], 1) },
    faulty: {
      'a foot and the slot': { show: footed(['lead', 'clean'], 1), messages: ['many'] },
      'a foot right after the slot': { show: footed(['lead', 'clean'], 0, 1), messages: ['many'] },
      'pedal by pedal': {
        show: withConvention(footed(['lead', 'clean'], 1), 'foot', 'pedal by pedal'),
        messages: ['many'],
      },
    },
  });
  expect(faults).toEqual([]);
});

function footed(slots: readonly string[], feet: number, after = 0): Show {
  const { show } = ordinary();
  const foot: CastAction = { kind: 'foot', device: 'combo', switch: 'channel' };
  const [first, second] = slots.map((slot) => `slot-${slot}`);
  return {
    ...show,
    rig: {
      ...show.rig,
      casting: {
        'part-lead': { id: 'part-lead', part: 'part-lead', slot: first, before: [], after: [], again: false },
        'part-clean': {
          id: 'part-clean',
          part: 'part-clean',
          slot: second,
          before: Array.from({ length: feet }, () => foot),
          after: Array.from({ length: after }, () => foot),
          again: false,
        },
      },
    },
  };
}
