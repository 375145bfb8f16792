// One start at a time in a data directory: a lock that the system itself lets go when its holder ends, however it ends.
import { spawnSync } from 'node:child_process';
import { closeSync, openSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

const busy = 75;

/** Takes the lock of a file; null where another process holds it. The file itself stays; it says nothing. */
export function takeLock(file) {
  const handle = openSync(file, 'a', 0o600);
  // The lock belongs to the open file, which this process and the little program share: it stays when that ends.
  const { status, error } = spawnSync(
    'flock',
    ['--exclusive', '--nonblock', '--conflict-exit-code', String(busy), '3'],
    { stdio: ['ignore', 'ignore', 'ignore', handle] },
  );
  if (status === 0) return { release: () => closeSync(handle) };
  closeSync(handle);
  if (status === busy) return null;
  throw new Error(
    `the lock ${file} cannot be taken${error ? `: ${error.message}` : ''} (flock, of the package util-linux, must be installed)`,
  );
}

/** Writes a small file so that a reader sees the old one or the new one, never half of it. */
export function writeWhole(file, text, mode = 0o600) {
  const fresh = `${file}.${process.pid}.new`;
  writeFileSync(fresh, text, { mode, flush: true });
  renameSync(fresh, file);
}

export function readIfThere(file) {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return null;
  }
}
