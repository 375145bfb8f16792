import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Database, startDatabase } from '../scripts/database.mjs';

const root = path.resolve(import.meta.dirname, '..');

/** The built server over a database of its own, both real processes that a test may kill and start again. */
export class Running {
  private running: Database | null = null;
  private server: ChildProcess | null = null;
  readonly folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-test-'));
  url = '';
  /** The database comes back on the port that it had. */
  private port = 0;

  /** The database's address, with its password. */
  get database(): string {
    return this.running!.url;
  }

  /** Stops the database in its tracks, or lets it go on. */
  signalDatabase(signal: 'SIGSTOP' | 'SIGCONT'): void {
    process.kill(this.running!.pid, signal);
  }

  async start(): Promise<this> {
    await this.startDatabase();
    await this.startServer();
    return this;
  }

  async startDatabase(): Promise<void> {
    this.running = await startDatabase(path.join(this.folder, 'database'), { port: this.port, quiet: true });
    this.port = this.running.port;
  }

  /** On the same port as before, where there was one. */
  async startServer(): Promise<void> {
    const port = this.url === '' ? '0' : new URL(this.url).port;
    const child = spawn(process.execPath, [path.join(root, 'apps/server/dist/main.js')], {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        YUNTA_DATABASE: this.running!.url,
        YUNTA_PORT: port,
        YUNTA_DATA: this.folder,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.server = child;
    let said = '';
    child.stderr.on('data', (data) => (said += String(data)));
    this.url = await new Promise<string>((resolve, reject) => {
      child.stdout.on('data', (data) => {
        const ready = /ready (http:\S+)/.exec(String(data));
        if (ready) resolve(ready[1]);
      });
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${said}`)));
    });
  }

  async killServer(): Promise<void> {
    await ended(this.server, 'SIGKILL');
    this.server = null;
  }

  /** Asked to stop, as Ctrl-C does. */
  async stopServer(): Promise<void> {
    await ended(this.server, 'SIGTERM');
    this.server = null;
  }

  async killDatabase(): Promise<void> {
    this.running!.kill();
    await this.running!.ended;
    this.running = null;
  }

  async stop(): Promise<void> {
    await this.stopServer();
    await this.running?.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** One request; `body` is sent as JSON. */
  async ask(
    method: string,
    where: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; type: string; text: string; json: never }> {
    const response = await fetch(`${this.url}${where}`, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const type = response.headers.get('content-type') ?? '';
    return {
      status: response.status,
      type,
      text,
      json: (type.includes('json') && text !== '' ? JSON.parse(text) : null) as never,
    };
  }
}

async function ended(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  await gone;
}
