import { expect, test } from '@jest/globals';
import { addPart, addSong, layOut, setPreset } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { jumpsOnEntry } from './jumps-on-entry.ts';

interface Case {
  readonly mixes: readonly [number | null, number | null];
  readonly pedal?: boolean;
  readonly wants?: Readonly<Record<string, number>>;
}

/** An echo whose mix a pedal moves and its presets store, two of which are played one after the other. */
function echo({ mixes, pedal = true, wants = {} }: Case): Show {
  const builder = new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('floor', 'foot-controller', 'Floor')
    .device('echo', 'midi-delay', 'Echo', { channel: 2 }, { mixByPedal: true })
    .device('pedal', 'expression', 'Pedal')
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Echo', 'Echo Out > Desk', 'Floor MIDI out > Echo MIDI in')
    .sound('near', { wants: { 'echo/preset': 1 } })
    .sound('far', { wants: { 'echo/preset': 2, ...wants } });
  if (pedal) builder.cables('Pedal > Echo Expression');
  for (const [i, mix] of mixes.entries()) builder.do(setPreset(builder.show, 'echo', i + 1, { values: { mix } }));
  builder.do(layOut(builder.show, 'floor')).do(addSong(builder.show, 'song', 'Song'));
  for (const [i, sound] of ['near', 'far', 'near'].entries())
    builder.do(addPart(builder.show, `part-${i}`, 'song', `Part ${i}`, { slot: `slot-${sound}` }));
  return builder.show;
}

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(jumpsOnEntry, {
    clean: {
      'no expression pedal': ordinary().show,
      'both store the same': echo({ mixes: [40, 40] }),
      'nothing plugged in': echo({ mixes: [20, 90], pedal: false }),
      'nobody knows what they store': echo({ mixes: [20, null] }),
    },
    faulty: {
      'from little to much': { show: echo({ mixes: [20, 90] }), messages: ['jumps'], fixable: false },
      // Back in the first part it jumps all the same: that one says nothing of the pedal.
      'said in one of them': { show: echo({ mixes: [20, 90], wants: { 'pedal/position': 90 } }), messages: ['jumps'] },
    },
  });
  expect(faults).toEqual([]);
});
