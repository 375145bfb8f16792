// The built server as a process of its own, over a database that runs.
import { spawn } from 'node:child_process';
import path from 'node:path';
import { root } from './lib.mjs';

export const serverFile = path.join(root, 'apps/server/dist/main.js');
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Starts the server and waits until it serves or has ended; `url` is null where it ended, with its last words in
 * `said`.
 * Told to stop before it serves (`isStopping`), it ends at the next whole step. `tell` hears what it says meanwhile.
 * It ends with the process that started it, unless `tied` is false.
 */
export async function startServer(
  database,
  { port = 0, data, demo = true, tied = true, isStopping = () => false, tell = () => undefined },
) {
  const child = spawn(process.execPath, [serverFile], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      YUNTA_DATABASE: database,
      YUNTA_PORT: String(port),
      YUNTA_DATA: data,
      YUNTA_DEMO: demo ? 'yes' : 'no',
      YUNTA_TIED: tied ? 'yes' : 'no',
    },
    // The server ends when this pipe does: whoever is killed leaves no server behind.
    stdio: ['pipe', 'pipe', 'pipe'],
    detached: true,
  });
  const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve(code ?? signal)));
  let said = '';
  child.stderr.on('data', (text) => {
    said = (said + text).slice(-4000);
    tell(String(text));
  });
  const asked = setInterval(() => isStopping() && child.kill('SIGTERM'), 50);
  const url = await new Promise((resolve) => {
    child.stdout.on('data', (text) => {
      const ready = /ready (http:\S+)/.exec(String(text));
      if (ready) resolve(ready[1]);
      else tell(String(text));
    });
    void ended.then(() => resolve(null));
  });
  clearInterval(asked);
  return {
    url,
    port: url === null ? port : Number(new URL(url).port),
    said: () => said.trim(),
    ended,
    kill: () => child.kill('SIGKILL'),
    /** Asks it to stop; after a while it must. */
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      child.kill('SIGTERM');
      await Promise.race([ended, pause(8000)]);
      child.kill('SIGKILL');
      await ended;
    },
  };
}
