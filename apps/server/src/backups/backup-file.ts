import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { createGunzip, createGzip, type Gzip } from 'node:zlib';
import { once } from 'node:events';
import type { Writable } from 'node:stream';

/**
 * A backup: gzip over lines of JSON. First the header; then for each table a line with its name and columns, and a
 * line a row, each cell a text, a number or null; last a line that counts the rows and holds the SHA-256 of all lines
 * before it, so that a file cut short or changed is refused.
 */
export const backupFormat = 'yunta-backup';
export const backupVersion = 1;

export interface BackupHeader {
  readonly format: typeof backupFormat;
  readonly version: number;
  /** Names of the steps that the schema had been through: a restore goes on from there. */
  readonly schema: readonly string[];
  readonly made: string;
}

export type Cell = string | number | null;

/** Why a file is no backup, in a sentence. */
export class BadBackup extends Error {}

/** Writes the lines, and waits where the other side is slow. */
export class BackupWriter {
  private readonly gzip: Gzip = createGzip();
  private readonly hash = createHash('sha256');
  private rows = 0;
  private broken: Error | null = null;

  constructor(private readonly into: Writable) {
    const broke = (reason: Error) => (this.broken ??= reason);
    this.gzip.on('error', broke).pipe(into).on('error', broke);
  }

  header(schema: readonly string[], made: Date): Promise<void> {
    return this.line({
      format: backupFormat,
      version: backupVersion,
      schema,
      made: made.toISOString(),
    } satisfies BackupHeader);
  }

  table(table: string, columns: readonly string[]): Promise<void> {
    return this.line({ table, columns });
  }

  row(cells: readonly Cell[]): Promise<void> {
    this.rows += 1;
    return this.line({ row: cells });
  }

  /** Writes the last line and waits until all of it is with the other side. */
  async end(): Promise<void> {
    await this.line({ end: true, rows: this.rows, sha256: this.hash.digest('hex') }, false);
    this.gzip.end();
    if (!this.into.writableFinished) await once(this.into, 'finish');
    if (this.broken) throw this.broken;
  }

  private async line(data: object, counted = true): Promise<void> {
    if (this.broken) throw this.broken;
    const text = `${JSON.stringify(data)}\n`;
    if (counted) this.hash.update(text);
    if (!this.gzip.write(text)) await once(this.gzip, 'drain');
  }
}

export type BackupLine =
  { readonly table: string; readonly columns: readonly string[] } | { readonly row: readonly Cell[] };

/** No table or column of ours is called otherwise; names go into statements. */
const plainName = /^[a-z_]{1,40}$/;

/**
 * Reads a backup from the first line to the last: gives the header to `begin`, then each line to `each`. Throws
 * BadBackup where the file is not whole; what was given until then must not be kept.
 */
export async function readBackup(
  file: string,
  begin: (header: BackupHeader) => void | Promise<void>,
  each: (line: BackupLine) => void | Promise<void>,
): Promise<void> {
  const source = createReadStream(file);
  const gunzip = createGunzip();
  const lines = createInterface({ input: source.pipe(gunzip), crlfDelay: Infinity });
  let broken: Error | null = null;
  source.on('error', (reason) => gunzip.destroy(reason));
  gunzip.on('error', (reason) => (broken = reason));
  const hash = createHash('sha256');
  let rows = 0;
  let columns = -1;
  let state: 'header' | 'rows' | 'ended' = 'header';
  try {
    for await (const text of lines) {
      const line = parsed(text);
      if (state === 'ended') throw new BadBackup('There is something after its end.');
      if (state === 'header') {
        await begin(headerOf(line));
        state = 'rows';
      } else if ('end' in line) {
        if (line.rows !== rows || line.sha256 !== hash.digest('hex'))
          throw new BadBackup('It was changed after it was written, or written badly.');
        state = 'ended';
        continue;
      } else if ('table' in line) {
        const names = line.columns;
        if (
          typeof line.table !== 'string' ||
          !plainName.test(line.table) ||
          !Array.isArray(names) ||
          !names.every((name) => typeof name === 'string' && plainName.test(name))
        )
          throw new BadBackup('A table in it has no proper name.');
        columns = names.length;
        await each({ table: line.table, columns: names as string[] });
      } else {
        if (!Array.isArray(line.row) || line.row.length !== columns || !line.row.every(isCell))
          throw new BadBackup('A row in it does not fit its table.');
        rows += 1;
        await each({ row: line.row });
      }
      hash.update(`${text}\n`);
    }
  } catch (reason) {
    if (broken === null || reason instanceof BadBackup) throw reason;
  } finally {
    source.destroy();
  }
  if (broken !== null || state !== 'ended')
    throw new BadBackup(
      state === 'header' ? 'This is no backup of Yunta.' : 'It ends in the middle: it was cut short.',
    );
}

const isCell = (value: unknown): value is Cell =>
  value === null || typeof value === 'string' || typeof value === 'number';

function parsed(text: string): Record<string, unknown> {
  try {
    const data = JSON.parse(text) as unknown;
    if (data !== null && typeof data === 'object' && !Array.isArray(data)) return data as Record<string, unknown>;
  } catch {
    // Told below.
  }
  throw new BadBackup('This is no backup of Yunta.');
}

function headerOf(line: Record<string, unknown>): BackupHeader {
  const { format, version, schema, made } = line;
  if (format !== backupFormat) throw new BadBackup('This is no backup of Yunta.');
  if (version !== backupVersion)
    throw new BadBackup(
      `It was written by a newer Yunta (version ${String(version)}; this one reads ${backupVersion}). Update Yunta.`,
    );
  if (!Array.isArray(schema) || !schema.every((name) => typeof name === 'string') || typeof made !== 'string')
    throw new BadBackup('Its first line is not whole.');
  return { format, version, schema, made };
}
