import { randomUUID } from 'node:crypto';
import http from 'node:http';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { commands, demoShow, emptyShow, exportShow, importShow, type Show, starterIds } from '@yunta/core';
import { Running } from '../../../e2e/running.ts';
import { connected } from '../src/persistence/data-source.ts';

jest.setTimeout(60_000);
const running = new Running();
beforeAll(() => running.start());
afterAll(() => running.stop());

type Problem = {
  readonly status: number;
  readonly code: string;
  readonly title: string;
  readonly errors: readonly { pointer: string; code: string; facts: object }[];
};
const made = async (body: unknown): Promise<string> =>
  ((await running.ask('POST', '/api/shows', body)).json as { id: string }).id;
const read = async (id: string): Promise<Show & { revision: number }> =>
  (await running.ask('GET', `/api/shows/${id}`)).json;
const rename = (show: Show, name: string, id: string = randomUUID()) => ({ id, ...commands.renameRig(show, name) });

describe('a new database', () => {
  test('is migrated and holds the demo', async () => {
    const { json } = await running.ask('GET', '/api/shows');
    expect(json).toEqual([
      expect.objectContaining({ name: 'River-boat combo rig', revision: 0, devices: 13, sounds: 37 }),
      expect.objectContaining({ name: 'Fly rig, no amp', devices: 12, sounds: 37 }),
    ]);
  });
  test('health says that server and database are there', async () => {
    expect((await running.ask('GET', '/health')).json).toEqual({ server: 'ok', database: 'ok' });
  });
  test('OpenAPI names every path; the schema of the file format is published', async () => {
    const { paths } = (await running.ask('GET', '/api/openapi.json')).json as { paths: object };
    expect(Object.keys(paths).sort()).toEqual([
      '/api/backup',
      '/api/backups',
      '/api/backups/{name}',
      '/api/backups/{name}/restore',
      '/api/deleted-shows',
      '/api/deleted-shows/{id}/restore',
      '/api/schema',
      '/api/shows',
      '/api/shows/{id}',
      '/api/shows/{id}/batches',
      '/api/shows/{id}/file',
      '/api/shows/{id}/history',
      '/api/shows/{id}/history/{revision}',
      '/api/shows/{id}/own-songbook',
      '/api/shows/{id}/revisions',
      '/api/shows/{id}/revisions/{revision}',
      '/api/shows/{id}/ticks',
      '/api/types',
      '/api/types/file',
      '/api/types/schema',
      '/api/types/{id}',
      '/health',
    ]);
    expect((await running.ask('GET', '/api/schema')).json).toMatchObject({ $id: 'urn:yunta:show:2', type: 'object' });
  });
});

describe('an earlier revision', () => {
  const past = (id: string, revision: number | string) => running.ask('GET', `/api/shows/${id}/history/${revision}`);
  const edit = async (id: string, command: (show: Show) => { command: object; steps: readonly object[] }) => {
    const show = await read(id);
    const sent = { id: randomUUID(), base: show.revision, ...command(show) };
    expect((await running.ask('POST', `/api/shows/${id}/batches`, sent)).status).toBe(200);
  };

  test('is the rig as it was then, songs included, back to the beginning', async () => {
    const id = await made({ kind: 'starter', starter: 'four-cable', name: 'Past' });
    const states = [await read(id)];
    for (const command of [
      (show: Show) => commands.renameRig(show, 'Later'),
      (show: Show) => commands.addSong(show, 'ebb', 'Ebb'),
      (show: Show) => commands.removeSound(show, Object.keys(show.rig.sounds)[0]),
    ]) {
      await edit(id, command);
      states.push(await read(id));
    }
    for (const [revision, { rig, songbook }] of states.entries())
      expect((await past(id, revision)).json).toEqual({ revision, rig, songbook, songsOfToday: false });
  });

  test('where another rig changed the shared songs since, the rig is that of then and the songs are those of today', async () => {
    const id = await made({ kind: 'starter', starter: 'four-cable', name: 'Sharing' });
    const other = await made({ kind: 'empty', name: 'Other', songbookOf: id });
    await edit(id, (show) => commands.addSong(show, 'ebb', 'Ebb'));
    await edit(other, (show) => commands.setSong(show, 'ebb', 'name', 'Flood'));
    await edit(id, (show) => commands.renameRig(show, 'Renamed'));
    const then = (await past(id, 0)).json as { songsOfToday: boolean; rig: Show['rig']; songbook: Show['songbook'] };
    expect([then.songsOfToday, then.rig.name, then.songbook.songs['ebb']?.name]).toEqual([true, 'Sharing', 'Flood']);
  });

  test.each(['99', '-1', 'x', '1e3', '999999999999'])('“%s” is none', async (revision) => {
    const id = await made({ kind: 'empty', name: 'Short' });
    expect((await past(id, revision)).status).toBe(404);
    expect((await past('nobody', 0)).status).toBe(404);
  });
});

