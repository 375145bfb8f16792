import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ordinary, withDevice, withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { delayWithoutTempo } from './delay-without-tempo.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(delayWithoutTempo, {
    clean: {
      'a tempo': synced(120),
      'no synced preset': ordinary().show,
      'tapped is this rig’s school': withConvention(synced(null), 'tempo', 'tapped'),
    },
    faulty: { 'no tempo': { show: synced(null), messages: ['untimed'] } },
  });
  expect(faults).toEqual([]);
});

function synced(tempo: number | null): Show {
  const show = withDevice(ordinary().show, 'delay', { presets: { '5': { values: {}, sync: 'dotted-eighth' } } });
  return { ...show, songbook: { ...show.songbook, songs: { song: { ...show.songbook.songs.song, tempo } } } };
}
