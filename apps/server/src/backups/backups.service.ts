import type { Writable } from 'node:stream';
import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { problem } from '@yunta/core';
import type { BackupFile, BackupKind, RestoredBackup } from '@yunta/contract';
import { DataSource } from 'typeorm';
import { connected } from '../persistence/data-source.ts';
import { migrate, migrationNames } from '../persistence/migrate.ts';
import { withRetries } from '../persistence/retry.ts';
import { ProblemException } from '../platform/problem.ts';
import { settingsToken, type ServerSettings } from '../platform/settings.ts';
import { BadBackup, BackupWriter, readBackup } from './backup-file.ts';
import { BackupFolder } from './backup-folder.ts';
import { replaceTables, tables, writeTables } from './tables.ts';

/** A restore builds here what it brings, and nothing of it shows before it is whole. */
const incoming = 'yunta_incoming';
const hour = 3_600_000;

/** Copies of all data: every day, on demand, and before what changes all of them; and the way back. */
@Injectable()
export class BackupsService implements OnApplicationShutdown {
  private readonly logger = new Logger('backups');
  private readonly folder: BackupFolder | null;
  private readonly timer: ReturnType<typeof setInterval> | null;
  /** One at a time: a restore waits for the copy before it. */
  private last: Promise<unknown> = Promise.resolve();

  constructor(
    @InjectDataSource() @Inject(DataSource) private readonly database: DataSource,
    @Inject(settingsToken) private readonly settings: ServerSettings,
  ) {
    this.folder = settings.backups === undefined ? null : new BackupFolder(settings.backups);
    this.timer = this.folder
      ? setInterval(
          () =>
            void this.daily().catch((reason: unknown) => this.logger.error(`the daily copy failed: ${String(reason)}`)),
          hour,
        )
      : null;
  }

  onApplicationShutdown(): void {
    if (this.timer) clearInterval(this.timer);
  }

  list(): readonly BackupFile[] {
    return this.folder?.list() ?? [];
  }

  pathOf(name: string): string {
    const file = this.folder?.pathOf(name) ?? null;
    if (file === null)
      throw new ProblemException([problem('', 'not-found', { what: 'backup', id: name.slice(0, 80) })]);
    return file;
  }

  /** Writes all data as they are now. */
  write(into: Writable): Promise<void> {
    return connected(this.settings.database, async (database) => {
      const runner = database.createQueryRunner();
      await writeTables(runner, new BackupWriter(into), new Date());
    });
  }

  make(kind: BackupKind): Promise<BackupFile> {
    return this.next(async () => {
      if (!this.folder) throw new Error('no folder for backups');
      const name = await this.folder.write(kind, new Date(), (into) => this.write(into));
      this.logger.log(`copied all data: ${name}`);
      return this.folder.list().find((file) => file.name === name)!;
    });
  }

  /** A copy where the newest is a day old and something changed since. */
  async daily(now = new Date()): Promise<BackupFile | null> {
    if (!this.folder) return null;
    const newest = this.list().at(0);
    if (newest && now.getTime() - Date.parse(newest.at) < 24 * hour) return null;
    const [{ changed }] = (await this.database.query('SELECT MAX(changed_at) AS changed FROM shows')) as {
      changed: Date | null;
    }[];
    if (changed === null || (newest && changed.getTime() < Date.parse(newest.at))) return null;
    return this.make('daily');
  }

  /**
   * Puts all data of a backup in the place of what is there, after a copy of that. The file is read to its end first;
   * then its tables are built apart, by its own schema, and brought up to date; then one transaction takes them over.
   */
  async restore(name: string): Promise<RestoredBackup> {
    const file = this.pathOf(name);
    await this.check(file);
    const [{ count }] = (await this.database.query('SELECT COUNT(*) AS count FROM shows')) as { count: number }[];
    const before = Number(count) > 0 ? (await this.make('before-restore')).name : null;
    return this.next(async () => {
      await this.build(file);
      const rows = await connected(this.settings.database, async (database) => {
        const runner = database.createQueryRunner();
        return withRetries(() => replaceTables(runner, incoming));
      });
      await this.dropIncoming();
      this.logger.log(`restored ${name}: ${rows.shows} rigs`);
      return { rigs: rows.shows, songbooks: rows.songbooks, edits: rows.batches, before };
    });
  }

  private async check(file: string): Promise<void> {
    try {
      await readBackup(
        file,
        ({ schema }) => {
          const unknown = schema.filter((step) => !migrationNames.includes(step));
          if (unknown.length > 0)
            throw new BadBackup(
              `It was made by a newer Yunta (${unknown.join(', ')} is not known here). Update Yunta.`,
            );
        },
        (line) => {
          if ('table' in line && !(tables as readonly string[]).includes(line.table))
            throw new BadBackup(`It holds a table "${line.table}" that is not known here.`);
        },
      );
    } catch (reason) {
      if (reason instanceof BadBackup) throw new ProblemException([problem('', 'bad-backup', { why: reason.message })]);
      throw reason;
    }
  }

  /** Builds the tables of a backup apart, in a schema that nobody reads. */
  private async build(file: string): Promise<void> {
    await this.dropIncoming();
    await connected(this.settings.database, (database) =>
      database.query(`CREATE DATABASE ${incoming} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`),
    );
    const apart = new URL(this.settings.database);
    apart.pathname = `/${incoming}`;
    await connected(apart.href, async (database) => {
      const runner = database.createQueryRunner();
      let insert = '';
      await readBackup(
        file,
        async ({ schema }) => {
          await migrate(database, { upTo: schema });
          await runner.startTransaction();
        },
        async (line) => {
          if ('row' in line) await runner.query(insert, [...line.row]);
          else
            insert = `INSERT INTO ${line.table} (${line.columns.join(', ')}) VALUES (${line.columns.map(() => '?').join(', ')})`;
        },
      );
      await runner.commitTransaction();
      await runner.release();
      await migrate(database);
    });
  }

  private async dropIncoming(): Promise<void> {
    await connected(this.settings.database, (database) => database.query(`DROP DATABASE IF EXISTS ${incoming}`));
  }

  private next<T>(work: () => Promise<T>): Promise<T> {
    const done = this.last.then(work, work);
    this.last = done.catch(() => undefined);
    return done;
  }
}
