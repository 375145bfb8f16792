import { describe, expect, test } from '@jest/globals';
import { applySteps } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { emptyShow } from '../starters/empty.ts';
import { csvLimits, readSetList, readSongs, setListRows, songColumns, songRows, writeRows } from './csv.ts';

const fresh = (name: string, taken: ReadonlySet<string>): string => {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  for (let n = 1; ; n += 1) if (!taken.has(n === 1 ? plain : `${plain}-${n}`)) return n === 1 ? plain : `${plain}-${n}`;
};
const start = (): Show => fourCable().sound('lead', lead).sound('clean', clean).laid().show;
const taken = (show: Show, rows: readonly (readonly string[])[]): Show => {
  const read = readSongs(show, rows, fresh);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const result = applySteps(show, read.value.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const problemsOf = (show: Show, rows: readonly (readonly string[])[]) => {
  const read = readSongs(show, rows, fresh);
  return read.ok ? [] : read.problems.map((problem) => [problem.pointer, problem.code]);
};
const rows: readonly (readonly string[])[] = [
  [...songColumns],
  ['Long Wharf', '96,5', '6/8', 'Baritone', 'B standard', 'verse', '16', 'Clean'],
  ['Long Wharf', '96,5', '6/8', 'Baritone', 'B standard', 'refrain', '', 'Lead'],
  ['Tide Table', '', '', '', '', '', '', ''],
];

describe('songs as a table', () => {
  test('a part that is too long is refused at its line, and never cut inside a character', () => {
    const part = `${'a'.repeat(199)}🎸`;
    expect(problemsOf(start(), [[...songColumns], ['Moon', '', '', '', '', part, '', '']])).toEqual([
      ['/line/2/part', 'too-large'],
    ]);
    const fits = taken(start(), [[...songColumns], ['Moon', '', '', '', '', '🎸'.repeat(100), '', '']]);
    expect(Object.values(fits.songbook.parts).some(({ name }) => name === '🎸'.repeat(100))).toBe(true);
  });

  test('come in as one edit: songs, parts, meters, casting, and the end of the set list', () => {
    const show = taken(start(), rows);
    expect(show.songbook.songs['long-wharf']).toMatchObject({
      name: 'Long Wharf',
      tempo: 96.5,
      meter: { beats: 6, unit: 8 },
      instrument: 'Baritone',
      tuning: 'B standard',
    });
    expect(show.songbook.parts['long-wharf-verse']).toMatchObject({ bars: 16, song: 'long-wharf' });
    expect(show.rig.casting['long-wharf-refrain'].slot).toBe('slot-lead');
    expect(show.songbook.setLists.set.songs).toEqual(['song', 'long-wharf', 'tide-table']);
  });

  test('what is written comes back as the same show, into an empty one too as far as songs go', () => {
    const show = taken(start(), rows);
    expect(taken(show, songRows(show))).toEqual(show);
    const bare = taken(
      emptyShow('x', 'X'),
      songRows(show).map((row, i) => (i === 0 ? row : [...row.slice(0, 7), ''])),
    );
    expect(songRows(bare).map((row) => row.slice(0, 7))).toEqual(songRows(show).map((row) => row.slice(0, 7)));
  });

  test('a song of the same name is brought up to date, nothing is taken away', () => {
    const show = taken(taken(start(), rows), [
      ['song', 'tempo'],
      ['long wharf', '100'],
      ['Song', ''],
    ]);
    expect(show.songbook.songs['long-wharf']).toMatchObject({ name: 'Long Wharf', tempo: 100, instrument: 'Baritone' });
    expect(Object.keys(show.songbook.parts)).toHaveLength(4);
  });

  test('wrong columns, values, sounds and quotes are refused whole, each with line and column', () => {
    const show = start();
    expect(problemsOf(show, [['title', 'song', 'song']])).toEqual([
      ['/line/1/title', 'unknown-field'],
      ['/line/1/song', 'duplicate'],
    ]);
    expect(problemsOf(show, [['tempo'], ['120']])).toEqual([['/line/1/song', 'missing-field']]);
    expect(problemsOf(show, [])).toEqual([['/line/1/song', 'missing-field']]);
    expect(
      problemsOf(show, [
        ['song', 'tempo', 'meter', 'part', 'bars'],
        ['A', 'fast', '4/4', '', ''],
        ['B', '900', '4/5', 'x', '1.5'],
        ['', '120', '', '', ''],
      ]),
    ).toEqual([
      ['/line/2/tempo', 'wrong-type'],
      ['/line/3/tempo', 'out-of-domain'],
      ['/line/3/meter', 'wrong-type'],
      ['/line/3/bars', 'wrong-type'],
      ['/line/4/song', 'wrong-type'],
    ]);
    expect(
      problemsOf(show, [
        ['song', 'part', 'plays'],
        ['A', 'x', 'Nowhere'],
      ]),
    ).toEqual([['/line/2/plays', 'not-found']]);
    expect(problemsOf(show, [['song'], ['A', 'B', 'C']])).toEqual([['/line/2/song', 'wrong-type']]);
    expect(
      problemsOf(show, [
        ['song', 'tempo'],
        ['A', '100'],
        ['A', '110'],
      ]),
    ).toEqual([['/line/3/song', 'duplicate']]);
    expect(
      problemsOf(
        show,
        Array.from({ length: csvLimits.rows + 1 }, () => ['song']),
      ),
    ).toEqual([['', 'too-large']]);
  });

  test('formulas are defused on the way out and are plain names on the way in', () => {
    const show = taken(emptyShow('x', 'X'), [['song'], ['=SUM(A1)'], ['+1 more'], ['Say "yes", now'], ['@home']]);
    const text = writeRows(songRows(show));
    expect(text).toContain("\r\n'=SUM(A1),");
    expect(text).toContain("\r\n'+1 more,");
    expect(text).toContain('\r\n"Say ""yes"", now",');
    expect(
      taken(
        show,
        songRows(show).map((row) => row.map((cell) => (/^[=+@]/.test(cell) ? `'${cell}` : cell))),
      ),
    ).toEqual(show);
  });
});

describe('a set list as a table', () => {
  test('goes out and comes back, in the order of its positions', () => {
    const show = taken(start(), rows);
    expect(setListRows(show, 'set')).toEqual([
      ['position', 'song'],
      ['1', 'Song'],
      ['2', 'Long Wharf'],
      ['3', 'Tide Table'],
    ]);
    const read = readSetList(
      show,
      [
        ['song', 'position'],
        ['Song', '3'],
        ['tide table', '1'],
        ['Long Wharf', '2'],
      ],
      { id: 'set', name: 'Set' },
    );
    expect(read).toMatchObject({
      ok: true,
      value: { steps: [{ op: 'set', value: ['tide-table', 'long-wharf', 'song'] }] },
    });
    const made = readSetList(show, [['song'], ['Tide Table'], ['Song']], { id: 'short', name: 'Short' });
    expect(made).toMatchObject({
      ok: true,
      value: { steps: [{ op: 'insert', value: { id: 'short', songs: ['tide-table', 'song'] } }] },
    });
  });
  test('a song that is not there, or twice, is refused with its line', () => {
    const show = start();
    expect(readSetList(show, [['song'], ['Moon']], { id: 'set', name: 'Set' })).toMatchObject({
      ok: false,
      problems: [{ pointer: '/line/2/song', code: 'not-found' }],
    });
    expect(readSetList(show, [['song'], ['Song'], ['song']], { id: 'set', name: 'Set' })).toMatchObject({
      ok: false,
      problems: [{ code: 'duplicate' }],
    });
  });
});
