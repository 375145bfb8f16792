// npx yunta backup FILE | npx yunta restore FILE: all data out to one file, and back. Through the running Yunta where
// one
// runs; else a database and a server are started for it, and stopped again.
import {
  copyFileSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
} from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { ensureFolder, home, say } from './lib.mjs';
import { readIfThere, takeLock } from './lock.mjs';
import { serverFile, startServer } from './server.mjs';

const usage = 'npx yunta backup FILE [--overwrite]\nnpx yunta restore FILE\n';

/** Runs one call; its exit code: 0 done, 1 it could not be done, 2 a bad call. */
export async function main(words) {
  const overwrite = words.includes('--overwrite');
  const [command, name, ...rest] = words.filter((word) => word !== '--overwrite');
  if (
    !['backup', 'restore'].includes(command) ||
    name === undefined ||
    rest.length > 0 ||
    (overwrite && command === 'restore')
  ) {
    process.stderr.write(usage);
    return 2;
  }
  const file = path.resolve(process.env.INIT_CWD ?? process.cwd(), name);
  try {
    if (command === 'backup') await backUp(file, overwrite);
    else await restore(file);
    return 0;
  } catch (reason) {
    process.stderr.write(`${reason.message}\n`);
    return 1;
  }
}

async function backUp(file, overwrite) {
  if (existsSync(file) && !overwrite)
    throw new Error(`${file} is there already. Choose another name, or say --overwrite.`);
  const part = `${file}.part`;
  try {
    const rows = await withServer(async (url) => {
      const answer = await fetch(`${url}/api/backup`);
      if (!answer.ok) throw new Error(await titleOf(answer));
      await pipeline(Readable.fromWeb(answer.body), createWriteStream(part, { mode: 0o600, flush: true }));
      return rowsOf(part);
    });
    renameSync(part, file);
    say(`Backed up to ${file}: ${rows} rows.`);
  } finally {
    rmSync(part, { force: true });
  }
}

/** The last line says that the file is whole, and how many rows are in it. */
async function rowsOf(file) {
  let last = '';
  for await (const line of createInterface({ input: createReadStream(file).pipe(createGunzip()) })) last = line;
  const { end, rows } = JSON.parse(last);
  if (end !== true) throw new Error('The backup was cut short. Try again.');
  return rows;
}

async function restore(file) {
  if (!existsSync(file)) throw new Error(`${file} is not there.`);
  const folder = path.join(home, 'backups');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const told = await withServer(async (url) => {
    const known = readdirSync(folder).includes(path.basename(file)) && path.dirname(file) === folder;
    const name = known ? path.basename(file) : `${new Date().toISOString().replaceAll(':', '-')}-manual.yunta-backup`;
    if (!known) {
      copyFileSync(file, path.join(folder, `${name}.part`));
      renameSync(path.join(folder, `${name}.part`), path.join(folder, name));
    }
    const answer = await fetch(`${url}/api/backups/${name}/restore`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    });
    if (answer.ok) return answer.json();
    if (!known) rmSync(path.join(folder, name), { force: true });
    throw new Error(`${await titleOf(answer)}\nNothing was restored; all is as it was.`);
  });
  say(
    `Restored ${told.rigs} ${told.rigs === 1 ? 'rig' : 'rigs'}, ${told.songbooks} ${told.songbooks === 1 ? 'songbook' : 'songbooks'} and ${told.edits} edits of history.${told.before ? `\nWhat was there before is in ${path.join(folder, told.before)}` : ''}`,
  );
}

const titleOf = async (answer) =>
  (await answer.json().catch(() => null))?.title ?? `The server answered ${answer.status}.`;

/** Works with a server over the data: the one that runs, or one of its own for so long. */
async function withServer(work) {
  ensureFolder(home);
  const lock = takeLock(path.join(home, 'lock'));
  if (!lock) {
    const address = readIfThere(path.join(home, 'address'));
    if (address === null) throw new Error('Yunta is being started just now. Try again when it is ready.');
    return work(address.trim());
  }
  const { startDatabase } = await import('./database.mjs');
  if (!existsSync(serverFile)) throw new Error('Not built yet: run npm start once.');
  const database = await startDatabase(path.join(home, 'database'), { port: 0, quiet: true });
  const server = await startServer(database.url, { data: home, demo: false });
  try {
    if (server.url === null) throw new Error(server.said() || 'The server could not start.');
    return await work(server.url);
  } finally {
    await server.stop();
    await database.stop();
    lock.release();
  }
}
