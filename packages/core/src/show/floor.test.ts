import { expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import { floorSwitches, footPath, footTravel, songOf } from './floor.ts';

test('switches lie in rows, the first row nearest the player', () => {
  expect(floorSwitches(5, 3, 60)).toEqual([
    { position: 0, x: 0, y: 60 },
    { position: 1, x: 60, y: 60 },
    { position: 2, x: 120, y: 60 },
    { position: 3, x: 0, y: 0 },
    { position: 4, x: 60, y: 0 },
  ]);
});

test('the foot’s way through a song is its parts’ switches, its length in millimetres, bank moves apart', () => {
  const show = demoShow();
  const path = footPath(show, 'song-1', 'switcher');
  expect(path.map((slot) => [slot.bank, slot.position])).toEqual([
    [0, 0],
    [0, 2],
    [0, 4],
  ]);
  expect(footTravel(path, floorSwitches(5, 5, 62))).toEqual({ mm: 248, bankMoves: 0 });
  expect(songOf(show, show.rig.slots['slot-sound-2'])).toBe('song-1');
  expect(songOf(show, null)).toBeNull();
  expect(footPath(show, 'song-1', 'elsewhere')).toEqual([]);
  expect(footTravel([path[0], { ...path[1], bank: 4 }], floorSwitches(5, 5, 62))).toEqual({ mm: 124, bankMoves: 1 });
});