describe('batches', () => {
  test('are applied in order, told in the history, and a retry gets its first result and is applied once', async () => {
    const id = await made({ kind: 'empty', name: 'Batches' });
    const first = rename(await read(id), 'One');
    expect(await running.ask('POST', `/api/shows/${id}/batches`, { ...first, base: 0 })).toMatchObject({
      status: 200,
      json: { revision: 1, repeated: false },
    });
    const second = rename(await read(id), 'Two');
    expect(await running.ask('POST', `/api/shows/${id}/batches`, { ...second, base: 1 })).toMatchObject({
      status: 200,
      json: { revision: 2 },
    });
    expect(await running.ask('POST', `/api/shows/${id}/batches`, { ...first, base: 0 })).toMatchObject({
      status: 200,
      json: { revision: 1, repeated: true },
    });
    expect(await read(id)).toMatchObject({ revision: 2, rig: { name: 'Two' } });
    const history = (await running.ask('GET', `/api/shows/${id}/history`)).json as {
      revision: number;
      actor: string;
      at: string;
      command: object;
    }[];
    expect(history.map((item) => item.revision)).toEqual([2, 1]);
    expect(history[0]).toMatchObject({
      actor: 'me',
      at: expect.stringMatching(/Z$/),
      command: { name: 'rename', facts: { name: 'Two' } },
    });
  });
  test('another batch under a used id is refused', async () => {
    const id = await made({ kind: 'empty', name: 'Ids' });
    const batch = rename(await read(id), 'One');
    await running.ask('POST', `/api/shows/${id}/batches`, { ...batch, base: 0 });
    const other = { ...rename(await read(id), 'Other'), id: batch.id, base: 1 };
    expect(await running.ask('POST', `/api/shows/${id}/batches`, other)).toMatchObject({
      status: 409,
      json: { code: 'already-there' },
    });
  });
  test('a conflict by old value is refused with what won; a batch over an old base that touches nothing of it is taken', async () => {
    const id = await made({ kind: 'demo' });
    const show = await read(id);
    expect((await running.ask('POST', `/api/shows/${id}/batches`, { ...rename(show, 'Mine'), base: 0 })).status).toBe(
      200,
    );
    const lost = await running.ask('POST', `/api/shows/${id}/batches`, { ...rename(show, 'Yours'), base: 0 });
    expect(lost).toMatchObject({
      status: 409,
      type: expect.stringContaining('application/problem+json'),
      json: { code: 'old-value-differs', errors: [{ pointer: '/rig/name', facts: { now: '"Mine"' } }] },
    });
    const beside = { id: randomUUID(), ...commands.setDevice(show, 'echo', 'channel', 9), base: 0 };
    expect(await running.ask('POST', `/api/shows/${id}/batches`, beside)).toMatchObject({
      status: 200,
      json: { revision: 2 },
    });
    expect(await read(id)).toMatchObject({ rig: { name: 'Mine', devices: { echo: { channel: 9 } } } });
  });
  test('twenty at once on one field: one wins, none is lost silently', async () => {
    const id = await made({ kind: 'empty', name: 'Race' });
    const show = await read(id);
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        running.ask('POST', `/api/shows/${id}/batches`, { ...rename(show, `Racer ${i}`), base: 0 }),
      ),
    );
    expect(answers.filter((answer) => answer.status === 200)).toHaveLength(1);
    expect(answers.filter((answer) => answer.status === 409)).toHaveLength(19);
    expect((await read(id)).revision).toBe(1);
  });
});

