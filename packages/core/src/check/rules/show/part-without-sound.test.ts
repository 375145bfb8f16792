import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { Part } from '../../../model/songbook.ts';
import { fourCable } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { partWithoutSound } from './part-without-sound.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(partWithoutSound, {
    clean: {
      'every part cast': ordinary().show,
      'a part marked as silent': withPart(ordinary().show, { silent: true }),
      'a songbook before the first sound': withPart(fourCable().show, {}),
    },
    faulty: { 'a part that nobody cast': { show: withPart(ordinary().show, {}), messages: ['uncast'], fixable: true } },
  });
  expect(faults).toEqual([]);
});

function withPart(show: Show, facts: Partial<Part>): Show {
  return {
    ...show,
    songbook: {
      ...show.songbook,
      songs: { ...show.songbook.songs, more: { id: 'more', name: 'More', order: 'z', tempo: 100 } },
      parts: { ...show.songbook.parts, more: { id: 'more', song: 'more', name: 'all', order: 'z', ...facts } },
      setLists: { set: { id: 'set', name: 'Set', order: 'b', songs: [...Object.keys(show.songbook.songs), 'more'] } },
    },
  };
}
