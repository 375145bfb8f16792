import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { type Command, commands, demoShow, exportShow } from '@yunta/core';
import type { ShowAtRevision, ShowSummary } from '@yunta/contract';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(60_000);
const running = new Running();
beforeAll(() => running.start());
afterAll(() => running.stop());

const made = async (body: unknown): Promise<string> =>
  ((await running.ask('POST', '/api/shows', body)).json as { id: string }).id;
const read = async (id: string): Promise<ShowAtRevision> => (await running.ask('GET', `/api/shows/${id}`)).json;
const send = (id: string, command: Command, base: number) =>
  running.ask('POST', `/api/shows/${id}/batches`, { id: randomUUID(), ...command, base });
const summaryOf = async (id: string): Promise<ShowSummary> =>
  ((await running.ask('GET', '/api/shows')).json as ShowSummary[]).find((showSummary) => showSummary.id === id)!;
/** Two demo rigs over one songbook. */
const pair = async (): Promise<readonly [string, string]> => {
  const combo = await made({ kind: 'demo' });
  return [combo, await made({ kind: 'demo', rig: 'fly', songbookOf: combo })];
};

describe('a songbook that two rigs share', () => {
  test('both are told of the other, and an edit of a song through one is there in the other', async () => {
    const [combo, fly] = await pair();
    expect((await read(combo)).sharedWith).toEqual(['Fly rig, no amp']);
    const before = await read(fly);
    expect(before.sharedWith).toEqual(['River-boat combo rig']);
    expect((await summaryOf(fly)).songbook).toEqual((await summaryOf(combo)).songbook);
    const song = Object.keys(before.songbook.songs)[0];
    expect(await send(combo, commands.setSong(before, song, 'tempo', 99), 0)).toMatchObject({
      status: 200,
      json: { revision: 1, songbookRevision: 1 },
    });
    const after = await read(fly);
    expect(after).toMatchObject({ revision: 0, songbookRevision: 1, songbook: { songs: { [song]: { tempo: 99 } } } });
    expect(after.rig).toEqual(before.rig);
    expect(await send(fly, commands.renameRig(after, 'Fly'), 0)).toMatchObject({
      status: 200,
      json: { revision: 1, songbookRevision: 1 },
    });
    expect(await read(combo)).toMatchObject({
      revision: 1,
      rig: { name: 'River-boat combo rig' },
      sharedWith: ['Fly'],
    });
  });

  test('an edit over an old value of the songbook is refused, whichever rig it came through', async () => {
    const [combo, fly] = await pair();
    const show = await read(combo);
    const song = Object.keys(show.songbook.songs)[0];
    expect((await send(combo, commands.setSong(show, song, 'name', 'Mine'), 0)).status).toBe(200);
    expect(await send(fly, commands.setSong(show, song, 'name', 'Yours'), 0)).toMatchObject({
      status: 409,
      json: { code: 'old-value-differs', errors: [{ pointer: `/songbook/songs/${song}/name` }] },
    });
  });

  test('a part that the other rig plays cannot be taken out, and both stay byte for byte as they were; one that it does not play can', async () => {
    const [combo, fly] = await pair();
    const show = await read(combo);
    const files = async () => [
      (await running.ask('GET', `/api/shows/${combo}/file`)).text,
      (await running.ask('GET', `/api/shows/${fly}/file`)).text,
    ];
    const before = await files();
    const part = Object.values((await read(fly)).rig.casting)[0].part;
    expect(await send(combo, commands.removePart(show, part), 0)).toMatchObject({
      status: 422,
      json: {
        code: 'in-use',
        title: expect.stringContaining('Fly rig, no amp'),
        errors: [{ pointer: `/songbook/parts/${part}` }],
      },
    });
    expect(await files()).toEqual(before);
    const song = Object.keys(show.songbook.songs)[0];
    const added = commands.addPart(show, 'new-part', song, 'Coda', null);
    expect((await send(combo, added, 0)).status).toBe(200);
    expect((await send(combo, commands.removePart(await read(combo), 'new-part'), 1)).status).toBe(200);
    expect(await files()).toEqual(before);
  });

  test('with a copy of its own each goes its way', async () => {
    const [combo, fly] = await pair();
    const was = await read(fly);
    expect(await running.ask('POST', `/api/shows/${fly}/own-songbook`, {})).toMatchObject({
      status: 200,
      json: { sharedWith: [], revision: 0 },
    });
    expect((await read(combo)).sharedWith).toEqual([]);
    const song = Object.keys(was.songbook.songs)[0];
    expect((await send(combo, commands.setSong(was, song, 'name', 'Theirs'), 0)).status).toBe(200);
    expect((await read(fly)).songbook).toEqual(was.songbook);
    expect((await read(combo)).songbook.songs[song].name).toBe('Theirs');
    const again = await running.ask('POST', `/api/shows/${fly}/own-songbook`, {});
    expect((again.json as ShowAtRevision).songbook).toEqual(was.songbook);
    expect((await running.ask('POST', '/api/shows/nowhere/own-songbook', {})).status).toBe(404);
  });

  test('it goes with the last rig that plays from it', async () => {
    const [combo, fly] = await pair();
    const { songbook } = await read(fly);
    expect((await running.ask('DELETE', `/api/shows/${combo}`, {})).status).toBe(204);
    expect(await read(fly)).toMatchObject({ sharedWith: [], songbook });
    expect((await running.ask('DELETE', `/api/shows/${fly}`, {})).status).toBe(204);
  });

  test('a new rig beside it plays what of it it already casts; a rig that is not there, or a file, cannot share', async () => {
    const combo = await made({ kind: 'demo' });
    const bare = await made({ kind: 'starter', starter: 'four-cable', name: 'Spare', songbookOf: combo });
    const { rig, songbook } = await read(bare);
    expect(songbook).toEqual(demoShow().songbook);
    expect(Object.values(rig.casting).every((cast) => cast.part in songbook.parts)).toBe(true);
    expect(await running.ask('POST', '/api/shows', { kind: 'empty', name: 'x', songbookOf: 'nowhere' })).toMatchObject({
      status: 404,
      json: { code: 'not-found' },
    });
    expect(
      await running.ask('POST', '/api/shows', { kind: 'file', text: exportShow(demoShow()), songbookOf: combo }),
    ).toMatchObject({ status: 422, json: { errors: [{ pointer: '/songbookOf' }] } });
  });

  test('forty edits at once through both rigs: each is there once or refused, none waits for ever', async () => {
    const [combo, fly] = await pair();
    const show = await read(combo);
    const song = Object.keys(show.songbook.songs)[0];
    const parts = Array.from({ length: 20 }, (_, i) => commands.addPart(show, `race-${i}`, song, `Race ${i}`, null));
    const names = Array.from({ length: 20 }, (_, i) =>
      commands.renameRig(i % 2 === 0 ? show : { ...show, rig: { ...show.rig, name: 'Fly rig, no amp' } }, `Racer ${i}`),
    );
    const answers = await Promise.all(
      [...parts, ...names].map((command, i) => send(i % 2 === 0 ? combo : fly, command, 0)),
    );
    expect(answers.slice(0, 20).map((answer) => answer.status)).toEqual(Array.from({ length: 20 }, () => 200));
    expect(answers.slice(20).filter((answer) => answer.status === 200)).toHaveLength(2);
    expect(answers.slice(20).every((answer) => answer.status === 200 || answer.status === 409)).toBe(true);
    const [mine, theirs] = [await read(combo), await read(fly)];
    expect(mine.songbook).toEqual(theirs.songbook);
    expect(Object.keys(mine.songbook.parts).filter((id) => id.startsWith('race-'))).toHaveLength(20);
    expect([mine.songbookRevision, mine.revision, theirs.revision]).toEqual([20, 11, 11]);
  });
});