describe('starters', () => {
  test('each makes a rig under the given name; one that is not there is refused', async () => {
    for (const starter of starterIds) {
      const id = await made({ kind: 'starter', starter, name: `My ${starter}` });
      expect((await read(id)).rig.name).toBe(`My ${starter}`);
    }
    expect((await running.ask('POST', '/api/shows', { kind: 'starter', starter: 'moon', name: 'x' })).status).toBe(422);
    expect(await running.ask('POST', '/api/shows', { kind: 'starter', name: 'x' })).toMatchObject({
      status: 422,
      json: { code: 'missing-field' },
    });
  });
});

describe('ticks of the worksheet', () => {
  test('stay with what the line said, can be renewed and taken away, and go with the rig', async () => {
    const id = await made({ kind: 'empty', name: 'Ticks' });
    const at = `/api/shows/${id}/ticks`;
    expect((await running.ask('PUT', at, { line: 'slot-1/0', said: 'C1 05', done: true })).status).toBe(204);
    expect((await running.ask('PUT', at, { line: 'Slot-1/0', said: 'other case', done: true })).status).toBe(204);
    expect((await running.ask('PUT', at, { line: 'slot-1/0', said: 'C1 06', done: true })).status).toBe(204);
    expect((await running.ask('GET', at)).json).toEqual([
      expect.objectContaining({ line: 'Slot-1/0' }),
      expect.objectContaining({ line: 'slot-1/0', said: 'C1 06', actor: 'me', at: expect.stringMatching(/Z$/) }),
    ]);
    expect((await running.ask('PUT', at, { line: 'slot-1/0', said: '', done: false })).status).toBe(204);
    expect((await running.ask('GET', at)).json).toHaveLength(1);
    expect((await running.ask('PUT', at, { line: '', said: 'x', done: true })).status).toBe(422);
    expect((await running.ask('PUT', at, { line: 'x'.repeat(201), said: 'x', done: true })).status).toBe(422);
    expect((await running.ask('PUT', '/api/shows/nowhere/ticks', { line: 'a', said: 'x', done: true })).status).toBe(
      404,
    );
    expect((await running.ask('DELETE', `/api/shows/${id}`, {})).status).toBe(204);
    expect((await running.ask('GET', at)).status).toBe(404);
  });
});

describe('files', () => {
  test('what is exported can be brought back and is the same show', async () => {
    const id = await made({ kind: 'demo' });
    const { text } = await running.ask('GET', `/api/shows/${id}/file`);
    expect(importShow(text)).toEqual({ ok: true, value: demoShow() });
    const again = await made({ kind: 'file', text });
    expect((await running.ask('GET', `/api/shows/${again}/file`)).text).toBe(text);
    expect((await running.ask('DELETE', `/api/shows/${again}`, 'again', { 'content-type': 'text/plain' })).status).toBe(
      415,
    );
    expect((await running.ask('DELETE', `/api/shows/${again}`)).status).toBe(204);
    expect(await running.ask('GET', `/api/shows/${again}`)).toMatchObject({ status: 404, json: { code: 'not-found' } });
  });
});

