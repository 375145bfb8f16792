import { DataSource, type DataSourceOptions } from 'typeorm';
import { BatchRow, DeviceTypeRow, RevisionRow, ShowRow, SongbookRow, TickRow } from './entities.ts';

/** No query may take longer, ms: past it the database counts as away. */
export const queryLimit = 10_000;

/**
 * From YUNTA_DATABASE, a mysql URL. The schema is never synchronised from the entities: `migrate` brings it up to date
 * before anything else. `unlimited` is for those that move whole tables.
 */
export function databaseOptions(url: string, { unlimited = false } = {}): DataSourceOptions {
  return {
    type: 'mariadb',
    url,
    charset: 'utf8mb4',
    timezone: 'Z',
    entities: [ShowRow, SongbookRow, BatchRow, TickRow, RevisionRow, DeviceTypeRow],
    migrationsRun: false,
    synchronize: false,
    poolSize: unlimited ? 4 : 8,
    connectTimeout: 3000,
    ...(unlimited ? {} : { enableQueryTimeout: true, maxQueryExecutionTime: queryLimit }),
    // Documents are kept and read as the text they are.
    extra: { jsonStrings: true },
  };
}

/** Works over a connection of its own, which is closed afterwards. */
export async function connected<T>(url: string, work: (database: DataSource) => Promise<T>): Promise<T> {
  const database = await new DataSource(databaseOptions(url, { unlimited: true })).initialize();
  try {
    return await work(database);
  } finally {
    await database.destroy();
  }
}
