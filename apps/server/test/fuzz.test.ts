import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { commands, exportShow, type Show, starterById } from '@yunta/core';
import { mutate, copied, type Json, Random } from '@yunta/core/testing';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(120_000);
const running = new Running();
/** The rigs that were there at first, as files. */
const atFirst = new Map<string, string>();
beforeAll(async () => {
  await running.start();
  for (const { id } of await listed()) atFirst.set(id, (await running.ask('GET', `/api/shows/${id}/file`)).text);
});
afterAll(() => running.stop());

type Answer = Awaited<ReturnType<Running['ask']>>;
const send = (where: string, body: Json, method = 'POST'): Promise<Answer> => running.ask(method, where, body);
const listed = async (): Promise<readonly { readonly id: string; readonly revision: number }[]> =>
  (await running.ask('GET', '/api/shows')).json;

/** Refused in the one shape of errors: never a fault of the server, never without a reason. */
function isRefusal({ status, type, json }: Answer): void {
  expect([400, 404, 409, 413, 422]).toContain(status);
  expect(type).toContain('application/problem+json');
  const {
    title,
    status: answered,
    code,
    errors,
  } = json as { title: string; status: number; code: string; errors?: { pointer: string; message?: string }[] };
  expect([answered, typeof code]).toEqual([status, 'string']);
  expect(title).toMatch(/\S/);
  for (const error of errors ?? []) expect(error.pointer).toMatch(/^(\/|$)/);
}

describe('mutated requests', () => {
  test('a file becomes a rig that comes back as it was read, or no rig at all', async () => {
    const file = exportShow(starterById('four-cable').make('four-cable', 'Four-cable'));
    let [taken, refused] = [0, 0];
    for (let seed = 1; seed <= 60; seed += 1) {
      const data = JSON.parse(file) as Json;
      mutate(data, new Random(seed));
      const before = await listed();
      const answer = await send('/api/shows', { kind: 'file', text: JSON.stringify(data) });
      if (answer.status === 201) {
        taken += 1;
        const { id } = answer.json as { id: string };
        const { text } = await running.ask('GET', `/api/shows/${id}/file`);
        const again = await send('/api/shows', { kind: 'file', text });
        expect(again.status).toBe(201);
        for (const text of [id, (again.json as { id: string }).id]) await send(`/api/shows/${text}`, {}, 'DELETE');
      } else {
        refused += 1;
        isRefusal(answer);
        expect(await listed()).toEqual(before);
      }
    }
    expect(taken).toBeGreaterThan(5);
    expect(refused).toBeGreaterThan(20);
  });

  test('a batch is applied as a revision of its own, or the rig stays byte for byte as it was', async () => {
    const { id } = (await running.ask('POST', '/api/shows', { kind: 'demo' })).json as { id: string };
    let [taken, refused] = [0, 0];
    for (let seed = 1; seed <= 80; seed += 1) {
      const show = (await running.ask('GET', `/api/shows/${id}`)).json as Show & { revision: number };
      const before = (await running.ask('GET', `/api/shows/${id}/file`)).text;
      const r = new Random(seed);
      const make = r.pick([
        () => commands.want(show, 'sound-1', 'echo/preset', r.below(128)),
        () => commands.setDevice(show, 'hall', 'channel', 1 + r.below(16)),
        () => commands.wantPedal(show, 'sound-2', 'drive-1', r.pick(['on', 'off'])),
        () => commands.setSound(show, 'sound-3', 'role', r.pick(['solo', 'rhythm'])),
      ]);
      const batch = copied({ id: randomUUID(), ...make(), base: show.revision } as unknown as Json);
      mutate(batch, r);
      const answer = await send(`/api/shows/${id}/batches`, batch);
      const after = (await running.ask('GET', `/api/shows/${id}`)).json as { revision: number };
      if (answer.status === 200) {
        taken += 1;
        expect(after.revision).toBe(show.revision + 1);
      } else {
        refused += 1;
        isRefusal(answer);
        expect(after.revision).toBe(show.revision);
        expect((await running.ask('GET', `/api/shows/${id}/file`)).text).toBe(before);
      }
    }
    expect(taken).toBeGreaterThan(5);
    expect(refused).toBeGreaterThan(20);
  });

  test('ticks and requests for a rig, too', async () => {
    const { id } = (await running.ask('POST', '/api/shows', { kind: 'demo' })).json as { id: string };
    const asked: readonly (readonly [string, string, Json])[] = [
      ['POST', '/api/shows', { kind: 'starter', starter: 'four-cable', name: 'Tour' }],
      ['POST', `/api/shows/${id}/own-songbook`, {}],
      ['PUT', `/api/shows/${id}/ticks`, { line: 'slot-sound-1', said: 'Loop 1 in', done: true }],
    ];
    let refused = 0;
    for (let seed = 1; seed <= 90; seed += 1) {
      const r = new Random(seed);
      const [method, where, body] = r.pick(asked);
      const wrapped: Json = { body: copied(body) };
      mutate(wrapped, r);
      const answer = await send(where, wrapped.body ?? null, method);
      if (answer.status >= 300) {
        refused += 1;
        isRefusal(answer);
      }
    }
    expect(refused).toBeGreaterThan(20);
    expect((await running.ask('GET', '/health')).json).toEqual({ server: 'ok', database: 'ok' });
  });

  test('changes no other rig', async () => {
    for (const [id, text] of atFirst) expect((await running.ask('GET', `/api/shows/${id}/file`)).text).toBe(text);
    expect(atFirst.size).toBe(2);
  });
});
