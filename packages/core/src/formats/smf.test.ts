import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { placer, type Smf } from '../midi/smf.ts';
import { buildWiring } from '../model/wiring.ts';
import type { Show } from '../model/documents.ts';
import { setFile, songFile } from '../show/song-midi.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { compareReference, type ReferenceFile } from '../testing/reference.ts';
import { readSmf, writeSmf } from './smf.ts';

const reference = JSON.parse(
  readFileSync(new URL('../../fixtures/midi-files.json', import.meta.url), 'utf8'),
) as ReferenceFile;
const cases = reference.topics['10d_smf'].cases as readonly {
  readonly id: string;
  readonly inputs: { readonly hex: string; readonly running_status_in_file: boolean };
}[];
const bytesOf = (hex: string): Uint8Array => Uint8Array.from(hex.match(/../g)!, (pair) => Number.parseInt(pair, 16));
const read = (bytes: Uint8Array): Smf => {
  const result = readSmf(bytes);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

function show(facts: { tempo?: number | null; bars?: number; calls?: boolean } = {}): Show {
  const { show: made } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const { songbook, rig } = made;
  const parts = Object.fromEntries(
    Object.values(songbook.parts).map((part) => [
      part.id,
      { ...part, ...(facts.bars === undefined ? {} : { bars: facts.bars }) },
    ]),
  );
  const switcher = {
    ...rig.devices.switcher,
    ...(facts.calls ? { calls: { channel: 16, programs: { '7': 'slot-lead' } } } : {}),
  };
  return {
    rig: { ...rig, devices: { ...rig.devices, switcher } },
    songbook: {
      ...songbook,
      songs: { song: { ...songbook.songs.song, tempo: facts.tempo === undefined ? 120 : facts.tempo } },
      parts,
    },
  };
}

describe('standard MIDI files', () => {
  test('clock, delay times and files are as the outside tools computed them', () => {
    // Sources: Python fractions (10b, 10c); midicsv and an own byte writer (10d).
    expect(compareReference(reference)).toEqual([]);
  });

  test.each(cases)('$id is written again to the same bytes', ({ inputs }) => {
    const again = writeSmf(read(bytesOf(inputs.hex)), { runningStatus: inputs.running_status_in_file });
    expect(Buffer.from(again).toString('hex')).toBe(inputs.hex);
  });

  test('an independent reader (midi-file) finds in a song’s file what was put there', () => {
    const file = songFile(show({ bars: 4 }), buildWiring(show().rig), 'song');
    const parsed = parseMidi(writeSmf(file.smf));
    expect(parsed.header).toMatchObject({ format: 1, numTracks: 2, ticksPerBeat: 480 });
    const events = (track: number) => {
      let tick = 0;
      return parsed.tracks[track].map((event) => ({ ...event, tick: (tick += event.deltaTime) }));
    };
    expect(
      events(0)
        .filter((event) => event.type === 'marker')
        .map((event) => [event.tick, (event as { text: string }).text]),
    ).toEqual([
      [0, 'lead'],
      [4 * 4 * 480, 'clean'],
    ]);
    expect(events(0).find((event) => event.type === 'setTempo')).toMatchObject({ microsecondsPerBeat: 500_000 });
    const sent = events(1).filter((event) => 'channel' in event);
    expect(sent.map((event) => event.type)).toEqual(['programChange', 'controller', 'controller']);
    expect(sent[0]).toMatchObject({ channel: 1, programNumber: 5, tick: 0 });
    // 20 ms of loading at 120 BPM and 480 ticks a quarter are 19.2 ticks; the message after it leaves no earlier.
    expect(sent[1].tick).toBeGreaterThanOrEqual(19);
    expect(parsed.tracks.map((track) => track.at(-1)!.type)).toEqual(['endOfTrack', 'endOfTrack']);
  });

  test('the state of a part has settled at its bar line, load time and wire included', () => {
    const two = show({ bars: 2 });
    const casting = { ...two.rig.casting, 'part-clean': { ...two.rig.casting['part-clean'], slot: 'slot-lead' } };
    const { smf } = songFile({ ...two, rig: { ...two.rig, casting } }, buildWiring(two.rig), 'song');
    const place = placer(smf);
    const bar = 2 * 4 * 480;
    const ahead = smf.tracks[1].filter((event) => event.kind === 'message' && event.tick > 480 && event.tick <= bar);
    const program = ahead.find((event) => event.kind === 'message' && event.message.kind === 'program')!;
    // Program change 2 bytes, 20 ms loading, control change 3 bytes: 20 ms + 5 × 0.32 ms.
    expect((place(bar).seconds - place(program.tick).seconds) * 1000).toBeGreaterThanOrEqual(21.6);
    expect((place(bar).seconds - place(program.tick).seconds) * 1000).toBeLessThan(25);
  });

  test('what was assumed is told: tempo, bars, and loops that no message can move', () => {
    const { assumed } = songFile(show({ tempo: null }), buildWiring(show().rig), 'song');
    expect(assumed.map((assumed) => assumed.what)).toEqual(['tempo', 'by-foot', 'bars', 'by-foot', 'bars']);
  });

  test('a switcher that can be called is called, and does the rest itself', () => {
    const called = show({ bars: 4, calls: true });
    const { smf, assumed } = songFile(called, buildWiring(called.rig), 'song');
    const messages = smf.tracks[1].flatMap((event) => (event.kind === 'message' ? [event.message] : []));
    expect(messages[0]).toEqual({ kind: 'program', channel: 16, program: 7 });
    expect(assumed.filter((assumed) => assumed.what === 'by-foot')).toHaveLength(1);
  });

  test('a set puts song after song, each with its tempo', () => {
    const item = show({ bars: 4 });
    const songs = {
      ...item.songbook.songs,
      second: { id: 'second', name: 'Second', order: 'z', tempo: 90, meter: { beats: 6, unit: 8 as const } },
    };
    const parts = { ...item.songbook.parts, x: { id: 'x', song: 'second', name: 'all', order: 'z', bars: 2 } };
    const { smf } = setFile(
      {
        ...item,
        songbook: {
          ...item.songbook,
          songs,
          parts,
          setLists: { set: { id: 'set', name: 'Tonight', order: 'b', songs: ['song', 'second'] } },
        },
      },
      buildWiring(item.rig),
    );
    const conductor = smf.tracks[0];
    expect(conductor.filter((event) => event.kind === 'tempo').map((event) => event.tick)).toEqual([
      0,
      2 * 4 * 4 * 480,
    ]);
    expect(
      conductor.filter((event) => event.kind === 'marker').map((event) => event.kind === 'marker' && event.text),
    ).toEqual(['Song: lead', 'Song: clean', 'Second: all']);
    expect(placer(smf)(conductor.at(-1)!.tick)).toMatchObject({ bar: 11, beat: 1 });
  });
});

describe('files of unknown origin', () => {
  const whole = bytesOf(cases[0].inputs.hex);
  test('cut off at any byte, a file is refused with the place', () => {
    for (let length = 0; length < whole.length; length += 1) {
      const result = readSmf(whole.subarray(0, length));
      expect([length, result.ok]).toEqual([length, false]);
      if (!result.ok) expect(result.problems[0].pointer).toMatch(/^\/byte\/\d+$/);
    }
  });
  test('any bytes are read or refused, never worse', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => typeof readSmf(bytes).ok === 'boolean'),
      { seed: 10, numRuns: 300 },
    );
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(255), (at, value) => {
        const bytes = Uint8Array.from(whole);
        bytes[at] = value;
        const result = readSmf(bytes);
        return result.ok ? result.value.tracks.length >= 0 : result.problems.length > 0;
      }),
      { seed: 11, numRuns: 500 },
    );
  });
  test('a track that claims four gigabytes, and a length of five bytes, are refused at once', () => {
    expect(readSmf(bytesOf('4d546864000000060000000101e04d54726bffffffff')).ok).toBe(false);
    expect(readSmf(bytesOf('4d546864000000060000000101e04d54726b000000068080808080ff')).ok).toBe(false);
  });
  test('what is written is read back the same', () => {
    const message = fc.oneof(
      fc.record({
        kind: fc.constant('program' as const),
        channel: fc.integer({ min: 1, max: 16 }),
        program: fc.integer({ min: 0, max: 127 }),
      }),
      fc.record({
        kind: fc.constant('control' as const),
        channel: fc.integer({ min: 1, max: 16 }),
        cc: fc.integer({ min: 0, max: 127 }),
        value: fc.integer({ min: 0, max: 127 }),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(100_000), message), { maxLength: 40 }),
        fc.string({ maxLength: 30 }),
        fc.boolean(),
        (list, name, runningStatus) => {
          let tick = 0;
          const track = [
            { tick: 0, kind: 'name' as const, text: name },
            ...list.map(([after, one]) => ({ tick: (tick += after), kind: 'message' as const, message: one })),
            { tick, kind: 'end' as const },
          ];
          const smf: Smf = { format: 0, ppq: 480, tracks: [track] };
          expect(readSmf(writeSmf(smf, { runningStatus }))).toEqual({ ok: true, value: smf });
        },
      ),
      { seed: 12, numRuns: 100 },
    );
  });
});
