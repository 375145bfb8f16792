import type { DataSourceOptions } from 'typeorm';
import { BatchRow, ShowRow } from './entities.ts';
import { Documents1764000000001 } from './migrations/1-documents.ts';

/** From YUNTA_DATABASE, a mysql URL. Migrations only: the schema is never synchronised from the entities. */
export function databaseOptions(url: string): DataSourceOptions {
  return {
    type: 'mariadb',
    url,
    charset: 'utf8mb4',
    timezone: 'Z',
    entities: [ShowRow, BatchRow],
    migrations: [Documents1764000000001],
    migrationsRun: true,
    synchronize: false,
    poolSize: 8,
    // Documents are kept and read as the text they are.
    extra: { jsonStrings: true },
  };
}
