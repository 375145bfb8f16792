import { describe, expect, test } from '@jest/globals';
import { checkShow } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { repairShow } from './repair.ts';

/** A copy of the demo that somebody spoils. */
function spoilt(spoil: (show: never) => void): Show {
  const copy = JSON.parse(JSON.stringify(demoShow())) as Show;
  spoil(copy as never);
  expect(checkShow(copy).ok).toBe(false);
  return copy;
}

interface Loose {
  rig: {
    name: string;
    settings: { roles: unknown[] };
    casting: Record<string, { slot: string }>;
    sounds: Record<string, Record<string, unknown>>;
    devices: Record<string, { plannedSwitches: unknown[] }>;
  };
  songbook: { songs: Record<string, { name: string }>; setLists: Record<string, { songs: unknown[] }> };
}

describe('a stored show that no longer passes', () => {
  test.each([
    [
      'a control character in a name',
      (show: Loose) => (show.rig.name = 'River\u0007boat'),
      '/rig/name',
      (show: Show) => expect(show.rig.name).toBe('Riverboat'),
    ],
    [
      'half a character in a name',
      (show: Loose) => (show.songbook.songs['song-1'].name = 'Moon \ud83c'),
      '/songbook/songs/song-1/name',
      (show: Show) => expect(show.songbook.songs['song-1'].name).toBe('Moon \uFFFD'),
    ],
    [
      'a name that is nothing but control characters',
      (show: Loose) => (show.rig.name = '\u0000'),
      '/rig/name',
      (show: Show) => expect(show.rig.name).toBe('?'),
    ],
    [
      'a name that grew in composed form',
      (show: Loose) => (show.rig.name = '\u0958'.repeat(200)),
      '/rig/name',
      (show: Show) => expect(show.rig.name).toHaveLength(200),
    ],
    [
      'empty places in a list',
      (show: Loose) => show.rig.settings.roles.push(null, null, 'coda', null),
      '/rig/settings/roles/5',
      (show: Show) => expect(show.rig.settings.roles).toEqual([...demoShow().rig.settings.roles, 'coda']),
    ],
    [
      'an empty place in a set list',
      (show: Loose) => (show.songbook.setLists.set.songs[0] = null),
      '/songbook/setLists/set/songs/0',
      (show: Show) => expect(show.songbook.setLists.set.songs).toEqual(demoShow().songbook.setLists.set.songs.slice(1)),
    ],
    [
      'a field that is unknown',
      (show: Loose) => (show.rig.sounds['sound-1'].mood = 'blue'),
      '/rig/sounds/sound-1/mood',
      (show: Show) => expect(show.rig.sounds['sound-1']).toEqual(demoShow().rig.sounds['sound-1']),
    ],
    [
      'a cast to a slot that is gone',
      (show: Loose) => (show.rig.casting['part-1'].slot = 'nowhere'),
      '/rig/casting/part-1/slot',
      (show: Show) => expect(show.rig.casting['part-1']).toBeUndefined(),
    ],
  ])('%s is mended, and nothing else', (_, spoil, place, expected) => {
    const stored = spoilt(spoil as never);
    const before = JSON.stringify(stored);
    const repaired = repairShow(stored)!;
    expect(checkShow(repaired.show).ok).toBe(true);
    expect(repaired.places).toContain(place);
    expected(repaired.show);
    expect(JSON.stringify(stored)).toBe(before);
  });

  test('several faults at once', () => {
    const repaired = repairShow(
      spoilt(((show: Loose) => {
        show.rig.name = 'a\u0001';
        show.rig.settings.roles.unshift(null);
        show.rig.devices['switcher'].plannedSwitches.push(null);
        show.rig.sounds['sound-1'].x = 1;
      }) as never),
    )!;
    expect(repaired.show).toEqual({ ...demoShow(), rig: { ...demoShow().rig, name: 'a' } });
  });

  test('is given back as it is where it passes, and not at all where there is no way', () => {
    const demo = demoShow();
    expect(repairShow(demo)).toEqual({ show: demo, places: [] });
    expect(repairShow(spoilt(((show: { rig: { devices: unknown } }) => (show.rig.devices = 7)) as never))).toBeNull();
    expect(
      repairShow(
        spoilt(
          ((show: { rig: { sounds: Record<string, { order: unknown }> } }) =>
            (show.rig.sounds['sound-1'].order = 4)) as never,
        ),
      ),
    ).toBeNull();
  });
});
