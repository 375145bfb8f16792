import { describe, expect, test } from '@jest/globals';
import { layOut } from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import { slotOfCast, soundOfCast } from '../model/casting.ts';
import { type Show } from '../model/documents.ts';
import { layBySong } from '../program/layout.ts';
import { setCost } from './set-cost.ts';

const applied = (show: Show, by: 'role' | 'song'): Show => {
  const result = applySteps(show, layOut(show, 'switcher', by)!.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const demo = demoShow();
const bySong = applied(demo, 'song');

describe('by song', () => {
  test('no bank holds two songs, and each song lies in the order of first use', () => {
    const songsIn = new Map<number, Set<string>>();
    const walked = new Map<string, number[]>();
    for (const cast of Object.values(bySong.rig.casting)) {
      const slot = slotOfCast(bySong.rig, cast)!;
      const { song } = bySong.songbook.parts[cast.part];
      songsIn.set(slot.bank, (songsIn.get(slot.bank) ?? new Set()).add(song));
      walked.set(song, [...(walked.get(song) ?? []), slot.bank * 100 + slot.position]);
    }
    expect([...songsIn.values()].every((songs) => songs.size === 1)).toBe(true);
    expect(walked.size).toBeGreaterThan(10);
  });

  test('every part plays the sound that it played, and every sound has a slot', () => {
    const soundOf = ({ rig }: Show) =>
      Object.fromEntries(Object.values(rig.casting).map((cast) => [cast.part, soundOfCast(rig, cast)?.id]));
    expect(soundOf(bySong)).toEqual(soundOf(demo));
    const placed = new Set(Object.values(bySong.rig.slots).map((slot) => slot.sound));
    expect(Object.keys(demo.rig.sounds).filter((id) => !placed.has(id))).toEqual([]);
  });

  test('what is written by hand stays written', () => {
    const hand = (show: Show) =>
      Object.values(show.rig.slots)
        .filter((slot) => slot.actions !== null)
        .map((slot) => slot.sound);
    expect(hand(demo).length).toBeGreaterThan(0);
    expect(new Set(hand(bySong))).toEqual(new Set(hand(demo)));
  });

  test('there and back by role: a slot a sound again, nothing left of the songs’ own', () => {
    const back = applied(bySong, 'role');
    expect(Object.keys(back.rig.slots)).toHaveLength(Object.keys(demo.rig.slots).length);
    expect(new Set(Object.values(back.rig.casting).map((cast) => cast.slot)).size).toBeLessThanOrEqual(
      Object.keys(back.rig.slots).length,
    );
  });

  test('too few banks: says how many it takes, and there is no edit', () => {
    const { switcher } = demo.rig.devices;
    const type = { ...switcher.type, params: { ...switcher.type.params, banks: 3 } };
    const small = { ...demo, rig: { ...demo.rig, devices: { ...demo.rig.devices, switcher: { ...switcher, type } } } };
    const layout = layBySong(small as Show, 'switcher') as { readonly needsBanks: number };
    expect(layout.needsBanks).toBeGreaterThan(3);
    expect(layOut(small as Show, 'switcher', 'song')).toBeNull();
  });

  test('only a controller has switches', () => expect(layBySong(demo, 'echo')).toBeNull());
});

describe('what a layout costs in the set', () => {
  test('by song there is no bank change in mid-song, by role there is none off its role', () => {
    expect(setCost(bySong, 'switcher')).toMatchObject({ hurriedBankMoves: 0, inMidSong: [] });
    expect(setCost(applied(demo, 'role'), 'switcher').mismatches).toBe(0);
  });

  test('a bank change in mid-song is named, and counted as it is in the total', () => {
    const far = Object.values(demo.rig.casting).find((cast) => demo.songbook.parts[cast.part].name === 'chorus')!;
    const slot = slotOfCast(demo.rig, far)!;
    const slots = { ...demo.rig.slots, [slot.id]: { ...slot, bank: 12 } };
    const moved = setCost({ ...demo, rig: { ...demo.rig, slots } }, 'switcher');
    const before = setCost(demo, 'switcher');
    expect(moved.inMidSong.length).toBeGreaterThan(before.inMidSong.length);
    expect(moved.inMidSong.reduce((sum, change) => sum + change.presses, 0)).toBe(moved.hurriedBankMoves);
    const { song } = demo.songbook.parts[far.part];
    expect(moved.inMidSong.map((change) => change.song)).toContain(demo.songbook.songs[song].name);
  });
});
