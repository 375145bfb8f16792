// The database and the server that are killed: real processes over a home of their own, each back on the port that it
// had.
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startDatabase } from '../database.mjs';
import { freePort } from '../lib.mjs';
import { startServer } from '../server.mjs';

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
    this.database = await startDatabase(path.join(this.home, 'database'), {
      port: this.database?.port ?? 0,
      quiet: true,
    });
  }

  async startServer() {
    this.server = await startServer(this.database.url, { port: this.port, data: this.home });
  }

  /** Kills outright what is named, and starts it again. */
  async kill({ server, database }) {
    const ends = [];
    if (server) {
      this.server.kill();
      ends.push(this.server.ended);
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
    this.server.kill();
    await this.server.ended;
    await this.database.stop();
    rmSync(this.home, { recursive: true, force: true });
  }
}
