// The database and the server that are killed: real processes over a home of their own, each back on the port that it had.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startDatabase } from '../database.mjs';
import { freePort, root } from '../lib.mjs';

const gone = (child) => new Promise((resolve) => (child.exitCode !== null || child.signalCode !== null ? resolve() : child.once('exit', resolve)));

export class Victims {
  home = mkdtempSync(path.join(os.tmpdir(), 'yunta-torture-'));
  database = null;
  server = null;
  url = '';
  port = 0;

  async start() {
    this.port = await freePort();
    this.url = `http://127.0.0.1:${this.port}`;
    await this.startDatabase();
    await this.startServer();
    return this;
  }

  async startDatabase() {
    this.database = await startDatabase(path.join(this.home, 'database'), { port: this.database?.port ?? 0, quiet: true });
  }

  /** Waits until the server listens, or has ended. */
  async startServer() {
    const child = spawn(process.execPath, [path.join(root, 'apps/server/dist/main.js')], { env: { ...process.env, NODE_OPTIONS: '', YUNTA_DATABASE: this.database.url, YUNTA_PORT: String(this.port), YUNTA_DATA: this.home }, stdio: ['ignore', 'pipe', 'ignore'] });
    this.server = child;
    await Promise.race([new Promise((resolve) => child.stdout.on('data', (data) => /ready http/.test(String(data)) && resolve())), gone(child)]);
  }

  /** Kills outright what is named, and starts it again. */
  async kill({ server, database }) {
    const ends = [];
    if (server) {
      this.server.kill('SIGKILL');
      ends.push(gone(this.server));
    }
    if (database) {
      this.database.kill();
      ends.push(this.database.ended);
    }
    await Promise.all(ends);
    if (database) await this.startDatabase();
    if (server) await this.startServer();
  }

  async stop() {
    this.server.kill('SIGKILL');
    await gone(this.server);
    await this.database.stop();
    rmSync(this.home, { recursive: true, force: true });
  }
}
