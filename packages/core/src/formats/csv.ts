import { between } from '../change/order.ts';
import { castSteps, type Command, playsSound } from '../change/commands.ts';
import type { Step } from '../change/steps.ts';
import { soundOfCast } from '../model/casting.ts';
import { castOf, inOrder, type Show } from '../model/documents.ts';
import { type Part, type Song } from '../model/songbook.ts';
import { chosenSetList } from '../model/set-order.ts';
import type { Sheet } from '../paper/sheet.ts';
import { accept, problem, type Problem, refuse, type Result } from '../units/problem.ts';

/** Rows of a table file as a general parser gives them: line numbers start at 1, the header is line 1. */
export type Rows = readonly (readonly string[])[];

/** Past these a file is refused whole. */
export const csvLimits = { bytes: 2_000_000, rows: 12_000 } as const;

export const songColumns = ['song', 'tempo', 'meter', 'instrument', 'tuning', 'part', 'bars', 'plays'] as const;
type SongColumn = (typeof songColumns)[number];

/** A cell that a spreadsheet would take for a formula is written with an apostrophe before it. */
const defused = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);
const plain = (cell: string): string => (/^'[=+\-@]/.test(cell) ? cell.slice(1) : cell).trim().normalize('NFC');

const quoted = (cell: string): string =>
  /[",\r\n]/.test(cell) || cell !== cell.trim() ? `"${cell.replaceAll('"', '""')}"` : cell;

/** RFC 4180, comma, CRLF. */
export const writeRows = (rows: Rows): string =>
  rows.map((row) => row.map((cell) => quoted(defused(cell))).join(',')).join('\r\n') + '\r\n';

/** One row a part; a song without parts has a row of its own. */
export function songRows(show: Show): Rows {
  const { songbook, rig } = show;
  const parts = inOrder(songbook.parts);
  return [
    songColumns,
    ...inOrder(songbook.songs).flatMap((song) => {
      const facts = [
        song.name,
        song.tempo === null ? '' : String(song.tempo),
        song.meter ? `${song.meter.beats}/${song.meter.unit}` : '',
        song.instrument ?? '',
        song.tuning ?? '',
      ];
      const own = parts.filter((part) => part.song === song.id);
      if (own.length === 0) return [[...facts, '', '', '']];
      return own.map((part) => {
        const cast = castOf(rig, part.id);
        return [
          ...facts,
          part.name,
          part.bars === undefined ? '' : String(part.bars),
          (cast && soundOfCast(rig, cast)?.name) ?? '',
        ];
      });
    }),
  ];
}

export const setListRows = (show: Show, list: string): Rows => [
  ['position', 'song'],
  ...show.songbook.setLists[list].songs.map((song, i) => [String(i + 1), show.songbook.songs[song].name]),
];

/** Any sheet: its groups become a first column. */
export const sheetRows = (sheet: Sheet): Rows => [
  ['group', ...sheet.columns],
  ...sheet.groups.flatMap((group) => group.lines.map((line) => [group.heading, ...line.cells])),
];

const at = (line: number, column: string): string => `/line/${line}/${column}`;

function headerOf<C extends string>(
  rows: Rows,
  needed: readonly C[],
  known: readonly C[],
): Result<ReadonlyMap<C, number>> {
  if (rows.length > csvLimits.rows)
    return refuse(problem('', 'too-large', { count: rows.length, limit: csvLimits.rows }));
  const names = (rows[0] ?? []).map((cell) =>
    plain(cell)
      .toLowerCase()
      .replace(/^\uFEFF/, ''),
  );
  const columns = new Map<C, number>();
  const problems: Problem[] = [];
  names.forEach((name, i) => {
    if (name === '') return;
    if (!known.includes(name as C))
      problems.push(problem(at(1, name.slice(0, 40)), 'unknown-field', { field: name.slice(0, 40) }));
    else if (columns.has(name as C)) problems.push(problem(at(1, name), 'duplicate', { what: 'column', id: name }));
    else columns.set(name as C, i);
  });
  for (const name of needed)
    if (!columns.has(name)) problems.push(problem(at(1, name), 'missing-field', { field: name }));
  return problems.length > 0 ? refuse(...problems) : accept(columns);
}

interface ReadSong {
  readonly line: number;
  readonly song: Omit<Song, 'id' | 'order'>;
  readonly parts: { readonly line: number; readonly name: string; readonly bars?: number; readonly plays: string }[];
}

/**
 * Songs with their parts, as one edit: a song of the same name is brought up to date, its parts by name too; nothing
 * is taken away. Refused whole, each place and reason told, where a row cannot be. `freshId` names what is new.
 */
export function readSongs(
  show: Show,
  rows: Rows,
  freshId: (name: string, taken: ReadonlySet<string>) => string,
): Result<Command> {
  const header = headerOf<SongColumn>(rows, ['song'], songColumns);
  if (!header.ok) return header;
  const problems: Problem[] = [];
  const read = new Map<string, ReadSong>();
  rows.slice(1).forEach((row, i) => {
    const line = i + 2;
    if (row.every((cell) => plain(cell) === '')) return;
    const cell = (column: SongColumn): string => plain(row[header.value.get(column) ?? -1] ?? '');
    if (row.length > (rows[0]?.length ?? 0) && row.slice(rows[0].length).some((extra) => plain(extra) !== ''))
      problems.push(
        problem(at(line, 'song'), 'wrong-type', {
          expected: `at most ${rows[0].length} cells; a quote may be missing`,
        }),
      );
    const name = cell('song');
    if (name === '' || name.length > 200)
      return void problems.push(
        problem(at(line, 'song'), 'wrong-type', { expected: 'a song’s name, 1 to 200 letters' }),
      );
    const known = read.get(name.toLowerCase());
    const facts = songFacts(name, cell, line, problems);
    if (!known) read.set(name.toLowerCase(), { line, song: facts, parts: [] });
    else if (JSON.stringify(known.song) !== JSON.stringify(facts))
      problems.push(problem(at(line, 'song'), 'duplicate', { what: 'song with other facts', id: name }));
    const part = cell('part');
    if (part === '') return;
    if (part.length > 200) problems.push(problem(at(line, 'part'), 'too-large', { count: part.length, limit: 200 }));
    const bars = numberOf(cell('bars'), 1, 2_000, true, at(line, 'bars'), problems);
    read
      .get(name.toLowerCase())!
      .parts.push({ line, name: part, ...(bars === null ? {} : { bars }), plays: cell('plays') });
  });
  const steps = problems.length > 0 ? [] : songSteps(show, [...read.values()], freshId, problems);
  return problems.length > 0
    ? refuse(...problems.slice(0, 20))
    : accept({ command: { name: 'import-songs', facts: { count: read.size } }, steps });
}

function songFacts(
  name: string,
  cell: (column: SongColumn) => string,
  line: number,
  problems: Problem[],
): Omit<Song, 'id' | 'order'> {
  const tempo = numberOf(cell('tempo'), 20, 400, false, at(line, 'tempo'), problems);
  const meter = /^(\d{1,2})\s*\/\s*(2|4|8|16)$/.exec(cell('meter'));
  if (cell('meter') !== '' && (!meter || Number(meter[1]) < 1 || Number(meter[1]) > 32))
    problems.push(problem(at(line, 'meter'), 'wrong-type', { expected: 'a meter such as 4/4 or 6/8' }));
  for (const column of ['instrument', 'tuning'] as const)
    if (cell(column).length > 80)
      problems.push(problem(at(line, column), 'too-large', { count: cell(column).length, limit: 80 }));
  return {
    name,
    tempo,
    ...(meter ? { meter: { beats: Number(meter[1]), unit: Number(meter[2]) as 2 | 4 | 8 | 16 } } : {}),
    ...(cell('instrument') === '' ? {} : { instrument: cell('instrument') }),
    ...(cell('tuning') === '' ? {} : { tuning: cell('tuning') }),
  };
}

/** A decimal comma is a comma too. */
function numberOf(
  text: string,
  min: number,
  max: number,
  whole: boolean,
  where: string,
  problems: Problem[],
): number | null {
  if (text === '') return null;
  const value = Number(text.replace(',', '.'));
  if (!Number.isFinite(value) || (whole && !Number.isInteger(value)))
    problems.push(problem(where, 'wrong-type', { expected: whole ? 'a whole number' : 'a number' }));
  else if (value < min || value > max)
    problems.push(problem(where, 'out-of-domain', { value, expected: `${min} to ${max}` }));
  else return value;
  return null;
}

function songSteps(
  show: Show,
  songs: readonly ReadSong[],
  freshId: (name: string, taken: ReadonlySet<string>) => string,
  problems: Problem[],
): Step[] {
  const { songbook, rig } = show;
  const steps: Step[] = [];
  const taken = new Set([...Object.keys(songbook.songs), ...Object.keys(songbook.parts), ...Object.keys(rig.casting)]);
  const fresh = (name: string): string => {
    const id = freshId(name, taken);
    taken.add(id);
    return id;
  };
  let songOrder = inOrder(songbook.songs).at(-1)?.order ?? null;
  let partOrder = inOrder(songbook.parts).at(-1)?.order ?? null;
  const newSongs: string[] = [];
  const met = new Set<string>();
  for (const { song, parts } of songs) {
    const old = Object.values(songbook.songs).find((listed) => listed.name.toLowerCase() === song.name.toLowerCase());
    const id = old?.id ?? fresh(song.name);
    if (old) steps.push(...changes('songbook', ['songs', id], old, song));
    else {
      songOrder = between(songOrder, null);
      newSongs.push(id);
      steps.push({
        doc: 'songbook',
        op: 'insert',
        at: ['songs', id],
        value: { id, order: songOrder, ...song } satisfies Song,
      });
    }
    for (const part of parts) {
      // The second chorus of the file is the second one of the song.
      const known = inOrder(songbook.parts).find(
        (listed) => listed.song === id && listed.name.toLowerCase() === part.name.toLowerCase() && !met.has(listed.id),
      );
      if (known) met.add(known.id);
      const partId = known?.id ?? fresh(`${song.name} ${part.name}`);
      if (known)
        steps.push(
          ...changes('songbook', ['parts', partId], known, part.bars === undefined ? {} : { bars: part.bars }),
        );
      else {
        partOrder = between(partOrder, null);
        steps.push({
          doc: 'songbook',
          op: 'insert',
          at: ['parts', partId],
          value: {
            id: partId,
            song: id,
            name: part.name,
            order: partOrder,
            ...(part.bars === undefined ? {} : { bars: part.bars }),
          } satisfies Part,
        });
      }
      if (part.plays !== '') steps.push(...playedSteps(show, partId, part.plays, part.line, problems));
    }
  }
  const list = chosenSetList(show);
  if (newSongs.length > 0)
    steps.push(
      list
        ? {
            doc: 'songbook',
            op: 'set',
            at: ['setLists', list.id, 'songs'],
            value: [...list.songs, ...newSongs],
            old: list.songs,
          }
        : {
            doc: 'songbook',
            op: 'insert',
            at: ['setLists', 'set'],
            value: { id: 'set', name: 'Set', order: 'i', songs: newSongs },
          },
    );
  return steps;
}

/** Fields that differ, each as a step; what the file does not say stays. */
function changes(doc: Step['doc'], where: readonly string[], old: object, next: object): Step[] {
  return Object.entries(next).flatMap(([field, value]): Step[] => {
    const before = (old as Record<string, unknown>)[field];
    if (JSON.stringify(before) === JSON.stringify(value) || (field === 'tempo' && value === null) || field === 'name')
      return [];
    return [{ doc, op: 'set', at: [...where, field], value, ...(before === undefined ? {} : { old: before }) }];
  });
}

function playedSteps(show: Show, part: string, plays: string, line: number, problems: Problem[]): Step[] {
  const { rig } = show;
  const sound = Object.values(rig.sounds).find((sound) => sound.name.toLowerCase() === plays.toLowerCase());
  if (!sound) {
    problems.push(problem(at(line, 'plays'), 'not-found', { what: 'sound', id: plays.slice(0, 80) }));
    return [];
  }
  const old = castOf(rig, part);
  if (old && soundOfCast(rig, old)?.id === sound.id) return [];
  return castSteps(rig, part, playsSound(rig, sound.id));
}

/** A set list by its songs' names, as one edit: replaces the songs of the list that is named, or makes it. */
export function readSetList(
  show: Show,
  rows: Rows,
  list: { readonly id: string; readonly name: string },
): Result<Command> {
  const header = headerOf<'position' | 'song'>(rows, ['song'], ['position', 'song']);
  if (!header.ok) return header;
  const problems: Problem[] = [];
  const entries = rows.slice(1).flatMap((row, i) => {
    const cell = (column: 'position' | 'song'): string => plain(row[header.value.get(column) ?? -1] ?? '');
    const name = cell('song');
    if (name === '') return [];
    const song = Object.values(show.songbook.songs).find((song) => song.name.toLowerCase() === name.toLowerCase());
    if (!song) problems.push(problem(at(i + 2, 'song'), 'not-found', { what: 'song', id: name.slice(0, 80) }));
    const position =
      cell('position') === '' ? i + 1 : numberOf(cell('position'), 0, 100_000, false, at(i + 2, 'position'), problems);
    return song ? [{ position: position ?? 0, id: song.id }] : [];
  });
  if (problems.length > 0) return refuse(...problems.slice(0, 20));
  const songs = entries
    .map((entry, i) => ({ ...entry, i }))
    .sort((a, b) => a.position - b.position || a.i - b.i)
    .map((entry) => entry.id);
  if (new Set(songs).size !== songs.length)
    return refuse(
      problem('', 'duplicate', {
        what: 'song',
        id: show.songbook.songs[songs.find((id, i) => songs.indexOf(id) !== i)!].name,
      }),
    );
  const old = Object.hasOwn(show.songbook.setLists, list.id) ? show.songbook.setLists[list.id] : undefined;
  const step: Step = old
    ? { doc: 'songbook', op: 'set', at: ['setLists', list.id, 'songs'], value: songs, old: old.songs }
    : {
        doc: 'songbook',
        op: 'insert',
        at: ['setLists', list.id],
        value: {
          id: list.id,
          name: list.name,
          order: between(inOrder(show.songbook.setLists).at(-1)?.order ?? null, null),
          songs,
        },
      };
  return accept({ command: { name: 'import-set-list', facts: { list: old?.name ?? list.name } }, steps: [step] });
}
