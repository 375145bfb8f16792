import type { DataSource, MigrationInterface, QueryRunner } from 'typeorm';
import { Documents1764000000001 } from './migrations/1-documents.ts';
import { Ticks1764050000002 } from './migrations/2-ticks.ts';
import { Songbooks1764100000003 } from './migrations/3-songbooks.ts';
import { BatchIds1764200000004 } from './migrations/4-batch-ids.ts';
import { Revisions1764200000005 } from './migrations/5-revisions.ts';
import { DeviceTypes1764300000006 } from './migrations/6-device-types.ts';
import { DeletedShows1764300000007 } from './migrations/7-deleted-shows.ts';
import { hasTable } from './schema.ts';

/**
 * In their order. Each may be cut off after any of its statements (a table definition commits by itself, and power
 * goes when it likes) and is then run again from its beginning: so every statement must bear being run twice.
 */
export const migrations: readonly (new () => MigrationInterface & { readonly name: string })[] = [
  Documents1764000000001,
  Ticks1764050000002,
  Songbooks1764100000003,
  BatchIds1764200000004,
  Revisions1764200000005,
  DeviceTypes1764300000006,
  DeletedShows1764300000007,
];

export const migrationNames: readonly string[] = migrations.map((migration) => new migration().name);

/** The database knows steps that this program does not: a newer one has used it. */
export class NewerDatabase extends Error {
  constructor(readonly unknown: readonly string[]) {
    super(
      `These data were last used by a newer Yunta (${unknown.join(', ')} is not known here). Update Yunta, or point YUNTA_HOME to another folder. Nothing was changed.`,
    );
  }
}

/** Told to stop, the schema is left after a whole step; the next start goes on from there. */
export class StoppedBetween extends Error {}

/** Names of the steps that a database has been through, oldest first. */
export async function appliedMigrations(runner: QueryRunner): Promise<readonly string[]> {
  if (!(await hasTable(runner, 'migrations'))) return [];
  return ((await runner.query('SELECT name FROM migrations ORDER BY timestamp')) as { name: string }[]).map(
    ({ name }) => name,
  );
}

export interface Migrating {
  /** Names of the steps to go to; all where absent. */
  readonly upTo?: readonly string[];
  /** Called once where there are data and steps to do. */
  readonly beforeUpgrade?: (applied: readonly string[]) => Promise<void>;
  readonly isStopping?: () => boolean;
}

/** Brings the schema up to date, step by step. Returns the steps done. */
export async function migrate(
  database: DataSource,
  { upTo = migrationNames, beforeUpgrade, isStopping = () => false }: Migrating = {},
): Promise<readonly string[]> {
  const runner = database.createQueryRunner();
  try {
    const applied = await appliedMigrations(runner);
    const unknown = applied.filter((name) => !migrationNames.includes(name));
    if (unknown.length > 0) throw new NewerDatabase(unknown);
    const toDo = migrations
      .map((migration) => new migration())
      .filter(({ name }) => upTo.includes(name) && !applied.includes(name));
    if (toDo.length === 0) return [];
    if (applied.length > 0) await beforeUpgrade?.(applied);
    await runner.query(
      'CREATE TABLE IF NOT EXISTS migrations (id int NOT NULL AUTO_INCREMENT, timestamp bigint NOT NULL, name varchar(255) NOT NULL, PRIMARY KEY (id)) ENGINE=InnoDB',
    );
    for (const migration of toDo) {
      if (isStopping()) throw new StoppedBetween('told to stop');
      await migration.up(runner);
      await runner.query('INSERT INTO migrations (timestamp, name) VALUES (?, ?)', [
        Number(/\d+$/.exec(migration.name)![0]),
        migration.name,
      ]);
    }
    return toDo.map(({ name }) => name);
  } finally {
    await runner.release();
  }
}
