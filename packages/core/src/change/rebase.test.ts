import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import * as commands from './commands.ts';
import { rebaseSteps } from './rebase.ts';
import { applySteps, type Step } from './steps.ts';

const demo = demoShow();
const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
/** The edit made over the demo, put on what another made of it. */
const over = (mine: commands.Command, theirs: commands.Command): Show | null => {
  const now = applied(demo, theirs.steps);
  const steps = rebaseSteps(now, mine.steps);
  return steps && applied(now, steps);
};

describe('an edit put over another', () => {
  test('sets what it set, whatever is there now, and leaves the rest', () => {
    const show = over(commands.renameRig(demo, 'Mine'), {
      command: { name: 'x', facts: {} },
      steps: [...commands.renameRig(demo, 'Theirs').steps, ...commands.setDevice(demo, 'echo', 'channel', 9).steps],
    })!;
    expect([show.rig.name, show.rig.devices['echo'].channel]).toEqual(['Mine', 9]);
  });
  test('that is at its place already changes nothing', () => {
    const edit = commands.addPlace(demo, 'side', 'Side stage');
    const now = applied(demo, edit.steps);
    expect(applied(now, rebaseSteps(now, edit.steps)!)).toBe(now);
  });
  test('takes out what is still there', () => {
    const show = over(commands.removeSound(demo, 'sound-2'), commands.setSound(demo, 'sound-2', 'name', 'Renamed'))!;
    expect(show.rig.sounds['sound-2']).toBeUndefined();
    const twice = applied(demo, commands.removeSound(demo, 'sound-2').steps);
    expect(applied(twice, rebaseSteps(twice, commands.removeSound(demo, 'sound-2').steps)!)).toBe(twice);
  });
  test('sets and takes away an optional field', () => {
    const meter = commands.setSong(demo, 'song-1', 'meter', { beats: 3, unit: 4 });
    const show = over(meter, commands.setSong(demo, 'song-1', 'meter', { beats: 6, unit: 8 }))!;
    expect(show.songbook.songs['song-1'].meter).toEqual({ beats: 3, unit: 4 });
    const without = commands.setSong(show, 'song-1', 'meter', undefined);
    expect(rebaseSteps(demo, without.steps)).toEqual(
      demo.songbook.songs['song-1'].meter === undefined ? [] : expect.any(Array),
    );
  });
  test('has no place where what it changes is gone', () => {
    expect(over(commands.setSound(demo, 'sound-2', 'name', 'Late'), commands.removeSound(demo, 'sound-2'))).toBeNull();
  });
});
