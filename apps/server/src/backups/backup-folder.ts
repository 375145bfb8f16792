import { randomUUID } from 'node:crypto';
import { createWriteStream, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { type BackupFile, type BackupKind, backupsKept } from '@yunta/contract';
import type { Writable } from 'node:stream';

const ending = '.yunta-backup';
const pattern =
  /^(\d{4})-(\d\d)-(\d\d)T(\d\d)-(\d\d)-(\d\d(?:\.\d+)?)Z-(daily|manual|before-upgrade|before-restore)\.yunta-backup$/;

/** The folder of backups beside the database: only files that were written to their end have a name of ours. */
export class BackupFolder {
  constructor(readonly folder: string) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    for (const name of readdirSync(folder))
      if (name.endsWith('.part')) rmSync(path.join(folder, name), { force: true });
  }

  /** Newest first. */
  list(): readonly BackupFile[] {
    const files = readdirSync(this.folder).flatMap((name): BackupFile[] => {
      const match = pattern.exec(name);
      if (!match) return [];
      const [, year, month, day, hours, minutes, seconds, kind] = match;
      return [
        {
          name,
          kind: kind as BackupKind,
          at: `${year}-${month}-${day}T${hours}:${minutes}:${seconds}Z`,
          bytes: statSync(path.join(this.folder, name)).size,
        },
      ];
    });
    return files.sort((a, b) => b.name.localeCompare(a.name));
  }

  /** The whole path of a backup of ours; null for any other name. */
  pathOf(name: string): string | null {
    return this.list().some((file) => file.name === name) ? path.join(this.folder, name) : null;
  }

  /** Writes a backup; it has its name only when it is whole and on the disk. Then the oldest of its kind go. */
  async write(kind: BackupKind, at: Date, fill: (into: Writable) => Promise<void>): Promise<string> {
    const name = `${at.toISOString().replaceAll(':', '-')}-${kind}${ending}`;
    const part = path.join(this.folder, `${randomUUID()}.part`);
    const into = createWriteStream(part, { mode: 0o600, flush: true });
    try {
      await fill(into);
      renameSync(part, path.join(this.folder, name));
    } catch (reason) {
      into.destroy();
      rmSync(part, { force: true });
      throw reason;
    }
    for (const old of this.list()
      .filter((file) => file.kind === kind)
      .slice(backupsKept[kind]))
      rmSync(path.join(this.folder, old.name), { force: true });
    return name;
  }
}
