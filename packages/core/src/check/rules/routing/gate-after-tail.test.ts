import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { gateAfterTail } from './gate-after-tail.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(gateAfterTail, {
    clean: {
      'a gate in front': gated('front'),
      'last of the line is this rig’s school': withConvention(gated('end'), 'gate', 'last of the line'),
    },
    faulty: { 'a gate after the delay': { show: gated('end'), messages: ['cuts'] } },
  });
  expect(faults).toEqual([]);
});

function gated(where: 'front' | 'end'): Show {
  const order =
    where === 'front'
      ? ['Guitar > Gate', 'Gate > Delay', 'Delay > Desk']
      : ['Guitar > Delay', 'Delay > Gate', 'Gate > Desk'];
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('delay', 'delay', 'Delay')
    .device('gate', 'gate', 'Gate')
    .device('desk', 'desk', 'Desk')
    .cables(...order)
    .sound('a', { pedals: { delay: 'on', gate: 'on' } }).show;
}
