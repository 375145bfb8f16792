import type { QueryRunner } from 'typeorm';
import { appliedMigrations } from '../persistence/migrate.ts';
import { hasTable } from '../persistence/schema.ts';
import { BackupWriter, type Cell } from './backup-file.ts';

/** All that people made, those first that others refer to. */
export const tables = ['songbooks', 'shows', 'batches', 'ticks', 'revisions', 'device_types'] as const;
const rowsAtOnce = 200;

interface Column {
  readonly name: string;
  readonly type: string;
  readonly isKey: boolean;
}

async function columnsOf(runner: QueryRunner, table: string): Promise<readonly Column[]> {
  const found = (await runner.query(
    'SELECT column_name AS name, data_type AS type, column_key AS isKey FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position',
    [table],
  )) as { name: string; type: string; isKey: string }[];
  return found.map(({ name, type, isKey }) => ({ name, type, isKey: isKey === 'PRI' }));
}

/** Writes every table as it stood at one moment, whatever schema the database has. */
export async function writeTables(runner: QueryRunner, writer: BackupWriter, made: Date): Promise<void> {
  await runner.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
  await runner.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');
  try {
    await writer.header(await appliedMigrations(runner), made);
    for (const table of tables) if (await hasTable(runner, table)) await writeTable(runner, writer, table);
  } finally {
    await runner.query('COMMIT');
  }
  await writer.end();
}

async function writeTable(runner: QueryRunner, writer: BackupWriter, table: string): Promise<void> {
  const columns = await columnsOf(runner, table);
  const names = columns.map(({ name }) => name);
  await writer.table(table, names);
  // Times as text: a Date would lose the microseconds.
  const cells = columns
    .map(({ name, type }) => (type === 'datetime' ? `CAST(${name} AS CHAR) AS ${name}` : name))
    .join(', ');
  const keys = columns
    .filter(({ isKey }) => isKey)
    .map(({ name }) => name)
    .join(', ');
  for (let done = 0; ; done += rowsAtOnce) {
    const rows = (await runner.query(
      `SELECT ${cells} FROM ${table} ORDER BY ${keys} LIMIT ${rowsAtOnce} OFFSET ${done}`,
    )) as Record<string, Cell>[];
    for (const row of rows) await writer.row(names.map((name) => row[name]));
    if (rows.length < rowsAtOnce) return;
  }
}

/** Puts all of one schema's tables in the place of another's, in one transaction: all of it or nothing. */
export async function replaceTables(
  runner: QueryRunner,
  from: string,
): Promise<Record<(typeof tables)[number], number>> {
  const counts: Record<string, number> = {};
  await runner.startTransaction();
  try {
    for (const table of [...tables].reverse()) await runner.query(`DELETE FROM ${table}`);
    for (const table of tables) {
      const names = (await columnsOf(runner, table)).map(({ name }) => name).join(', ');
      counts[table] = (
        (await runner.query(`INSERT INTO ${table} (${names}) SELECT ${names} FROM ${from}.${table}`)) as {
          affectedRows: number;
        }
      ).affectedRows;
    }
    await runner.commitTransaction();
  } catch (reason) {
    await runner.rollbackTransaction();
    throw reason;
  }
  return counts;
}
