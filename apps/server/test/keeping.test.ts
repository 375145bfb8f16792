import { createHash, randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { commands, type Device, type Show } from '@yunta/core';
import type { BackupFile, NamedRevision, RestoredBackup, RevisionContent } from '@yunta/contract';
import { connected } from '../src/persistence/data-source.ts';
import { migrate, migrationNames } from '../src/persistence/migrate.ts';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(120_000);
const running = new Running();
beforeAll(() => running.start());
afterAll(() => running.stop());

const make = async (body: unknown): Promise<string> =>
  ((await running.ask('POST', '/api/shows', body)).json as { id: string }).id;
const read = async (id: string): Promise<Show & { revision: number; sharedWith: string[] }> =>
  (await running.ask('GET', `/api/shows/${id}`)).json;
const rename = async (id: string, name: string): Promise<number> => {
  const show = await read(id);
  return (
    await running.ask('POST', `/api/shows/${id}/batches`, {
      id: randomUUID(),
      base: show.revision,
      ...commands.renameRig(show, name),
    })
  ).status;
};
const backups = async (): Promise<readonly BackupFile[]> => (await running.ask('GET', '/api/backups')).json;
const restore = (name: string) => running.ask('POST', `/api/backups/${name}/restore`, {});
const folder = path.join(running.folder, 'backups');

/** All that people made, as the server tells it. */
async function everything(): Promise<object> {
  const list = (await running.ask('GET', '/api/shows')).json as { id: string }[];
  const of = async ({ id }: { id: string }) => ({
    show: await read(id),
    file: (await running.ask('GET', `/api/shows/${id}/file`)).text,
    history: (await running.ask('GET', `/api/shows/${id}/history`)).json as object,
    ticks: (await running.ask('GET', `/api/shows/${id}/ticks`)).json as object,
    revisions: (await running.ask('GET', `/api/shows/${id}/revisions`)).json as object,
  });
  const types = (await running.ask('GET', '/api/types')).json as object;
  return { list, types, each: await Promise.all(list.map(of)) };
}

describe('a copy of all data', () => {
  test('is made on the first day, whole and closed to others', async () => {
    for (let i = 0; i < 50 && (await backups()).length === 0; i += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    const [first] = await backups();
    expect(first).toMatchObject({ kind: 'daily', bytes: expect.any(Number) });
    expect(statSync(path.join(folder, first.name)).mode & 0o077).toBe(0);
    expect(statSync(folder).mode & 0o077).toBe(0);
    const lines = gunzipSync(readFileSync(path.join(folder, first.name)))
      .toString()
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines[0]).toMatchObject({ format: 'yunta-backup', version: 1, schema: migrationNames });
    expect(lines.filter((line) => 'table' in line).map((line) => line.table)).toEqual([
      'songbooks',
      'shows',
      'batches',
      'ticks',
      'revisions',
      'device_types',
    ]);
    expect(lines.at(-1)).toMatchObject({ end: true, rows: lines.filter((line) => 'row' in line).length });
  });

  test('brings rigs, songbook, history, ticks and revisions back to what they were, and what was there before is copied first', async () => {
    const combo = await make({ kind: 'demo' });
    const fly = await make({ kind: 'demo', rig: 'fly', songbookOf: combo });
    await rename(combo, 'Käpt’n 🎸 "quoted"\ttab');
    await running.ask('PUT', `/api/shows/${combo}/ticks`, { line: 'slot-sound-1', said: 'Loop 1 on', done: true });
    await running.ask('POST', `/api/shows/${combo}/revisions`, { name: 'Before the tour' });
    const type = { id: 'own-box', revision: 1, name: 'Box', archetype: 'pedal', params: {} };
    await running.ask('PUT', '/api/types/own-box', { base: null, type });
    const was = await everything();
    const { name } = (await running.ask('POST', '/api/backups', {})).json as BackupFile;
    expect(await everything()).toEqual(was);
    await rename(combo, 'Spoilt');
    await running.ask('DELETE', `/api/shows/${fly}`);
    await running.ask('DELETE', '/api/types/own-box');
    await make({ kind: 'empty', name: 'Later' });
    const spoilt = await everything();
    expect(spoilt).not.toEqual(was);
    const answer = await restore(name);
    expect(answer).toMatchObject({ status: 200, json: { rigs: 4, before: expect.stringContaining('before-restore') } });
    expect(await everything()).toEqual(was);
    expect(await restore((answer.json as RestoredBackup).before!)).toMatchObject({ status: 200 });
    expect(await everything()).toEqual(spoilt);
    expect(await rename(combo, 'Goes on')).toBe(200);
  });

  test('comes over HTTP too, and is the same but for the moment', async () => {
    const answer = await fetch(`${running.url}/api/backup`);
    const rows = (bytes: Buffer) => gunzipSync(bytes).toString().split('\n').slice(1, -2);
    const { name } = (await running.ask('POST', '/api/backups', {})).json as BackupFile;
    const made = await fetch(`${running.url}/api/backups/${name}`);
    expect(made.headers.get('content-disposition')).toContain(name);
    expect(rows(Buffer.from(await answer.arrayBuffer()))).toEqual(rows(Buffer.from(await made.arrayBuffer())));
  });

  test('that is cut short, changed, of another kind or of a newer program is refused, and all stays as it is', async () => {
    const whole = readFileSync(path.join(folder, (await backups())[0].name));
    const text = gunzipSync(whole).toString();
    const bad: Record<string, Buffer> = {
      'cut short': whole.subarray(0, whole.length - 200),
      'without its last line': gzipSync(text.trim().split('\n').slice(0, -1).join('\n')),
      'changed in a name': gzipSync(text.replace('River-boat', 'River boat')),
      'a row too few': gzipSync(
        text
          .split('\n')
          .filter((line, i) => !(i > 3 && line.startsWith('{"row"')))
          .join('\n'),
      ),
      'something after its end': gzipSync(`${text}{"row":[]}\n`),
      'a picture': Buffer.from([0x89, 0x50, 0x4e, 0x47]),
      empty: gzipSync(''),
      'newer steps': gzipSync(text.replace('Revisions1764200000005', 'Holograms9999999999999')),
      'a newer version': gzipSync(text.replace('"version":1', '"version":2')),
      'a table of another name': gzipSync(text.replace('"table":"ticks"', '"table":"ticks; DROP TABLE shows"')),
    };
    const before = await everything();
    for (const [i, bytes] of Object.values(bad).entries()) {
      const name = `2026-01-01T00-00-${String(i).padStart(2, '0')}Z-manual.yunta-backup`;
      writeFileSync(path.join(folder, name), bytes);
      const answer = await restore(name);
      expect([Object.keys(bad)[i], answer.status, (answer.json as { code: string }).code]).toEqual([
        Object.keys(bad)[i],
        422,
        'bad-backup',
      ]);
    }
    expect(await everything()).toEqual(before);
    for (const name of ['..%2F..%2Fetc%2Fpasswd', 'nothing', '2026-01-01T00-00-00Z-manual.yunta-backup%00'])
      expect((await restore(name)).status).toBe(404);
  });

  test('of an older schema is brought up to date as it comes in', async () => {
    const rigs = (await running.ask('GET', '/api/shows')).json as { id: string }[];
    const show = await read(rigs[0].id);
    const table = (name: string, columns: readonly string[], ...rows: readonly unknown[][]) => [
      { table: name, columns },
      ...rows.map((row) => ({ row })),
    ];
    const lines = [
      { format: 'yunta-backup', version: 1, schema: migrationNames.slice(0, 2), made: '2025-11-24T00:00:00.000Z' },
      ...table(
        'shows',
        ['workspace', 'id', 'actor', 'name', 'revision', 'rig', 'songbook', 'devices', 'sounds', 'changed_at'],
        [
          'local',
          'old-rig',
          'me',
          'Old rig',
          7,
          JSON.stringify(show.rig),
          JSON.stringify(show.songbook),
          1,
          1,
          '2025-11-23 10:00:00.123456',
        ],
      ),
      ...table(
        'batches',
        ['workspace', 'show_id', 'id', 'actor', 'revision', 'command', 'steps', 'at'],
        [
          'local',
          'old-rig',
          'b',
          'me',
          7,
          '{"name":"rename","facts":{"name":"Old rig"}}',
          '[]',
          '2025-11-23 10:00:00.123456',
        ],
      ),
      ...table('ticks', ['workspace', 'show_id', 'line', 'actor', 'said', 'at']),
    ].map((line) => `${JSON.stringify(line)}\n`);
    const end = `${JSON.stringify({ end: true, rows: 2, sha256: createHash('sha256').update(lines.join('')).digest('hex') })}\n`;
    const name = '2025-11-24T00-00-00Z-manual.yunta-backup';
    writeFileSync(path.join(folder, name), gzipSync(lines.join('') + end));
    expect(await restore(name)).toMatchObject({ status: 200, json: { rigs: 1, songbooks: 1, edits: 1 } });
    expect(await read('old-rig')).toMatchObject({
      revision: 7,
      rig: show.rig,
      songbook: show.songbook,
      sharedWith: [],
    });
    expect((await running.ask('GET', '/api/shows/old-rig/history')).json).toHaveLength(1);
  });
});

describe('a named revision', () => {
  test('keeps the documents as they were, is listed newest first, and can be given up', async () => {
    const id = await make({ kind: 'starter', starter: 'four-cable', name: 'Harbour' });
    const first = (await running.ask('POST', `/api/shows/${id}/revisions`, { name: 'As rehearsed' }))
      .json as NamedRevision;
    const was = await read(id);
    await rename(id, 'Harbour II');
    const second = (await running.ask('POST', `/api/shows/${id}/revisions`, { name: 'Second' })).json as NamedRevision;
    expect((await running.ask('GET', `/api/shows/${id}/revisions`)).json).toEqual([second, first]);
    expect([first.revision, second.revision]).toEqual([0, 1]);
    const { rig, songbook } = (await running.ask('GET', `/api/shows/${id}/revisions/${first.id}`))
      .json as RevisionContent;
    expect({ rig, songbook }).toEqual({ rig: was.rig, songbook: was.songbook });
    expect((await running.ask('DELETE', `/api/shows/${id}/revisions/${first.id}`)).status).toBe(204);
    expect((await running.ask('DELETE', `/api/shows/${id}/revisions/${first.id}`)).status).toBe(404);
    expect((await running.ask('GET', `/api/shows/${id}/revisions/${first.id}`)).status).toBe(404);
  });

  test.each([
    ['', 422],
    ['x'.repeat(201), 422],
    ['Bell \u0007', 422],
    [7, 422],
  ])('called %j is refused', async (name, status) => {
    const id = await make({ kind: 'empty', name: 'Names' });
    expect((await running.ask('POST', `/api/shows/${id}/revisions`, { name })).status).toBe(status);
    expect((await running.ask('GET', `/api/shows/${id}/revisions`)).json).toEqual([]);
    expect((await running.ask('POST', '/api/shows/nowhere/revisions', { name: 'x' })).status).toBe(404);
  });
});

describe('a rig that was stored before today’s checks', () => {
  /** Writes past the server, as an older one might have. */
  const store = (id: string, rig: unknown) =>
    connected(running.database, (source) =>
      source.query('UPDATE shows SET rig = ? WHERE id = ?', [JSON.stringify(rig), id]),
    );

  test('is repaired when it is read, as an edit that the history tells, and can be edited', async () => {
    const id = await make({ kind: 'starter', starter: 'four-cable', name: 'Faulty' });
    const was = await read(id);
    await store(id, {
      ...was.rig,
      name: 'Faulty\u0007',
      settings: { ...was.rig.settings, roles: [null, ...was.rig.settings.roles, null] },
    });
    expect(await read(id)).toMatchObject({ revision: 1, rig: was.rig });
    expect((await running.ask('GET', `/api/shows/${id}/history`)).json).toMatchObject([
      { revision: 1, command: { name: 'repair', facts: { count: 3 } } },
    ]);
    expect(await read(id)).toMatchObject({ revision: 1 });
    expect(await rename(id, 'Fine')).toBe(200);
  });

  test('in format version 1 is read as of today, without an edit, and can be edited', async () => {
    const id = await make({ kind: 'starter', starter: 'four-cable', name: 'Old' });
    const was = await read(id);
    const olderDevice = ({ firstPresetNumber, plannedSwitches, ...device }: Device) => ({
      ...device,
      countsFrom: firstPresetNumber,
      plannedFeet: plannedSwitches,
    });
    const devices = Object.fromEntries(Object.entries(was.rig.devices).map(([key, one]) => [key, olderDevice(one)]));
    await store(id, { ...was.rig, version: 1, devices });
    expect(await read(id)).toMatchObject({ revision: 0, rig: was.rig });
    expect(await rename(id, 'Old one')).toBe(200);
    const [key, device] = Object.entries(was.rig.devices)[0];
    const older = {
      id: 'older-edit',
      base: 1,
      command: { name: 'set-device', facts: {} },
      steps: [
        {
          doc: 'rig',
          op: 'set',
          at: ['devices', key, 'countsFrom'],
          value: 1 - device.firstPresetNumber,
          old: device.firstPresetNumber,
        },
      ],
    };
    expect((await running.ask('POST', `/api/shows/${id}/batches`, older)).status).toBe(200);
    expect((await running.ask('POST', `/api/shows/${id}/batches`, older)).json).toMatchObject({ repeated: true });
    expect((await read(id)).rig.devices[key].firstPresetNumber).toBe(1 - device.firstPresetNumber);
  });

  test('is shown as it is where there is no way to repair it', async () => {
    const id = await make({ kind: 'empty', name: 'Hopeless' });
    const was = await read(id);
    await store(id, { ...was.rig, devices: 7 });
    expect(await read(id)).toMatchObject({ revision: 0, rig: { devices: 7 } });
  });
});

describe('an upgrade', () => {
  test('is preceded by a copy of all data in the folder of backups', async () => {
    const before = (await backups()).filter(({ kind }) => kind === 'before-upgrade').length;
    await running.stopServer();
    await connected(running.database, async (source) => {
      await source.query('DROP TABLE revisions');
      await source.query("DELETE FROM migrations WHERE name LIKE 'Revisions%'");
    });
    await running.startServer();
    expect((await backups()).filter(({ kind }) => kind === 'before-upgrade')).toHaveLength(before + 1);
    expect(await connected(running.database, (source) => migrate(source))).toEqual([]);
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  });

  test('of data that a newer program has used does not happen: the server says so and ends', async () => {
    await running.stopServer();
    await connected(running.database, (source) =>
      source.query("INSERT INTO migrations (timestamp, name) VALUES (9999999999999, 'Holograms9999999999999')"),
    );
    await expect(running.startServer()).rejects.toThrow(/last used by a newer Yunta/);
    await connected(running.database, (source) => source.query("DELETE FROM migrations WHERE name LIKE 'Holograms%'"));
    await running.startServer();
  });
});

describe('a fault that nobody foresaw', () => {
  test('has an id under which the log tells the whole story', async () => {
    const id = await make({ kind: 'empty', name: 'Broken' });
    const log = path.join(running.folder, 'logs', 'yunta.log');
    await connected(running.database, (source) => source.query('RENAME TABLE ticks TO ticks_gone'));
    const fault = await running.ask('GET', `/api/shows/${id}/ticks`);
    await connected(running.database, (source) => source.query('RENAME TABLE ticks_gone TO ticks'));
    expect(fault).toMatchObject({ status: 500, json: { code: 'fault', id: expect.stringMatching(/^[0-9a-f]{8}$/) } });
    expect(existsSync(log)).toBe(true);
    const { id: under, title } = fault.json as { id: string; title: string };
    expect(title).toContain(under);
    expect(readFileSync(log, 'utf8')).toMatch(new RegExp(`error problem: fault ${under}: [\\s\\S]*ticks`));
    expect(statSync(log).mode & 0o077).toBe(0);
  });
});

describe('the database away', () => {
  test('is told apart from the server, every request is answered, and all goes on when it is back', async () => {
    const id = await make({ kind: 'empty', name: 'Away' });
    running.signalDatabase('SIGSTOP');
    const from = performance.now();
    expect(await running.ask('GET', '/health')).toMatchObject({
      status: 503,
      json: { server: 'ok', database: 'away' },
    });
    expect(performance.now() - from).toBeLessThan(4000);
    const answers = await Promise.all([
      running.ask('GET', '/api/shows'),
      running.ask('GET', `/api/shows/${id}`),
      running.ask('POST', '/api/shows', { kind: 'empty', name: 'No' }),
    ]);
    expect(answers.map(({ status, json }) => [status, (json as { code: string }).code])).toEqual(
      Array.from({ length: 3 }, () => [503, 'database-away']),
    );
    expect(performance.now() - from).toBeLessThan(20_000);
    running.signalDatabase('SIGCONT');
    for (let i = 0; i < 100 && (await running.ask('GET', '/health')).status !== 200; i += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await rename(id, 'Back')).toBe(200);
    await running.killDatabase();
    expect((await running.ask('GET', '/api/shows')).status).toBe(503);
    await running.startDatabase();
    for (let i = 0; i < 100 && (await running.ask('GET', '/health')).status !== 200; i += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect((await read(id)).rig.name).toBe('Back');
    expect(await rename(id, 'Back again')).toBe(200);
  });
});