describe('a deleted rig', () => {
  const deletedNames = async () =>
    ((await running.ask('GET', '/api/deleted-shows')).json as { name: string }[]).map(({ name }) => name);

  test('is found by nobody, and comes back as it was, with its history and its ticks', async () => {
    const id = await made({ kind: 'empty', name: 'Farewell' });
    const show = await running.ask('GET', `/api/shows/${id}`);
    await running.ask('PUT', `/api/shows/${id}/ticks`, { line: 'slot-1/0', said: 'C1 05', done: true });
    expect((await running.ask('DELETE', `/api/shows/${id}`)).status).toBe(204);
    for (const path of ['', '/history', '/ticks', '/file'])
      expect([path, (await running.ask('GET', `/api/shows/${id}${path}`)).status]).toEqual([path, 404]);
    expect((await running.ask('DELETE', `/api/shows/${id}`)).status).toBe(404);
    expect(await deletedNames()).toContain('Farewell');
    expect(await running.ask('POST', `/api/deleted-shows/${id}/restore`, {})).toMatchObject({
      status: 200,
      json: { id, name: 'Farewell' },
    });
    expect((await running.ask('GET', `/api/shows/${id}`)).json).toEqual(show.json);
    expect((await running.ask('GET', `/api/shows/${id}/ticks`)).json).toHaveLength(1);
    expect(await deletedNames()).not.toContain('Farewell');
    expect((await running.ask('POST', `/api/deleted-shows/${id}/restore`, {})).status).toBe(404);
    expect((await running.ask('POST', '/api/deleted-shows/nowhere/restore', {})).status).toBe(404);
  });

  test('goes for good with the next that is deleted, thirty days later, and its songs with it', async () => {
    const [old, next] = [await made({ kind: 'empty', name: 'Long ago' }), await made({ kind: 'empty', name: 'Next' })];
    const { json } = await running.ask('GET', '/api/shows');
    const book = (json as { id: string; songbook: string }[]).find((show) => show.id === old)!.songbook;
    await running.ask('DELETE', `/api/shows/${old}`);
    await connected(running.database, (source) =>
      source.query('UPDATE shows SET deleted_at = DATE_SUB(NOW(), INTERVAL 31 DAY) WHERE id = ?', [old]),
    );
    await running.ask('DELETE', `/api/shows/${next}`);
    expect(await deletedNames()).toContain('Next');
    expect(await deletedNames()).not.toContain('Long ago');
    const left = await connected(running.database, (source) =>
      source.query('SELECT id FROM songbooks WHERE id = ?', [book]),
    );
    expect(left).toEqual([]);
  });
});

describe('bad input leaves the documents byte for byte as they were', () => {
  const text = exportShow(demoShow());
  const file = (bad: string) => ({ kind: 'file', text: bad });
  const cases: readonly (readonly [string, unknown, number, string])[] = [
    ['not JSON inside', file('{'), 400, 'not-json'],
    ['another format', file('{"format":"x"}'), 422, 'not-this-format'],
    ['a newer version', file(text.replace('"version": 2\n}', '"version": 99\n}')), 422, 'newer-version'],
    ['a jack that is not there', file(text.replace('"send-1"', '"send-99"')), 422, 'jack-missing'],
    ['depth 100,000', file('['.repeat(100_000)), 413, 'too-deep'],
    ['an unknown kind', { kind: 'magic' }, 422, 'refused'],
    ['an unknown field in the envelope', { kind: 'demo', colour: 'red' }, 422, 'refused'],
    ['a name of 10,000 letters', { kind: 'empty', name: 'x'.repeat(10_000) }, 422, 'refused'],
  ];
  test.each(cases)('%s', async (_, body, status, code) => {
    const before = (await running.ask('GET', '/api/shows')).text;
    const answer = await running.ask('POST', '/api/shows', body);
    expect([answer.status, (answer.json as Problem).code]).toEqual([status, code]);
    expect(answer.type).toContain('application/problem+json');
    expect((answer.json as Problem).title.length).toBeGreaterThan(5);
    expect((await running.ask('GET', '/api/shows')).text).toBe(before);
  });

  const steps: readonly (readonly [string, object, number, string])[] = [
    [
      'a step into __proto__',
      { steps: [{ doc: 'rig', op: 'insert', at: ['__proto__'], value: { x: 1 } }] },
      422,
      'forbidden-key',
    ],
    ['an unknown operation', { steps: [{ doc: 'rig', op: 'merge', at: ['name'] }] }, 422, 'out-of-domain'],
    [
      'a value outside its domain',
      { steps: [{ doc: 'rig', op: 'set', at: ['devices', 'echo', 'channel'], old: 2, value: 200 }] },
      422,
      'out-of-domain',
    ],
    [
      'a jack used twice',
      {
        steps: [
          { doc: 'rig', op: 'set', at: ['cables', 'cable-2', 'plugs', '0', 'device'], old: 'tuner', value: 'guitar' },
        ],
      },
      422,
      'jack-taken',
    ],
    ['a base from the future', { base: 99 }, 422, 'out-of-domain'],
    ['no steps at all', { steps: 'none' }, 422, 'refused'],
  ];
  test.each(steps)('%s', async (_, change, status, code) => {
    const id = await made({ kind: 'demo' });
    const before = (await running.ask('GET', `/api/shows/${id}/file`)).text;
    const batch = {
      id: randomUUID(),
      base: 0,
      command: { name: 'x', facts: {} },
      steps: [{ doc: 'rig', op: 'set', at: ['name'], old: 'River-boat combo rig', value: 'X' }],
    };
    const answer = await running.ask('POST', `/api/shows/${id}/batches`, { ...batch, ...change });
    expect([answer.status, (answer.json as Problem).code]).toEqual([status, code]);
    expect((await running.ask('GET', `/api/shows/${id}/file`)).text).toBe(before);
    expect((await read(id)).revision).toBe(0);
  });

  test('markup, emoji and bidirectional marks in a name are kept as they are', async () => {
    const name = '<b>Ñandú</b> 🎸 \u202Eabc\u202C';
    const id = await made({ kind: 'empty', name });
    expect((await read(id)).rig.name).toBe(name);
  });
  test('a rig of another id, and a path out of the folder', async () => {
    expect((await running.ask('GET', '/api/shows/nobody')).status).toBe(404);
    expect((await running.ask('GET', '/..%2f..%2fetc%2fpasswd')).text).not.toContain('root:');
  });
});

