import { describe, expect, test } from '@jest/globals';
import { demoShow, flyShow } from '../demo/demo.ts';
import { starters } from '../starters/starters.ts';
import * as commands from './commands.ts';
import { stepsBetween } from './difference.ts';
import { sameData } from '../units/same-data.ts';
import { applySteps, invertSteps, type Step } from './steps.ts';
import type { Show } from '../model/documents.ts';

const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

describe('the steps between two shows', () => {
  const shows = [demoShow(), flyShow(), ...starters.map((starter) => starter.make('rig', starter.name))].map(
    (show): Show => ({
      rig: { ...show.rig, id: 'rig' },
      songbook: { ...show.songbook, id: 'book' },
    }),
  );

  test('lead from any of them to any other, and back', () => {
    let many = 0;
    for (const from of shows)
      for (const to of shows) {
        const steps = stepsBetween(from, to);
        many += steps.length;
        expect(sameData(applied(from, steps), to)).toBe(true);
        expect(sameData(applied(to, invertSteps(steps)), from)).toBe(true);
      }
    expect(many).toBeGreaterThan(1_000);
  });

  test('are none where nothing differs, the order of keys aside', () => {
    const demo = demoShow();
    expect(
      stepsBetween(demo, {
        rig: Object.fromEntries(Object.entries(demo.rig).reverse()) as unknown as Show['rig'],
        songbook: demo.songbook,
      }),
    ).toEqual([]);
  });

  test('touch only what differs', () => {
    const demo = demoShow();
    const after = applied(demo, [
      ...commands.renameRig(demo, 'Winter').steps,
      ...commands.setDevice(demo, 'echo', 'channel', 9).steps,
      ...commands.removeSound(demo, 'sound-2').steps,
    ]);
    const steps = stepsBetween(after, demo);
    expect(steps.map(({ at }) => at.join('/')).sort()).toEqual(
      stepsBetween(demo, after)
        .map(({ at }) => at.join('/'))
        .sort(),
    );
    expect(steps).toEqual(
      expect.arrayContaining([
        { doc: 'rig', op: 'set', at: ['name'], old: 'Winter', value: demo.rig.name },
        { doc: 'rig', op: 'insert', at: ['sounds', 'sound-2'], value: demo.rig.sounds['sound-2'] },
      ]),
    );
    expect(sameData(applied(after, steps), demo)).toBe(true);
  });

  test('are coarser where fine ones would be too many for a batch', () => {
    const demo = demoShow();
    const presets = Object.fromEntries(
      Array.from({ length: 60 }, (_, i) => [
        `s${i}`,
        { ...demo.rig.sounds['sound-1'], id: `s${i}`, wants: {}, order: `i${String(i).padStart(3, '0')}` },
      ]),
    );
    const many = Object.fromEntries(Array.from({ length: 1_990 }, (_, i) => [`t${i}`, { ...presets.s1, id: `t${i}` }]));
    const other = Object.fromEntries(
      Object.entries(many).map(([id, sound]) => [
        id,
        { ...sound, name: `${sound.name}!`, role: 'solo', silence: !sound.silence },
      ]),
    );
    const bare = {
      ...demo.rig,
      sounds: many,
      slots: {},
      casting: {},
      waivers: {},
      devices: { ...demo.rig.devices, switcher: { ...demo.rig.devices['switcher'], calls: undefined } },
    };
    const steps = stepsBetween({ ...demo, rig: bare as never }, { ...demo, rig: { ...bare, sounds: other } as never });
    expect(steps).toHaveLength(1_990);
    expect(steps.every(({ at }) => at.length === 2)).toBe(true);
  });
});
