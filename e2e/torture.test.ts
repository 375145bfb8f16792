import { spawn } from 'node:child_process';
import path from 'node:path';
import { describe, expect, jest, test } from '@jest/globals';
import { commands, demoShow, type Show } from '@yunta/core';
import { verdictOf } from '../scripts/torture/verdict.mjs';

jest.setTimeout(180_000);

describe('the verdict over what was acknowledged', () => {
  const show = demoShow();
  const edits = [commands.renameRig(show, 'One'), commands.setSong(show, 'song-1', 'tempo', 77)];
  const rowOf = (rig: Show['rig'], revision: number) => ({
    id: 'r',
    name: rig.name,
    revision,
    rig: JSON.stringify(rig),
    songbook_id: 'b',
  });
  const bookOf = (songbook: object, revision: number) => ({ id: 'b', revision, document: JSON.stringify(songbook) });
  const after = { ...show.rig, name: 'One' };
  const book = {
    ...show.songbook,
    songs: { ...show.songbook.songs, 'song-1': { ...show.songbook.songs['song-1'], tempo: 77 } },
  };
  const batches = edits.map(({ steps }, i) => ({
    show_id: 'r',
    id: `e${i}`,
    revision: i + 1,
    steps: JSON.stringify(steps),
  }));
  const before = { shows: [rowOf(show.rig, 0)], songbooks: [bookOf(show.songbook, 0)], batches: [] };
  const taken = [
    { rig: 'r', id: 'e0', revision: 1 },
    { rig: 'r', id: 'e1', revision: 2 },
  ];
  const good = { shows: [rowOf(after, 2)], songbooks: [bookOf(book, 1)], batches };
  const none = { lost: 0, doubled: 0, corrupt: 0, torn: 0 };

  test.each([
    ['all is as acknowledged', good, none],
    ['an edit is not there', { ...good, batches: batches.slice(0, 1) }, { lost: 1, doubled: 1, torn: 1 }],
    [
      'an edit stands at another revision',
      { ...good, batches: [batches[0], { ...batches[1], revision: 3 }] },
      { lost: 1 },
    ],
    ['a rig is gone', { ...good, shows: [], batches: [] }, { lost: 3, torn: 1 }],
    ['a revision too many', { ...good, shows: [rowOf(after, 3)] }, { doubled: 1 }],
    [
      'the rig is written and its history is not',
      { ...good, shows: [rowOf({ ...after, name: 'Two' }, 2)] },
      { torn: 1 },
    ],
    ['the history is written and the songbook is not', { ...good, songbooks: [bookOf(show.songbook, 0)] }, { torn: 1 }],
    [
      'a document is no rig',
      { ...good, shows: [rowOf({ ...after, devices: 7 } as never, 2)] },
      { corrupt: 1, torn: 1 },
    ],
  ])('%s', (_, seen, found) => {
    expect(verdictOf({ before, after: seen, taken })).toEqual({ ...none, ...found });
  });
});

test('a short torture: server, database and both killed under editors, restores cut off, bad requests: nothing lost, doubled, corrupt or torn, no fault, no long freeze', async () => {
  const child = spawn(
    process.execPath,
    [
      path.resolve(import.meta.dirname, '../scripts/torture.mjs'),
      '--json',
      '--kills',
      '6',
      '--restores',
      '2',
      '--requests',
      '800',
      '--seed',
      '3',
    ],
    { env: { ...process.env, NODE_OPTIONS: '' }, stdio: ['ignore', 'pipe', 'pipe'] },
  );
  let said = '';
  child.stdout.on('data', (data) => (said += String(data)));
  child.stderr.on('data', (data) => (said += String(data)));
  const code = await new Promise((resolve) => child.once('close', resolve));
  const result = JSON.parse(said.trim().split('\n').at(-1)!) as { acknowledged: number; requests: number };
  expect(result).toMatchObject({ lost: 0, doubled: 0, corrupt: 0, torn: 0, faults: [] });
  expect(code).toBe(0);
  expect(result.acknowledged).toBeGreaterThan(5);
  expect(result.requests).toBeGreaterThanOrEqual(800);
});
