import { describe, expect, test } from '@jest/globals';
import { writeMidi } from 'midi-file';
import { applySteps } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import type { Smf } from '../midi/smf.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { buildWiring } from '../model/wiring.ts';
import { setFile } from '../show/song-midi.ts';
import { fourCable } from '../testing/build-show.ts';
import { readSongs } from './csv.ts';
import { readSmf, writeSmf } from './smf.ts';
import { songsFromMidi } from './songs-from-midi.ts';

/** A file as an independent writer (midi-file) makes it. */
function file(events: readonly object[], name = ''): Smf {
  const bytes = Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
      tracks: [[...(name ? [{ deltaTime: 0, meta: true, type: 'trackName', text: name }] : []), ...events] as never],
    }),
  );
  const read = readSmf(bytes);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}
const tempo = (microsecondsPerBeat: number, deltaTime = 0) => ({
  deltaTime,
  meta: true,
  type: 'setTempo',
  microsecondsPerBeat,
});
const meter = (numerator: number, denominator: number, deltaTime = 0) => ({
  deltaTime,
  meta: true,
  type: 'timeSignature',
  numerator,
  denominator,
  metronome: 24,
  thirtyseconds: 8,
});
const marker = (text: string, deltaTime = 0) => ({ deltaTime, meta: true, type: 'marker', text });
const end = (deltaTime = 0) => ({ deltaTime, meta: true, type: 'endOfTrack' });
const bar = 4 * 480;

describe('songs of a MIDI file', () => {
  test('its name, its first tempo and meter, a part at each marker with the bars up to the next', () => {
    const { rows, leftOut } = songsFromMidi(
      file([tempo(500_000), meter(4, 4), marker('Verse'), marker('Chorus', 8 * bar), end(4 * bar)], 'Low Tide'),
      'file',
    );
    expect(rows.slice(1)).toEqual([
      ['Low Tide', '120', '4/4', '', '', 'Verse', '8', ''],
      ['Low Tide', '120', '4/4', '', '', 'Chorus', '4', ''],
    ]);
    expect(leftOut).toEqual([]);
  });
  // A quarter is 480 ticks, so a bar of 6/8 is six eighths of 240.
  test.each([
    ['6/8', meter(6, 8), 6 * 240, '3'],
    ['7/16', meter(7, 16), 7 * 120, '3'],
    ['4/4 where none is told', null, bar, '3'],
  ])('bars are counted in %s', (_, signature, ticks, bars) => {
    expect(
      songsFromMidi(file([...(signature ? [signature] : []), marker('Intro'), end(3 * ticks)]), 'Song').rows[1][6],
    ).toBe(bars);
  });
  test('an end short of its bar line counts as the line', () => {
    expect(songsFromMidi(file([marker('Intro'), end(3 * bar - 10)]), 'Song').rows[1][6]).toBe('3');
  });
  test('without a name it is called as the file is; without markers it has no parts; without a tempo none is invented', () => {
    const { rows, leftOut } = songsFromMidi(file([end(bar)]), 'harbour light');
    expect(rows.slice(1)).toEqual([['harbour light', '', '', '', '', '', '', '']]);
    expect(leftOut).toEqual([{ what: 'no-parts', song: 'harbour light' }]);
  });
  test('a tempo or a meter that changes inside the song is told, and bars are not counted across meters', () => {
    const { rows, leftOut } = songsFromMidi(
      file([tempo(500_000), meter(4, 4), marker('A'), tempo(400_000, bar), meter(3, 4), marker('B'), end(bar)]),
      'Song',
    );
    expect(leftOut.map((leftOut) => leftOut.what)).toEqual(['tempo-changes', 'meter-changes', 'bars', 'bars']);
    expect(rows.slice(1).map((row) => [row[1], row[5], row[6]])).toEqual([
      ['120', 'A', ''],
      ['120', 'B', ''],
    ]);
  });
  test('control characters and empty markers come in as something that can be read', () => {
    expect(
      songsFromMidi(file([marker('a\u0007b'), marker('', bar), end(bar)], ' \u0000 '), 'Song')
        .rows.slice(1)
        .map((row) => [row[0], row[5]]),
    ).toEqual([
      ['Song', 'a b'],
      ['Song', 'Part 2'],
    ]);
  });
});

describe('a set written by us', () => {
  const taken = (show: Show, into: Show): Show => {
    const smf = readSmf(writeSmf(setFile(show, buildWiring(show.rig)).smf));
    if (!smf.ok) throw new Error('not read');
    const command = readSongs(into, songsFromMidi(smf.value, 'set').rows, (name, ids) => {
      const base = name.toLowerCase().replace(/[^a-z0-9]+/g, '-');
      let id = base;
      for (let i = 2; ids.has(id); i += 1) id = `${base}-${i}`;
      return id;
    });
    if (!command.ok) throw new Error(JSON.stringify(command.problems));
    const result = applySteps(into, command.value.steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    return result.value;
  };
  /** The demo with a tempo for every song: where none is known, a file says 120. */
  const demo = ((): Show => {
    const { rig, songbook } = demoShow();
    return {
      rig,
      songbook: {
        ...songbook,
        songs: Object.fromEntries(
          Object.values(songbook.songs).map((song) => [song.id, { ...song, tempo: song.tempo ?? 96 }]),
        ),
      },
    };
  })();
  const songsIn = (show: Show) =>
    inOrder(show.songbook.songs).map((song) => [
      song.name,
      song.tempo,
      song.meter ?? { beats: 4, unit: 4 },
      inOrder(show.songbook.parts)
        .filter((part) => part.song === song.id)
        .map((part) => [part.name, part.bars]),
    ]);

  test('comes into an empty rig with the same songs, tempi, meters, parts and bars, in the order of the set', () => {
    const list = demo.songbook.setLists[Object.keys(demo.songbook.setLists)[0]];
    const into = taken(demo, fourCable().show);
    const expected = new Map(songsIn(demo).map((song) => [song[0], song]));
    const came = songsIn(into).filter(([name]) => expected.has(name));
    expect(came.length).toBe(new Set(list.songs).size);
    for (const song of came) expect(song).toEqual(expected.get(song[0]));
  });
  test('comes into its own rig and changes nothing', () => {
    expect(songsIn(taken(demo, demo))).toEqual(songsIn(demo));
  });
});
