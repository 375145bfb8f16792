import { pointer, problem, type Problem } from '../units/problem.ts';
import type { Show } from './documents.ts';
import type { Rig } from './rig.ts';
import type { Songbook } from './songbook.ts';

/**
 * A rig put beside another songbook: it plays what of that it already plays, part by part; the rest is not cast yet.
 */
export function withSongbook(rig: Rig, songbook: Songbook): Show {
  const casting = Object.fromEntries(
    Object.entries(rig.casting).filter(([, cast]) => Object.hasOwn(songbook.parts, cast.part)),
  );
  return { rig: { ...rig, casting }, songbook };
}

/** What stands against a songbook that other rigs share: parts taken out of it that one of them still plays. */
export function sharingProblems(before: Songbook, after: Songbook, others: readonly Rig[]): readonly Problem[] {
  const gone = Object.values(before.parts).filter((part) => !Object.hasOwn(after.parts, part.id));
  return gone.flatMap((part) => {
    const by = others
      .filter((rig) => Object.values(rig.casting).some((cast) => cast.part === part.id))
      .map((rig) => `the rig “${rig.name}”`);
    const song = before.songs[part.song]?.name;
    return by.length === 0
      ? []
      : [
          problem(pointer('songbook', 'parts', part.id), 'in-use', {
            what: 'The part',
            id: song === undefined ? part.name : `${song}, ${part.name}`,
            by: by.join(', '),
          }),
        ];
  });
}
