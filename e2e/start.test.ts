import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, jest, test } from '@jest/globals';

jest.setTimeout(90_000);
const home = mkdtempSync(path.join(os.tmpdir(), 'yunta-home-'));
const script = path.resolve(import.meta.dirname, '../scripts/start.mjs');
const started: ChildProcess[] = [];
afterAll(() => {
  for (const child of started) if (child.exitCode === null) child.kill('SIGKILL');
  rmSync(home, { recursive: true, force: true });
});

/** Runs the start command in a home of its own until it is ready or has ended. */
async function start(env: Record<string, string> = {}): Promise<{ child: ChildProcess; said: () => string; url: string | null }> {
  const child = spawn(process.execPath, [script], { env: { ...process.env, NODE_OPTIONS: '', YUNTA_HOME: home, YUNTA_PORT: '0', ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  started.push(child);
  let text = '';
  const url = await new Promise<string | null>((resolve) => {
    const hear = (data: unknown) => {
      text += String(data);
      const ready = /Yunta is ready: (\S+)/.exec(text);
      if (ready) resolve(ready[1]);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', () => resolve(null));
  });
  return { child, said: () => text, url };
}
const ended = (child: ChildProcess) => (child.exitCode !== null ? Promise.resolve(child.exitCode) : new Promise((resolve) => child.once('exit', resolve)));
/** Processes whose command line names this home, or whose environment does. */
const left = (): string[] =>
  readdirSync('/proc').filter((pid) => /^\d+$/.test(pid) && Number(pid) !== process.pid).filter((pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(home);
    } catch {
      return false;
    }
  });

describe('npm start', () => {
  let first: Awaited<ReturnType<typeof start>>;

  test('prepares a database of its own, serves, and a second start says that one runs', async () => {
    first = await start();
    expect(first.said()).toContain('Preparing the database');
    expect((await fetch(`${first.url}/health`)).status).toBe(200);
    const second = await start();
    expect(await ended(second.child)).toBe(0);
    expect(second.said()).toContain(`Yunta already runs: ${first.url}`);
    expect((await fetch(`${first.url}/health`)).status).toBe(200);
  });

  test('Ctrl-C stops all of it, cleanly', async () => {
    first.child.kill('SIGINT');
    expect(await ended(first.child)).toBe(0);
    expect(left()).toEqual([]);
    expect(existsSync(path.join(home, 'start.pid'))).toBe(false);
    await expect(fetch(`${first.url}/health`)).rejects.toThrow();
  });

  test('killed outright it leaves no server, and the next start ends what is left of the database and has the data', async () => {
    const killed = await start();
    const response = await fetch(`${killed.url}/api/shows`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ kind: 'empty', name: 'Survivor' }) });
    expect(response.status).toBe(201);
    killed.child.kill('SIGKILL');
    await ended(killed.child);
    for (let i = 0; i < 50 && (await fetch(`${killed.url}/health`).then(() => true, () => false)); i += 1) await new Promise((resolve) => setTimeout(resolve, 100));
    await expect(fetch(`${killed.url}/health`)).rejects.toThrow();
    const again = await start();
    expect(again.said()).not.toContain('Preparing the database');
    expect(JSON.stringify(await (await fetch(`${again.url}/api/shows`)).json())).toContain('Survivor');
    again.child.kill('SIGINT');
    await ended(again.child);
    expect(left()).toEqual([]);
  });

  test('a stale pid and a port that is taken are no failure', async () => {
    writeFileSync(path.join(home, 'start.pid'), '1\n');
    const taken = net.createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => taken.once('listening', resolve));
    const { port } = taken.address() as net.AddressInfo;
    const other = await start({ YUNTA_PORT: String(port) });
    expect(other.url).not.toBeNull();
    expect(other.url).not.toContain(`:${port}`);
    other.child.kill('SIGTERM');
    expect(await ended(other.child)).toBe(0);
    taken.close();
  });
});
