import type { Smf } from '../midi/smf.ts';
import { cutText } from '../model/shape.ts';
import { type Rows, songColumns } from './csv.ts';

/** What of a MIDI file a songbook does not hold, or could not be told: said when it is taken in. */
export type LeftOut =
  | { readonly what: 'tempo-changes' | 'no-parts'; readonly song: string }
  | { readonly what: 'meter-changes'; readonly song: string }
  | { readonly what: 'bars'; readonly song: string; readonly part: string };

export interface SongsFromMidi {
  /** A table of songs, as `readSongs` takes it. */
  readonly rows: Rows;
  readonly leftOut: readonly LeftOut[];
}

interface Mark {
  readonly tick: number;
  readonly song: string;
  readonly part: string;
}

/**
 * Songs of a standard MIDI file: the tempo and meter that a song begins with, a part at each marker, its bars up to
 * the next. Where every marker reads `song: part`, there are several songs in it (as a set is written); else there is
 * one, called by the first track, or `name` where that says nothing. Notes and messages are not taken in.
 */
export function songsFromMidi(smf: Smf, name: string): SongsFromMidi {
  const events = smf.tracks.flat().sort((a, b) => a.tick - b.tick);
  const markers = events.flatMap((event) => (event.kind === 'marker' ? [event] : []));
  const tempi = events.flatMap((event) => (event.kind === 'tempo' ? [event] : []));
  const meters = events.flatMap((event) => (event.kind === 'meter' ? [event] : []));
  const end = events.reduce((last, event) => Math.max(last, event.tick), 0);
  const called = (smf.tracks[0] ?? []).flatMap((event) => (event.kind === 'name' ? [event.text] : []))[0] ?? '';
  const whole = cleaned(called) || cleaned(name) || 'Song';
  const marks = marksOf(markers, whole);
  const leftOut: LeftOut[] = [];
  const songs = marks.length > 0 ? [...new Set(marks.map((mark) => mark.song))] : [whole];
  const rows = songs.flatMap((song) => {
    const own = marks.filter((mark) => mark.song === song);
    const from = own[0]?.tick ?? 0;
    const until = Math.max(from, own.length > 0 ? endOf(marks, own[own.length - 1], end) : end);
    const tempo = tempi.findLast((event) => event.tick <= from) ?? tempi.find((event) => event.tick < until);
    const meter = meters.findLast((event) => event.tick <= from) ?? meters.find((event) => event.tick < until);
    const isInside = (event: { readonly tick: number }) => event.tick > from && event.tick < until;
    if (tempi.some((event) => isInside(event) && event.microseconds !== tempo?.microseconds))
      leftOut.push({ what: 'tempo-changes', song });
    const changes = meters.some(
      (event) => isInside(event) && (event.beats !== meter?.beats || event.unit !== meter.unit),
    );
    if (changes || (meter && !isSimple(meter))) leftOut.push({ what: 'meter-changes', song });
    if (own.length === 0) leftOut.push({ what: 'no-parts', song });
    const facts = [
      song,
      tempo ? shownTempo(tempo.microseconds) : '',
      meter && isSimple(meter) ? `${meter.beats}/${meter.unit}` : '',
      '',
      '',
    ];
    if (own.length === 0) return [[...facts, '', '', '']];
    return own.map((mark) => {
      const bars = barsFrom(
        smf.ppq,
        changes || (meter && !isSimple(meter)) ? undefined : (meter ?? { beats: 4, unit: 4 }),
        endOf(marks, mark, end) - mark.tick,
      );
      if (bars === null) leftOut.push({ what: 'bars', song, part: mark.part });
      return [...facts, mark.part, bars === null ? '' : String(bars), ''];
    });
  });
  return { rows: [songColumns, ...rows], leftOut };
}

function marksOf(markers: readonly { readonly tick: number; readonly text: string }[], whole: string): readonly Mark[] {
  const split = markers.map(({ tick, text }) => {
    const [, song, part] = /^(.+?): (.+)$/.exec(cleaned(text)) ?? [];
    return { tick, song, part };
  });
  if (split.length > 0 && split.every((mark) => mark.song !== undefined)) return split as Mark[];
  return markers.map(({ tick, text }, i) => ({ tick, song: whole, part: cleaned(text) || `Part ${i + 1}` }));
}

const endOf = (marks: readonly Mark[], mark: Mark, end: number): number => marks[marks.indexOf(mark) + 1]?.tick ?? end;

/**
 * Whole bars; null where they cannot be told. An end that falls short of its bar line (the last event before it) counts
 * as the line.
 */
function barsFrom(
  ppq: number,
  meter: { readonly beats: number; readonly unit: number } | undefined,
  ticks: number,
): number | null {
  if (!meter || ticks <= 0) return null;
  const bars = Math.ceil(ticks / ((meter.beats * ppq * 4) / meter.unit) - 1e-9);
  return bars >= 1 && bars <= 2_000 ? bars : null;
}

const isSimple = (meter: { readonly beats: number; readonly unit: number }): boolean =>
  meter.beats <= 32 && [2, 4, 8, 16].includes(meter.unit);

/** Quarter notes a minute to a hundredth: a file holds whole microseconds a quarter. */
const shownTempo = (microseconds: number): string => String(Math.round(6_000_000_000 / microseconds) / 100);

// eslint-disable-next-line no-control-regex -- taking them out is the point
const controlCharacters = /[\u0000-\u001f\u007f]/g;

/** A name as the songbook can hold it: control characters fall away. */
const cleaned = (text: string): string => cutText(text.replace(controlCharacters, ' ').trim().normalize('NFC'), 200);