test('four editors of two pairs of rigs, each pair over one songbook: every edit is taken or refused as a conflict, none fails, and none is lost', async () => {
  const rigs = [...(await pair()), ...(await pair())];
  const songs = Object.keys((await read(rigs[0])).songbook.songs).slice(0, 3);
  const seen = { taken: 0, conflicts: 0 };
  const others: unknown[] = [];
  const editor = async (rig: string, n: number): Promise<void> => {
    for (let i = 0; i < 60; i += 1) {
      const show = await read(rig);
      const command =
        i % 4 === 3
          ? commands.renameRig(show, `Rig ${n} ${i}`)
          : commands.setSong(show, songs[(n + i) % 3], 'tempo', 60 + ((n * 40 + i) % 140) + n / 10);
      const answer = await send(rig, command, show.revision);
      if (answer.status === 200) seen.taken += 1;
      else if (answer.status === 409) seen.conflicts += 1;
      else others.push([answer.status, answer.text]);
    }
  };
  await Promise.all(rigs.map(editor));
  expect(others).toEqual([]);
  expect(seen.taken).toBeGreaterThan(100);
  const revisions = await Promise.all(rigs.map(async (id) => (await read(id)).revision));
  expect(revisions.reduce((sum, revision) => sum + revision)).toBe(seen.taken);
  const history = async (id: string) =>
    ((await running.ask('GET', `/api/shows/${id}/history`)).json as object[]).length;
  expect(await Promise.all(rigs.map(history))).toEqual(revisions);
});

describe('a copy of a rig', () => {
  test('is the rig as it is now under another name, plays the same songs, and goes its own way from there', async () => {
    const [combo] = await pair();
    await send(combo, commands.renameRig(await read(combo), 'Tour'), 0);
    const id = await made({ kind: 'copy', of: combo, name: 'Tour, small', songbookOf: combo });
    const [was, copy] = [await read(combo), await read(id)];
    expect(copy).toMatchObject({ revision: 0, rig: { name: 'Tour, small' } });
    expect({ ...copy.rig, name: 'Tour' }).toEqual(was.rig);
    expect(copy.songbook).toEqual(was.songbook);
    expect(copy.sharedWith).toContain('Tour');
    expect(await send(id, commands.renameRig(copy, 'Other'), 0)).toMatchObject({ status: 200 });
    expect((await read(combo)).rig.name).toBe('Tour');
  });
  test('has songs of its own where nobody says whose it shares', async () => {
    const combo = await made({ kind: 'demo' });
    const copy = await read(await made({ kind: 'copy', of: combo }));
    expect(copy.sharedWith).toEqual([]);
    expect(copy.rig.name).toBe('River-boat combo rig, copy');
  });
  test.each([
    ['of nothing', { kind: 'copy' }, 422],
    ['of a rig that is not there', { kind: 'copy', of: 'gone' }, 404],
    ['under a name that no text may be', { kind: 'copy', name: 'a\u0007b' }, 422],
  ] as const)('%s: refused', async (_, body, status) => {
    const of = 'of' in body ? body.of : 'name' in body ? await made({ kind: 'demo' }) : undefined;
    const before = (await running.ask('GET', '/api/shows')).json as unknown[];
    expect((await running.ask('POST', '/api/shows', { ...body, ...(of === undefined ? {} : { of }) })).status).toBe(
      status,
    );
    expect(((await running.ask('GET', '/api/shows')).json as unknown[]).length).toBe(before.length);
  });
});
