import type { DataSourceOptions } from 'typeorm';
import { BatchRow, ShowRow, SongbookRow, TickRow } from './entities.ts';
import { Documents1764000000001 } from './migrations/1-documents.ts';
import { Ticks1764050000002 } from './migrations/2-ticks.ts';
import { Songbooks1764100000003 } from './migrations/3-songbooks.ts';

/** From YUNTA_DATABASE, a mysql URL. Migrations only: the schema is never synchronised from the entities. */
export function databaseOptions(url: string): DataSourceOptions {
  return {
    type: 'mariadb',
    url,
    charset: 'utf8mb4',
    timezone: 'Z',
    entities: [ShowRow, SongbookRow, BatchRow, TickRow],
    migrations: [Documents1764000000001, Ticks1764050000002, Songbooks1764100000003],
    migrationsRun: true,
    synchronize: false,
    poolSize: 8,
    // Documents are kept and read as the text they are.
    extra: { jsonStrings: true },
  };
}
