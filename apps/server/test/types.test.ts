import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { catalogue, type DeviceType, typesSchema, writeTypes } from '@yunta/core';
import type { KeptType } from '@yunta/contract';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(60_000);
const running = new Running();
beforeAll(() => running.start());
afterAll(() => running.stop());

const typical = catalogue.find(({ type }) => type.id === 'delay')!.type;
const named = (id: string, name: string, revision = 1): DeviceType => ({ ...typical, id, name, revision });
const keep = (type: DeviceType, base: number | null) =>
  running.ask('PUT', `/api/types/${encodeURIComponent(type.id)}`, { base, type });
const kept = async (): Promise<DeviceType[]> =>
  ((await running.ask('GET', '/api/types')).json as KeptType[]).map(({ type }) => type);
const bring = (text: string) => running.ask('POST', '/api/types/file', { text });

describe('types that people made', () => {
  test('are kept, kept again as the next revision, listed by name and removed', async () => {
    expect(await keep(named('own-tape', 'Tape echo'), null)).toMatchObject({ status: 200, json: { revision: 1 } });
    expect((await keep(named('own-tape', 'Tape echo, worn'), 1)).json).toEqual(named('own-tape', 'Tape echo, worn', 2));
    await keep(named('own-aa', 'A box'), null);
    expect(await kept()).toEqual([named('own-aa', 'A box'), named('own-tape', 'Tape echo, worn', 2)]);
    expect((await running.ask('DELETE', '/api/types/own-aa')).status).toBe(204);
    expect((await running.ask('DELETE', '/api/types/own-aa')).status).toBe(404);
    expect(await kept()).toHaveLength(1);
  });

  test('one that was removed is kept again at the revision that rigs know it by', async () => {
    expect((await keep(named('own-back', 'Back', 4), null)).json).toMatchObject({ revision: 4 });
    expect((await keep(named('own-back', 'Back', 4), 4)).json).toMatchObject({ revision: 5 });
    expect((await keep(named('own-back', 'Late', 4), 4)).status).toBe(409);
  });

  test('of two who keep one at once, the second is told, and nothing of the first is lost', async () => {
    await keep(named('own-two', 'Two'), null);
    const both = await Promise.all([keep(named('own-two', 'Mine'), 1), keep(named('own-two', 'Yours'), 1)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const won = both.find(({ status }) => status === 200)!.json as DeviceType;
    expect((await kept()).find(({ id }) => id === 'own-two')).toEqual(won);
    const fresh = await Promise.all([keep(named('own-new', 'A'), null), keep(named('own-new', 'B'), null)]);
    expect(fresh.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  test.each([
    ['no archetype of that name', { ...named('own-bad', 'Bad'), archetype: 'kazoo' }, null, 422],
    ['a setting that there is not', { ...named('own-bad', 'Bad'), params: { horn: 1 } }, null, 422],
    ['a name of control characters', named('own-bad', 'B\u0007d'), null, 422],
    ['the id of a generic type', named('delay', 'Delay'), null, 409],
    ['a revision of one that is not there', named('own-none', 'None'), 3, 404],
  ] as const)('%s: refused, nothing kept', async (_, type, base, status) => {
    const before = await kept();
    expect((await keep(type, base)).status).toBe(status);
    expect(await kept()).toEqual(before);
  });

  test('a file comes in whole: new ones, later ones, what is there already, and others beside', async () => {
    await keep(named('own-later', 'Later'), null);
    await keep(named('own-same', 'Same'), null);
    await keep(named('own-other', 'Other'), null);
    const file = writeTypes([
      named('own-later', 'Later, mended', 5),
      named('own-same', 'Same'),
      named('own-other', 'Other, elsewhere'),
      named('own-fresh', 'Fresh', 3),
      named('delay', 'Delay of somebody', 9),
    ]);
    expect((await bring(file)).json).toEqual({ added: 1, newer: 1, same: 1, another: 2 });
    const names = (await kept()).map(({ name, revision }) => `${name} ${revision}`);
    for (const name of ['Later, mended 5', 'Same 1', 'Other 1', 'Other, elsewhere 1', 'Fresh 3', 'Delay of somebody 9'])
      expect(names).toContain(name);
  });

  test('a file with one bad type brings in none, and says where it is', async () => {
    const before = await kept();
    const answer = await bring(
      writeTypes([named('own-good', 'Good'), { ...named('own-x', 'X'), params: { horn: 1 } }]),
    );
    expect(answer).toMatchObject({ status: 422, json: { errors: [{ pointer: '/types/1/params/horn' }] } });
    expect((await bring('{')).status).toBe(400);
    expect(await kept()).toEqual(before);
  });

  test('the published schema takes what is written, and refuses another field', async () => {
    const { json } = await running.ask('GET', '/api/types/schema');
    expect(json).toEqual(JSON.parse(JSON.stringify(typesSchema)));
    const valid = new Ajv2020({ strict: false }).compile(json as object);
    expect(valid(JSON.parse(writeTypes(await kept())))).toBe(true);
    expect(valid({ format: 'yunta-types', version: 1, types: [], more: 1 })).toBe(false);
  });
});
