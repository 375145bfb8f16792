import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { backupsKept } from '@yunta/contract';
import type { Writable } from 'node:stream';
import { BackupFolder } from '../src/backups/backup-folder.ts';

const top = mkdtempSync(path.join(os.tmpdir(), 'yunta-backups-'));
afterAll(() => rmSync(top, { recursive: true, force: true }));

const day = 86_400_000;
const first = Date.parse('2026-03-01T06:00:00.500Z');
const filled = (text: string) => (into: Writable) =>
  new Promise<void>((resolve, reject) => void into.on('error', reject).end(text, () => resolve()));

describe('the folder of backups', () => {
  test('keeps the newest of each kind, and the other kinds for it', async () => {
    const folder = new BackupFolder(path.join(top, 'a'));
    await folder.write('manual', new Date(first - day), filled('by hand'));
    for (let n = 0; n < backupsKept.daily + 3; n += 1)
      await folder.write('daily', new Date(first + n * day), filled(`day ${n}`));
    const files = folder.list();
    expect(files.filter(({ kind }) => kind === 'daily')).toHaveLength(backupsKept.daily);
    expect(files.at(0)).toMatchObject({
      kind: 'daily',
      at: new Date(first + (backupsKept.daily + 2) * day).toISOString(),
      bytes: `day ${backupsKept.daily + 2}`.length,
    });
    expect(files.at(-1)).toMatchObject({ kind: 'manual', at: new Date(first - day).toISOString() });
    expect(readFileSync(folder.pathOf(files[0].name)!, 'utf8')).toBe(`day ${backupsKept.daily + 2}`);
  });

  test('shows no file that was not written to its end, and clears what a kill left', async () => {
    const folder = new BackupFolder(path.join(top, 'b'));
    await expect(
      folder.write('daily', new Date(first), () => Promise.reject(new Error('the database went away'))),
    ).rejects.toThrow('went away');
    expect(readdirSync(folder.folder)).toEqual([]);
    writeFileSync(path.join(folder.folder, 'x.part'), 'half');
    writeFileSync(path.join(folder.folder, 'notes.txt'), 'mine');
    expect(new BackupFolder(folder.folder).list()).toEqual([]);
    expect(readdirSync(folder.folder)).toEqual(['notes.txt']);
  });

  test('knows only its own names', async () => {
    const folder = new BackupFolder(path.join(top, 'c'));
    await folder.write('daily', new Date(first), filled('x'));
    for (const name of ['', '..', '../a', '/etc/passwd', 'notes.txt', '2026-03-01T06-00-00.500Z-daily.yunta-backup/..'])
      expect(folder.pathOf(name)).toBeNull();
  });
});
