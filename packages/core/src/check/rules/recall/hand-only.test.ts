import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { fourCable } from '../../../testing/build-show.ts';
import { wantingEach } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { handOnly } from './hand-only.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(handOnly, {
    clean: {
      'one position for all': knobbed(4, 4),
      'the instrument’s own selector is a cue': wantingEach('guitar/selector', 'neck', 'bridge'),
    },
    faulty: {
      'two positions of one knob': { show: knobbed(4, 7), messages: ['in-set'] },
      'two positions, nothing cast yet': {
        show: { ...knobbed(4, 7), rig: { ...knobbed(4, 7).rig, casting: {} } },
        messages: ['differs'],
      },
    },
  });
  expect(faults).toEqual([]);
});

function knobbed(first: number, second: number): Show {
  return fourCable()
    .device('boost', 'boost', 'Boost', {}, { knobs: ['Level'] })
    .sound('a', { wants: { 'boost/knob-1': first } })
    .sound('b', { wants: { 'boost/knob-1': second } })
    .laid().show;
}
