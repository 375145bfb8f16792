import { randomUUID } from 'node:crypto';
import http from 'node:http';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { batchLimits, commands, type Show } from '@yunta/core';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(120_000);
const running = new Running();
beforeAll(() => running.start());
afterAll(() => running.stop());

type ErrorBody = {
  readonly status: number;
  readonly code: string;
  readonly errors: readonly { pointer: string; code: string }[];
};
const make = async (body: unknown): Promise<string> =>
  ((await running.ask('POST', '/api/shows', body)).json as { id: string }).id;
const read = async (id: string): Promise<Show & { revision: number }> =>
  (await running.ask('GET', `/api/shows/${id}`)).json;
const batchOf = (steps: readonly object[], extra: object = {}) => ({
  id: randomUUID(),
  base: 0,
  command: { name: 'rename', facts: {} },
  steps,
  ...extra,
});
const rename = (show: Show, name: string) => commands.renameRig(show, name).steps;
const many = (count: number, each: (i: number) => string) => Array.from({ length: count }, (_, i) => each(i)).join(',');

/** The longest that another had to wait for an answer while something was going on, ms. */
async function longestWait<T>(work: () => Promise<T>): Promise<{ result: T; longest: number }> {
  let longest = 0;
  let isOn = true;
  const asking = (async () => {
    while (isOn) {
      const from = performance.now();
      await running.ask('GET', '/api/schema');
      longest = Math.max(longest, performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  const result = await work();
  isOn = false;
  await asking;
  return { result, longest };
}

describe('a body', () => {
  test.each([
    ['of a hundred thousand unknown fields', `{${many(100_000, (i) => `"k${i}":${i}`)}}`, 422, 'unknown-field'],
    ['nested a million deep', `{"steps":${'['.repeat(1_000_000)}${']'.repeat(900_000)}}`, 413, 'too-deep'],
    ['of too many entries', `{"steps":[${many(300_000, () => '0')}]}`, 413, 'too-large'],
    ['over two megabytes', `{"x":"${'a'.repeat(batchLimits.bytes)}"}`, 413, 'too-large'],
    [
      'of steps with a hundred thousand unknown fields',
      JSON.stringify(
        batchOf([
          {
            doc: 'rig',
            op: 'set',
            at: ['name'],
            old: 'Bodies',
            value: 'x',
            ...Object.fromEntries(Array.from({ length: 90_000 }, (_, i) => [`k${i}`, i])),
          },
        ]),
      ),
      422,
      'unknown-field',
    ],
    [
      'of a sound with a hundred thousand unknown fields',
      JSON.stringify(
        batchOf([
          {
            doc: 'rig',
            op: 'insert',
            at: ['sounds', 'x'],
            value: Object.fromEntries(Array.from({ length: 90_000 }, (_, i) => [`k${i}`, i])),
          },
        ]),
      ),
      422,
      'missing-field',
    ],
    [
      'of a parameter as large as a body may be',
      JSON.stringify(
        batchOf([
          {
            doc: 'rig',
            op: 'insert',
            at: ['devices', 'x'],
            value: {
              id: 'x',
              type: {
                params: Object.fromEntries(
                  Array.from({ length: 59 }, (_, i) => [`p${i}`, Array.from({ length: 1500 }, () => ({}))]),
                ),
              },
            },
          },
        ]),
      ),
      422,
      'missing-field',
    ],
    ['that is no JSON', '{"id":', 400, 'not-json'],
    ['that is a list', '[]', 400, 'not-json'],
    ['that is not UTF-8', Buffer.from([0x7b, 0xff, 0xfe, 0x7d]), 400, 'not-json'],
  ])('%s is refused, and nobody waits for it', async (_, body, status, code) => {
    const id = await make({ kind: 'empty', name: 'Bodies' });
    const { result, longest } = await longestWait(() =>
      fetch(`${running.url}/api/shows/${id}/batches`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      }),
    );
    expect([result.status, ((await result.json()) as ErrorBody).code]).toEqual([status, code]);
    expect(longest).toBeLessThan(1000);
    expect(await read(id)).toMatchObject({ revision: 0, rig: { name: 'Bodies' } });
  });

  test('that is compressed is refused before it is inflated', async () => {
    const id = await make({ kind: 'empty', name: 'Squeezed' });
    const body = gzipSync(`{"x":"${'a'.repeat(30_000_000)}"}`);
    expect(body.length).toBeLessThan(40_000);
    const before = process.memoryUsage().rss;
    const answers = await Promise.all(
      [1, 2, 3, 4].map(() =>
        fetch(`${running.url}/api/shows/${id}/batches`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
          body,
        }),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual([415, 415, 415, 415]);
    expect(process.memoryUsage().rss - before).toBeLessThan(500_000_000);
  });

  test('that never ends is cut off at its limit', async () => {
    const status = await new Promise((resolve) => {
      const request = http.request(
        `${running.url}/api/shows`,
        { method: 'POST', headers: { 'content-type': 'application/json', 'transfer-encoding': 'chunked' } },
        (response) => resolve(response.statusCode),
      );
      request.on('error', () => resolve('cut off'));
      const chunk = Buffer.alloc(1_000_000, 0x20);
      let sent = 0;
      const more = (): void => {
        if ((sent += 1) > 200 || request.destroyed) return;
        request.write(chunk, () => setImmediate(more));
      };
      more();
    });
    expect([413, 'cut off']).toContain(status);
    expect((await running.ask('GET', '/health')).status).toBe(200);
  });
});

describe('a batch', () => {
  test('whose id differs from another in capitals alone is another one', async () => {
    const id = await make({ kind: 'empty', name: 'Case' });
    const send = (name: string, batch: string, base: number) =>
      read(id).then((show) =>
        running.ask('POST', `/api/shows/${id}/batches`, {
          id: batch,
          base,
          command: { name: 'rename', facts: { name } },
          steps: rename(show, name),
        }),
      );
    expect(await send('One', 'batch-a', 0)).toMatchObject({ status: 200, json: { revision: 1, repeated: false } });
    expect(await send('Two', 'BATCH-A', 1)).toMatchObject({ status: 200, json: { revision: 2, repeated: false } });
    expect((await read(id)).rig.name).toBe('Two');
    expect((await running.ask('GET', `/api/shows/${id.toUpperCase()}`)).status).toBe(404);
  });

  test('that changes nothing leaves no trace in the history', async () => {
    const id = await make({ kind: 'empty', name: 'Still' });
    const show = await read(id);
    const same = [
      { doc: 'rig', op: 'set', at: ['name'], old: 'Still', value: 'Still' },
      {
        doc: 'rig',
        op: 'set',
        at: ['settings', 'roles'],
        old: show.rig.settings.roles,
        value: show.rig.settings.roles,
      },
    ];
    expect(await running.ask('POST', `/api/shows/${id}/batches`, batchOf(same))).toMatchObject({
      status: 422,
      json: { code: 'nothing-changes' },
    });
    expect((await running.ask('GET', `/api/shows/${id}/history`)).json).toEqual([]);
  });

  test.each([
    ['past the end of a list', 'insert', ['settings', 'roles', '99'], { value: 'x' }],
    ['at -1', 'insert', ['settings', 'roles', '-1'], { value: 'x' }],
    ['at no number', 'insert', ['settings', 'roles', 'foo'], { value: 'x' }],
    ['removed past the end', 'remove', ['settings', 'roles', '5'], { old: null }],
    ['half a character', 'set', ['name'], { old: 'Csr', value: 'Moon \ud83c' }],
    ['a control character', 'set', ['name'], { old: 'Csr', value: 'Moon \u0000' }],
  ])('%s is refused, and the rig stays as it is and can be edited', async (_, op, at, words) => {
    const id = await make({ kind: 'empty', name: 'Csr' });
    const before = await read(id);
    expect(
      (await running.ask('POST', `/api/shows/${id}/batches`, batchOf([{ doc: 'rig', op, at, ...words }]))).status,
    ).toBe(422);
    expect(await read(id)).toEqual(before);
    expect((await running.ask('POST', `/api/shows/${id}/batches`, batchOf(rename(before, 'Better')))).status).toBe(200);
  });

  test('keeps a name in composed form', async () => {
    const id = await make({ kind: 'empty', name: 'Cafe\u0301' });
    expect((await read(id)).rig.name).toBe('Caf\u00e9');
    await running.ask('POST', `/api/shows/${id}/batches`, batchOf(rename(await read(id), 'Bra\u0308u')));
    expect((await read(id)).rig.name).toBe('Br\u00e4u');
  });
});

describe('a new rig', () => {
  test.each(['rig', 'starter', 'name', 'songbookOf', 'text'])(
    'is refused where the field %s is null',
    async (field) => {
      expect(
        (await running.ask('POST', '/api/shows', { kind: 'starter', starter: 'four-cable', [field]: null })).status,
      ).toBe(422);
    },
  );
  test.each([
    ['a control character', 'Win\u0007ter'],
    ['half a character', 'Winter \ud83c'],
    ['more than 200 letters in composed form', '\u0958'.repeat(150)],
  ])('is not made with %s in its name', async (_, name) => {
    const before = (await running.ask('GET', '/api/shows')).json;
    for (const body of [
      { kind: 'empty', name },
      { kind: 'starter', starter: 'four-cable', name },
    ]) {
      const answer = await running.ask('POST', '/api/shows', body);
      expect([answer.status, (answer.json as ErrorBody).errors.map(({ pointer }) => pointer)]).toEqual([
        answer.status === 413 ? 413 : 422,
        ['/name'],
      ]);
    }
    expect((await running.ask('GET', '/api/shows')).json).toEqual(before);
  });
});
