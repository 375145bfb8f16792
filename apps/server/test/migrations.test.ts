import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { demoShow } from '@yunta/core';
import type { DataSource, QueryRunner } from 'typeorm';
import { connected } from '../src/persistence/data-source.ts';
import {
  appliedMigrations,
  migrate,
  migrationNames,
  migrations,
  NewerDatabase,
  StoppedBetween,
} from '../src/persistence/migrate.ts';
import { type Database, startDatabase } from '../../../scripts/database.mjs';

jest.setTimeout(120_000);
const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-migrations-'));
let database: Database;
beforeAll(async () => {
  database = await startDatabase(path.join(folder, 'database'), { port: 0, quiet: true });
});
afterAll(async () => {
  await database?.stop();
  rmSync(folder, { recursive: true, force: true });
});

class Cut extends Error {}

/** Lets so many statements through to the database, then none: as a kill between two of them would. */
function cutAfter(source: DataSource, count: number): { source: DataSource; done: () => number } {
  let done = 0;
  const cut = Object.create(source, {
    createQueryRunner: {
      value: () => {
        const runner = source.createQueryRunner();
        const query = runner.query.bind(runner) as QueryRunner['query'];
        runner.query = ((...words: Parameters<QueryRunner['query']>) => {
          if (done >= count) throw new Cut();
          done += 1;
          return query(...words);
        }) as QueryRunner['query'];
        return runner;
      },
    },
  }) as DataSource;
  return { source: cut, done: () => done };
}

/** Works on an empty schema. */
async function onEmpty<T>(work: (source: DataSource) => Promise<T>): Promise<T> {
  await connected(database.url, (source) =>
    source
      .query('DROP DATABASE IF EXISTS yunta')
      .then(() => source.query('CREATE DATABASE yunta CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci')),
  );
  return connected(database.url, work);
}

/** Tables, columns, keys and the rows of what people made. */
async function pictureOf(source: DataSource): Promise<object> {
  const tables = (
    (await source.query(
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY name',
    )) as { name: string }[]
  ).map(({ name }) => name);
  const made = await Promise.all(
    tables.map(async (name) => Object.values((await source.query(`SHOW CREATE TABLE ${name}`))[0] as object)[1]),
  );
  const rows = async (name: string) =>
    tables.includes(name) ? source.query(`SELECT * FROM ${name} ORDER BY 1, 2`) : [];
  return {
    made: made.map((text) => String(text).replace(/ AUTO_INCREMENT=\d+/, '')),
    shows: await rows('shows'),
    books: await rows('songbooks'),
    names: (await source.query('SELECT name FROM migrations ORDER BY timestamp')) as object,
  };
}

const unnamed = { ...demoShow().songbook, name: '' };
/** Two rigs as they were stored before songbooks were documents of their own. */
async function oldRigs(source: DataSource): Promise<void> {
  await migrate(source, { upTo: migrationNames.slice(0, 2) });
  for (const [id, songbook] of [
    ['a', demoShow().songbook],
    ['b', unnamed],
  ] as const)
    await source.query(
      "INSERT INTO shows (workspace, id, actor, name, revision, rig, songbook, devices, sounds, changed_at) VALUES ('local', ?, 'me', ?, 3, ?, ?, 1, 1, '2026-01-02 03:04:05.678900')",
      [id, `Rig ${id}`, JSON.stringify(demoShow().rig), JSON.stringify(songbook)],
    );
}

describe('bringing a schema up to date', () => {
  test.each([
    ['an empty one', async () => undefined],
    ['one with rigs of before songbooks were shared', oldRigs],
  ])('%s: cut off after any statement, it goes on to the very same schema and rows', async (_, before) => {
    const whole = await onEmpty(async (source) => {
      await before(source);
      await migrate(source);
      return pictureOf(source);
    });
    let cuts = 0;
    for (let count = 0; ; count += 1) {
      const isDone = await onEmpty(async (source) => {
        await before(source);
        const cut = cutAfter(source, count);
        try {
          await migrate(cut.source);
          return true;
        } catch (reason) {
          expect(reason).toBeInstanceOf(Cut);
        }
        await migrate(source);
        expect(await pictureOf(source)).toEqual(whole);
        return false;
      });
      if (isDone) break;
      cuts += 1;
    }
    expect(cuts).toBeGreaterThan(12);
  });

  test('every step bears being done twice', async () => {
    await onEmpty(async (source) => {
      await oldRigs(source);
      const runner = source.createQueryRunner();
      await migrate(source);
      const once = await pictureOf(source);
      for (const migration of migrations.slice(2)) await new migration().up(runner);
      expect(await pictureOf(source)).toEqual(once);
      await runner.release();
    });
  });

  test('every rig keeps the songbook that it had, and goes back to it', async () => {
    await onEmpty(async (source) => {
      await oldRigs(source);
      expect(await migrate(source)).toEqual(migrationNames.slice(2));
      const rows: { id: string; songbook_id: string; document: string; revision: number }[] = await source.query(
        'SELECT shows.id, songbook_id, document, shows.revision FROM shows JOIN songbooks ON songbooks.id = songbook_id ORDER BY id',
      );
      expect(rows.map((row) => [row.id, row.songbook_id, JSON.parse(row.document), row.revision])).toEqual([
        ['a', 'a', demoShow().songbook, 3],
        ['b', 'b', unnamed, 3],
      ]);
      const runner = source.createQueryRunner();
      for (const migration of [...migrations].slice(2).reverse()) await new migration().down(runner);
      expect(
        (await source.query('SELECT songbook FROM shows ORDER BY id')).map((row: { songbook: string }) =>
          JSON.parse(row.songbook),
        ),
      ).toEqual([demoShow().songbook, unnamed]);
      await runner.release();
    });
  });

  test('told to stop, it stops between two steps, and goes on from there', async () => {
    await onEmpty(async (source) => {
      let asked = 0;
      await expect(migrate(source, { isStopping: () => (asked += 1) > 2 })).rejects.toBeInstanceOf(StoppedBetween);
      const runner = source.createQueryRunner();
      expect(await appliedMigrations(runner)).toEqual(migrationNames.slice(0, 2));
      await runner.release();
      expect(await migrate(source)).toEqual(migrationNames.slice(2));
    });
  });

  test('a copy is made first where there are data, and none on a first start or where nothing is to be done', async () => {
    let copies = 0;
    const beforeUpgrade = () => Promise.resolve(void (copies += 1));
    await onEmpty(async (source) => {
      await migrate(source, { upTo: migrationNames.slice(0, 2), beforeUpgrade });
      expect(copies).toBe(0);
      await migrate(source, { beforeUpgrade });
      expect(copies).toBe(1);
      await migrate(source, { beforeUpgrade });
      expect(copies).toBe(1);
    });
  });

  test('a database that a newer program has used is refused with a sentence, and left alone', async () => {
    await onEmpty(async (source) => {
      await migrate(source);
      await source.query("INSERT INTO migrations (timestamp, name) VALUES (9999999999999, 'Holograms9999999999999')");
      const before = await pictureOf(source);
      await expect(migrate(source)).rejects.toThrow(NewerDatabase);
      await expect(migrate(source)).rejects.toThrow(/newer Yunta.*Holograms9999999999999.*Nothing was changed/);
      expect(await pictureOf(source)).toEqual(before);
    });
  });
});
