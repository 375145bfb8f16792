import { expect, test } from '@jest/globals';
import { addPart, addSong, setCast, setPreset, want } from '../../../change/commands.ts';
import { applySteps, type Step } from '../../../change/steps.ts';
import type { Show } from '../../../model/documents.ts';
import type { CastAction } from '../../../model/rig.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { loopNotAsMeant } from './loop-not-as-meant.ts';

const press = (track: string, meant?: string): CastAction => ({
  kind: 'foot',
  device: 'looper' as never,
  switch: track,
  ...(meant === undefined ? {} : { meant }),
});

/** A verse and a chorus of one song, and one of another, over a looping station; feet as the script has them. */
function looped(script: Readonly<Record<string, readonly CastAction[]>>, secondMemory = 2): Show {
  const rig = new ShowBuilder().text(
    'guitar > switcher = loop switcher, 4 loops\n1: drive\nswitcher > looper = looping station => amp = valve amp one + other = valve amp one\namp > cabinet; other > second cabinet = cabinet\nmidi: switcher > looper',
  );
  let { show } = rig
    .sound('verse', { name: 'Verse' })
    .sound('chorus', { name: 'Chorus', pedals: { drive: 'on' } })
    .sound('last', { name: 'Last' })
    .laid();
  const apply = (steps: readonly Step[]) => {
    const result = applySteps(show, steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    show = result.value;
  };
  for (const number of [1, 2])
    apply(
      setPreset(show, 'looper', number, { values: { 'track-1': 'empty', 'track-2': 'empty', 'track-3': 'empty' } })
        .steps,
    );
  apply(want(show, 'verse', 'looper/preset', 1).steps);
  apply(want(show, 'last', 'looper/preset', secondMemory).steps);
  apply(addSong(show, 'second', 'Second').steps);
  const [list] = Object.values(show.songbook.setLists);
  if (!list.songs.includes('second' as never))
    apply([
      {
        doc: 'songbook',
        op: 'set',
        at: ['setLists', list.id, 'songs'],
        value: [...list.songs, 'second'],
        old: list.songs,
      },
    ]);
  apply(addPart(show, 'part-second', 'second', 'Only', { slot: 'slot-last' }).steps);
  for (const [part, actions] of Object.entries(script)) {
    const cast = Object.values(show.rig.casting).find((each) => each.part === part)!;
    apply(setCast(show, cast.id, 'after', actions).steps);
  }
  return show;
}

test('a script of what is recorded: quiet where each press does what it is meant for', () => {
  expect(
    ruleFaults(loopNotAsMeant, {
      clean: {
        'nothing is recorded': looped({}),
        'recorded, played, stopped': looped({
          'part-verse': [press('press-1', 'recording'), press('press-1', 'playing')],
          'part-chorus': [press('press-2', 'recording'), press('press-2', 'playing')],
          'part-last': [press('stop-all')],
        }),
        'an overdub that is meant': looped({
          'part-verse': [press('press-1', 'recording'), press('press-1', 'playing')],
          'part-chorus': [press('press-1', 'overdubbing'), press('press-1', 'playing')],
          'part-last': [press('stop-1')],
        }),
      },
      faulty: {
        'the same track recorded twice: the second time goes over the first': {
          show: looped({
            'part-verse': [press('press-1', 'recording'), press('press-1', 'playing')],
            'part-chorus': [press('press-1', 'recording')],
            'part-last': [press('stop-1')],
          }),
          messages: ['otherwise'],
        },
        'it goes on into the next song': {
          show: looped({ 'part-last': [press('press-1', 'recording'), press('press-1', 'playing')] }),
          messages: ['plays-on'],
        },
        'the next song has the memory that was played already': {
          show: looped({
            'part-last': [press('press-1', 'recording'), press('press-1', 'playing'), press('stop-1')],
            'part-second': [press('press-2', 'playing')],
          }),
          messages: ['otherwise', 'plays-on'],
        },
      },
    }),
  ).toEqual([]);
});
