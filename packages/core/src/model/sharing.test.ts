import { describe, expect, test } from '@jest/globals';
import * as commands from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import { emptySongbook } from './documents.ts';
import { sharingProblems, withSongbook } from './sharing.ts';

const after = (command: commands.Command) => {
  const result = applySteps(demoShow(), command.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value.songbook;
};

describe('a rig beside another songbook', () => {
  test('keeps what it casts there, and only that', () => {
    const { rig } = flyShow();
    expect(withSongbook(rig, demoShow().songbook).rig.casting).toEqual(rig.casting);
    expect(withSongbook(rig, emptySongbook('x', 'X')).rig.casting).toEqual({});
    const [kept] = Object.values(rig.casting);
    const { songbook } = demoShow();
    const item = { ...songbook, parts: { [kept.part]: songbook.parts[kept.part] } };
    expect(Object.values(withSongbook(rig, item).rig.casting)).toEqual(
      Object.values(rig.casting).filter((cast) => cast.part === kept.part),
    );
  });
});

describe('a songbook that others share', () => {
  const show = demoShow();
  const fly = flyShow().rig;
  const [{ part }] = Object.values(fly.casting);
  test('may lose no part that one of them plays: the part and the rigs are named', () => {
    const changed = after(commands.removePart(show, part));
    const song = show.songbook.songs[show.songbook.parts[part].song].name;
    expect(sharingProblems(show.songbook, changed, [fly])).toEqual([
      {
        pointer: `/songbook/parts/${part}`,
        code: 'in-use',
        facts: { what: 'The part', id: `${song}, ${show.songbook.parts[part].name}`, by: `the rig “${fly.name}”` },
      },
    ]);
  });
  test('may lose what none of them plays, and change all else', () => {
    const { casting: _, ...rest } = fly;
    expect(sharingProblems(show.songbook, after(commands.removePart(show, part)), [{ ...rest, casting: {} }])).toEqual(
      [],
    );
    expect(sharingProblems(show.songbook, after(commands.setPart(show, part, 'name', 'Else')), [fly])).toEqual([]);
    expect(sharingProblems(show.songbook, after(commands.removePart(show, part)), [])).toEqual([]);
  });
});