describe('a local server is still a server', () => {
  test.each([
    ['a page from elsewhere', { origin: 'http://evil.example' }, 403],
    ['our own page', {}, 201],
  ])('%s', async (_, headers, status) => {
    expect(
      (await running.ask('POST', '/api/shows', { kind: 'empty', name: 'Origin' }, headers as Record<string, string>))
        .status,
    ).toBe(status);
  });
  test('another host name (a rebound address) is refused', async () => {
    const { port } = new URL(running.url);
    const status = await new Promise((resolve, reject) => {
      http
        .get({ host: '127.0.0.1', port, path: '/api/shows', headers: { host: 'rebound.example' } }, (response) =>
          resolve(response.resume().statusCode),
        )
        .on('error', reject);
    });
    expect(status).toBe(403);
  });
  test('a form post is refused', async () => {
    expect(
      (await running.ask('POST', '/api/shows', 'kind=demo', { 'content-type': 'application/x-www-form-urlencoded' }))
        .status,
    ).toBe(415);
  });
  test('the page comes with a strict content policy', async () => {
    const policy = (await fetch(`${running.url}/`)).headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).not.toMatch(/https?:|unsafe-eval/);
  });
});

describe('killed in mid-save', () => {
  const burst = (id: string, show: Show) => {
    let now: Show = show;
    return Array.from({ length: 30 }, (_, i) => {
      const command = commands.addSound(now, `s${i}`, `Sound ${i}`);
      now = {
        ...now,
        rig: {
          ...now.rig,
          sounds: { ...now.rig.sounds, [`s${i}`]: (command.steps[0] as unknown as { value: never }).value },
        },
      };
      return { id: `batch-${id}-${i}`, ...command, base: 0 };
    });
  };
  test.each(['server', 'database'] as const)(
    '%s: what was acknowledged is there, a retry is applied once',
    async (who) => {
      const id = await made({ kind: 'file', text: exportShow(emptyShow('rig', `Killed ${who}`)) });
      const batches = burst(who, await read(id));
      const acknowledged: string[] = [];
      const sending = (async () => {
        for (const batch of batches) {
          const answer = await running.ask('POST', `/api/shows/${id}/batches`, batch).catch(() => null);
          if (answer?.status !== 200) return;
          acknowledged.push(batch.id);
        }
      })();
      await new Promise((resolve) => setTimeout(resolve, 60));
      if (who === 'database') await running.killDatabase();
      await running.killServer();
      await sending;
      if (who === 'database') await running.startDatabase();
      await running.startServer();
      const after = await read(id);
      const kept = Object.keys(after.rig.sounds).length;
      expect(kept).toBeGreaterThanOrEqual(acknowledged.length);
      expect(kept).toBeLessThanOrEqual(acknowledged.length + 1);
      expect(after.revision).toBe(kept);
      for (const batch of batches)
        expect((await running.ask('POST', `/api/shows/${id}/batches`, batch)).status).toBe(200);
      const whole = await read(id);
      expect(Object.keys(whole.rig.sounds)).toHaveLength(30);
      expect(whole.revision).toBe(30);
    },
  );
});
