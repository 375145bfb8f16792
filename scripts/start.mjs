// npm start: installs what is missing, builds, starts the database and the server, prints the address. Ctrl-C stops all of it.
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureFolder, ensureNpm, ensurePrograms, freePort, home, root, say } from './lib.mjs';
import { readIfThere, takeLock, writeWhole } from './lock.mjs';

const addressFile = path.join(home, 'address');
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** What is being started just now: stopping waits for it, so that nothing goes on behind our back. */
let starting = null;
let database = null;
let server = null;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  const patience = setInterval(() => say('  … a step of the database is brought to its end'), 5000);
  await starting?.catch(() => undefined);
  await server?.stop();
  await database?.stop();
  clearInterval(patience);
  rmSync(addressFile, { force: true });
  say('Stopped.');
  process.exit(code);
}

/** Waits for `work`, which stopping waits for too. */
function step(work) {
  starting = work;
  return work;
}

async function main() {
  ensureFolder(home);
  if (!takeLock(path.join(home, 'lock'))) return otherStart();
  rmSync(addressFile, { force: true });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  const [{ answers, databaseNeeds, startDatabase }, { keepUp }] = await Promise.all([import('./database.mjs'), import('./keep-up.mjs')]);
  await ensurePrograms(databaseNeeds);
  await ensureNpm();
  await ensureBuilt();
  if (stopping) return;
  const giveUp = (reason) => {
    say(reason);
    void stop(1);
  };
  database = await step(
    keepUp({
      name: 'database',
      start: (before) => startDatabase(path.join(home, 'database'), { port: before?.port }),
      isWell: ({ url }) => answers(url, 3000),
      onGivenUp: giveUp,
    }),
  );
  if (stopping) return;
  const wanted = Number(process.env.YUNTA_PORT ?? 4477);
  server = await step(keepUp({ name: 'server', start: (before) => startServer(database.current().url, before?.port ?? wanted), onGivenUp: giveUp }));
  if (stopping) return;
  const { url, port } = server.current();
  writeWhole(addressFile, `${url}\n`);
  if (wanted !== 0 && port !== wanted) say(`Port ${wanted} is taken by another program: Yunta listens on ${port} instead, this time. Bookmarks of ${wanted} do not lead here.`);
  say(`Yunta is ready: ${url}\nCtrl-C stops it.`);
}

/** Starts the server; it is ready when it says so. Told to stop before that, it ends at the next whole step. */
async function startServer(databaseUrl, wanted) {
  const child = spawn(process.execPath, [path.join(root, 'apps/server/dist/main.js')], {
    env: { ...process.env, NODE_OPTIONS: '', YUNTA_DATABASE: databaseUrl, YUNTA_PORT: String(await freePort(wanted)), YUNTA_TIED: 'yes', YUNTA_DATA: home },
    // The server ends when this pipe does: a start that is killed leaves no server behind.
    stdio: ['pipe', 'pipe', 'pipe'],
    detached: true,
  });
  const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve(code ?? signal)));
  const stopNow = async () => {
    if (child.exitCode !== null || child.signalCode !== null) return;
    child.kill('SIGTERM');
    await Promise.race([ended, pause(8000)]);
    child.kill('SIGKILL');
    await ended;
  };
  let errors = '';
  child.stderr.on('data', (data) => {
    errors = (errors + data).slice(-4000);
    process.stderr.write(data);
  });
  const url = await new Promise((resolve) => {
    child.stdout.on('data', (data) => {
      const ready = /ready (http:\S+)/.exec(String(data));
      if (ready) resolve(ready[1]);
      else process.stdout.write(data);
    });
    void ended.then(() => resolve(null));
    const untilStopping = setInterval(() => {
      if (!stopping) return;
      clearInterval(untilStopping);
      child.kill('SIGTERM');
    }, 50);
    void ended.then(() => clearInterval(untilStopping));
  });
  if (url === null && !stopping) throw new Error(`The server could not start: ${errors.trim() || `it ended with ${await ended}`}`);
  return { url, port: url === null ? wanted : Number(new URL(url).port), ended, stop: stopNow, kill: () => child.kill('SIGKILL') };
}

/** Another start holds this data directory: says where it listens, once it does. */
async function otherStart() {
  let said = false;
  for (let i = 0; i < 1200; i += 1) {
    const address = readIfThere(addressFile);
    if (address !== null) return say(`Yunta already runs: ${address.trim()}`);
    if (!said) say('Another start of Yunta is under way: waiting for it …');
    said = true;
    await pause(100);
    const lock = takeLock(path.join(home, 'lock'));
    if (lock) {
      lock.release();
      throw new Error('The other start ended before it was ready. Try again.');
    }
  }
  say('The other start is still under way. Its own window says how far it is.');
}

main().catch(async (reason) => {
  if (!stopping) say(`Yunta could not start. ${reason.message}`);
  await stop(1);
});
