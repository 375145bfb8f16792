// npm start: installs what is missing, builds, starts the database and the server, prints the address. Ctrl-C stops all of it.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureFolder, ensureNpm, ensurePrograms, freePort, root, running, say, writePid } from './lib.mjs';

const home = process.env.YUNTA_HOME ?? path.join(root, '.yunta');
const pidFile = path.join(home, 'start.pid');
const addressFile = path.join(home, 'address');

let server = null;
let database = null;
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null) {
    server.kill('SIGTERM');
    await Promise.race([new Promise((resolve) => server.once('exit', resolve)), new Promise((resolve) => setTimeout(resolve, 5000))]);
    if (server.exitCode === null) server.kill('SIGKILL');
  }
  await database?.stop();
  rmSync(pidFile, { force: true });
  rmSync(addressFile, { force: true });
  say('Stopped.');
  process.exit(code);
}

async function main() {
  ensureFolder(home);
  if (running(pidFile, 'start.mjs')) {
    say(`Yunta already runs: ${readFileSync(addressFile, 'utf8').trim()}`);
    return;
  }
  writePid(pidFile, process.pid);
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  process.on('SIGHUP', () => void stop(0));
  const { databaseNeeds, startDatabase } = await import('./database.mjs');
  await ensurePrograms(databaseNeeds);
  await ensureNpm();
  await ensureBuilt();
  database = await startDatabase(path.join(home, 'database'));
  const port = await freePort(Number(process.env.YUNTA_PORT ?? 4477));
  server = spawn(process.execPath, [path.join(root, 'apps/server/dist/main.js')], {
    env: { ...process.env, NODE_OPTIONS: '', YUNTA_DATABASE: database.url, YUNTA_PORT: String(port), YUNTA_TIED: 'yes' },
    // The server ends when this pipe does: a start that is killed leaves no server behind.
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  });
  server.once('exit', (code) => {
    if (!stopping) {
      say(`The server ended with ${code}.`);
      void stop(1);
    }
  });
  server.stdout.on('data', (data) => {
    const ready = /ready (http:\S+)/.exec(String(data));
    if (!ready) return;
    writeFileSync(addressFile, `${ready[1]}\n`);
    say(`Yunta is ready: ${ready[1]}\nCtrl-C stops it.`);
  });
}

main().catch(async (reason) => {
  say(`Yunta could not start. ${reason.message}`);
  await stop(1);
});
