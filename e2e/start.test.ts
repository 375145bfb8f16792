import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createRequire } from 'node:module';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, describe, expect, jest, test } from '@jest/globals';

jest.setTimeout(120_000);
const root = path.resolve(import.meta.dirname, '..');
const top = mkdtempSync(path.join(os.tmpdir(), 'yunta-home-'));
const started: ChildProcess[] = [];
afterAll(async () => {
  for (const child of started) if (child.exitCode === null && child.signalCode === null) child.kill('SIGKILL');
  for (const pid of left()) process.kill(pid, 'SIGKILL');
  await pause(200);
  rmSync(top, { recursive: true, force: true });
});

interface Start {
  readonly child: ChildProcess;
  readonly said: () => string;
  /** Where it serves; null once it has ended without. */
  readonly url: Promise<string | null>;
}

/** Runs the start command over a home. */
function start(home: string, env: Record<string, string> = {}, cwd = root): Start {
  const child = spawn(process.execPath, [path.join(root, 'scripts/start.mjs')], {
    cwd,
    env: { ...process.env, NODE_OPTIONS: '', INIT_CWD: cwd, YUNTA_HOME: home, YUNTA_PORT: '0', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  let text = '';
  const url = new Promise<string | null>((resolve) => {
    const hear = (data: unknown) => {
      text += String(data);
      const ready = /Yunta is ready: (\S+)|already runs: (\S+)/.exec(text);
      if (ready) resolve(ready[1] ?? ready[2]);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('close', () => resolve(null));
  });
  return { child, said: () => text, url };
}
const ended = (child: ChildProcess): Promise<unknown> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve(child.exitCode)
    : new Promise((resolve) => child.once('exit', resolve));
const stopped = ({ child }: Start): Promise<unknown> => {
  child.kill('SIGINT');
  return ended(child);
};
const until = async (what: () => boolean | Promise<boolean>, seconds = 30): Promise<void> => {
  for (let i = 0; i < seconds * 10 && !(await what()); i += 1) await pause(100);
  if (!(await what())) throw new Error(`not within ${seconds} s: ${String(what)}`);
};
/** Processes whose command line names a home, or any of these tests. */
const left = (home = top): number[] =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid) && Number(pid) !== process.pid)
    .map(Number)
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(home);
      } catch {
        return false;
      }
    });
const make = async (url: string | null, name: string): Promise<void> => {
  const response = await fetch(`${url}/api/shows`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ kind: 'empty', name }),
  });
  expect(response.status).toBe(201);
};
const names = async (url: string | null): Promise<string> =>
  JSON.stringify(await (await fetch(`${url}/api/shows`)).json());
const isWell = (url: string | null): Promise<boolean> =>
  fetch(`${url}/health`).then(
    ({ status }) => status === 200,
    () => false,
  );

describe('npm start', () => {
  const home = path.join(top, 'first');
  let first: Start;

  test('prepares a database of its own, serves, and a second start says that one runs', async () => {
    first = start(home);
    expect((await fetch(`${await first.url}/health`)).status).toBe(200);
    expect(first.said()).toContain('Preparing the database');
    const second = start(home);
    expect(await second.url).toBe(await first.url);
    expect(await ended(second.child)).toBe(0);
    expect(second.said()).toContain(`Yunta already runs: ${await first.url}`);
    expect(await isWell(await first.url)).toBe(true);
  });

  test('Ctrl-C stops all of it, cleanly', async () => {
    const url = await first.url;
    expect(await stopped(first)).toBe(0);
    expect(left(home)).toEqual([]);
    expect(existsSync(path.join(home, 'address'))).toBe(false);
    await expect(fetch(`${url}/health`)).rejects.toThrow();
  });

  test('killed outright it leaves no server, and the next start ends what is left of the database and has the data', async () => {
    const killed = start(home);
    const url = await killed.url;
    await make(url, 'Survivor');
    killed.child.kill('SIGKILL');
    await until(
      () =>
        fetch(`${url}/health`).then(
          () => false,
          () => true,
        ),
      10,
    );
    const again = start(home);
    expect(await names(await again.url)).toContain('Survivor');
    expect(again.said()).not.toContain('Preparing the database');
    await stopped(again);
    expect(left(home)).toEqual([]);
  });

  test('a port that is taken is no failure, and the other one is said clearly', async () => {
    const taken = net.createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => taken.once('listening', resolve));
    const { port } = taken.address() as net.AddressInfo;
    const other = start(home, { YUNTA_PORT: String(port) });
    const url = await other.url;
    expect(url).not.toContain(`:${port}`);
    expect(other.said()).toContain(
      `Port ${port} is taken by another program: Yunta listens on ${new URL(url!).port} instead`,
    );
    await stopped(other);
    taken.close();
  });

  test('the database killed, or stopped in its tracks, is started again on the same port, and said', async () => {
    const running = start(home);
    const url = await running.url;
    await make(url, 'Before the fall');
    const database = () =>
      left(home).filter((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('mariadbd'))[0];
    const portOf = (pid: number) => /--port=(\d+)/.exec(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))![1];
    const pid = database();
    const port = portOf(pid);
    process.kill(pid, 'SIGKILL');
    await until(() => running.said().includes('The database is back.'));
    await until(() => isWell(url));
    expect(portOf(database())).toBe(port);
    expect(await names(url)).toContain('Before the fall');
    process.kill(database(), 'SIGSTOP');
    await until(async () => (await fetch(`${url}/health`)).status === 503, 10);
    await until(() => running.said().includes('The database no longer answers: ending it'));
    await until(() => running.said().split('The database is back.').length === 3);
    await until(() => isWell(url));
    await make(url, 'After the fall');
    expect(await stopped(running)).toBe(0);
    expect(left(home)).toEqual([]);
  });

  const listening = (port: number): Promise<net.Server | null> =>
    new Promise((resolve) => {
      const server = net.createServer();
      server.once('error', () => resolve(null)).listen(port, '127.0.0.1', () => resolve(server));
    });
  const serverOf = ({ child }: Start): number =>
    Number(
      readdirSync('/proc')
        .filter((pid) => /^\d+$/.test(pid))
        .find((pid) => {
          try {
            return (
              readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')[1] === String(child.pid) &&
              readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('server/dist/main.js')
            );
          } catch {
            return false;
          }
        }),
    );

  test('the server that ends by itself is started again on the same port, or says where it is where that is taken', async () => {
    const running = start(home);
    const url = await running.url;
    process.kill(serverOf(running), 'SIGKILL');
    await until(() => running.said().includes('The server is back.'));
    expect(await isWell(url)).toBe(true);
    // Held still, so that its port can be taken before it notices.
    process.kill(running.child.pid!, 'SIGSTOP');
    process.kill(serverOf(running), 'SIGKILL');
    let taken: net.Server | null = null;
    await until(async () => (taken ??= await listening(Number(new URL(url!).port))) !== null);
    process.kill(running.child.pid!, 'SIGCONT');
    await until(() => running.said().split('The server is back.').length === 3);
    const moved = /listens at (\S+) now/.exec(running.said())![1];
    expect(moved).not.toBe(url);
    expect(await isWell(moved)).toBe(true);
    expect(readFileSync(path.join(home, 'address'), 'utf8').trim()).toBe(moved);
    await stopped(running);
    taken!.close();
  });

  test('writes what happened into a log that others cannot read', () => {
    const log = path.join(home, 'logs', 'yunta.log');
    expect(readFileSync(log, 'utf8')).toMatch(/server: listens on \d+/);
    expect(statSync(log).mode & 0o077).toBe(0);
  });
});

describe('a start during another', () => {
  test('waits for it and tells its address, and harms nothing', async () => {
    const home = path.join(top, 'crowd');
    const first = start(home);
    await until(() => existsSync(path.join(home, 'lock')));
    const others = [start(home), start(home)];
    const url = await first.url;
    for (const other of others) {
      expect(await other.url).toBe(url);
      expect(await ended(other.child)).toBe(0);
    }
    expect(others.some((other) => other.said().includes('Another start of Yunta is under way'))).toBe(true);
    await make(url, 'Unharmed');
    await stopped(first);
    const again = start(home);
    expect(await names(await again.url)).toContain('Unharmed');
    await stopped(again);
  });
});

describe('a first start that is cut off', () => {
  test.each([
    ['killed', 'SIGKILL'],
    ['stopped with Ctrl-C', 'SIGINT'],
  ] as const)('%s at any moment: the next one serves', async (_, signal) => {
    let early = 0;
    for (const [i, after] of [0, 120, 300, 600].entries()) {
      const home = path.join(top, `${signal}-${i}`);
      const cut = start(home);
      await until(() => existsSync(path.join(home, 'lock')));
      // Counted from when the database begins to be prepared.
      await until(() => cut.said().includes('Preparing the database'));
      await pause(after);
      cut.child.kill(signal);
      await ended(cut.child);
      if (!cut.said().includes('is ready')) early += 1;
      if (signal === 'SIGINT') expect(left(home)).toEqual([]);
      const next = start(home);
      const url = await next.url;
      if (url === null) throw new Error(`after ${after} ms: ${next.said()}`);
      expect(JSON.parse(await names(url))).toHaveLength(2);
      await stopped(next);
      rmSync(home, { recursive: true, force: true });
    }
    expect(early).toBeGreaterThan(1);
  });
});

describe('where the data lie', () => {
  test('a folder with spaces, named from where one stands, and a long temporary folder', async () => {
    const temporary = path.join(top, 'a'.repeat(80), 'b'.repeat(80));
    mkdirSync(temporary, { recursive: true });
    const running = start('my data/of yunta', { TMPDIR: temporary }, top);
    await make(await running.url, 'Spacious');
    expect(existsSync(path.join(top, 'my data/of yunta/database/data/yunta'))).toBe(true);
    expect(await stopped(running)).toBe(0);
  });

  test('too little room is said at once', async () => {
    const home = path.join(top, 'full');
    const refused = start(home, { YUNTA_ROOM: '999999999' });
    expect(await refused.url).toBeNull();
    expect(await ended(refused.child)).toBe(1);
    expect(refused.said()).toMatch(/Only \d+ MB are free where the data lies .* the database needs 999999999 MB/);
    expect(existsSync(path.join(home, 'database/data'))).toBe(false);
  });

  test('a database that does not come up is given up after a while, with what it said', async () => {
    const programs = path.join(top, 'programs');
    mkdirSync(programs);
    writeFileSync(path.join(programs, 'mariadbd'), '#!/bin/sh\necho "waiting for the tide" >&2\nexec sleep 60\n');
    chmodSync(path.join(programs, 'mariadbd'), 0o755);
    const refused = start(path.join(top, 'stuck'), { PATH: `${programs}:${process.env.PATH}`, YUNTA_START_LIMIT: '2' });
    expect(await refused.url).toBeNull();
    expect(await ended(refused.child)).toBe(1);
    expect(refused.said()).toMatch(/could not be prepared within 2 s[\s\S]*waiting for the tide/);
  });
});

describe('the database', () => {
  const mysql = createRequire(path.join(root, 'apps/server/package.json'))(
    'mysql2/promise',
  ) as typeof import('mysql2/promise');
  const canConnect = (options: object): Promise<boolean> =>
    mysql.createConnection(options).then(
      (connection) => connection.end().then(() => true),
      () => false,
    );
  const portOf = (home: string) =>
    Number(
      /--port=(\d+)/.exec(
        left(home)
          .map((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
          .join(' '),
      )![1],
    );

  /** Nobody gets in without what stands in the closed file. */
  async function isBlocked(home: string): Promise<void> {
    const folder = path.join(home, 'database');
    const socketPath = path.join(folder, 'data/mariadbd.sock');
    const port = portOf(home);
    for (const user of ['root', 'yunta', 'mysql', os.userInfo().username, ''])
      for (const password of ['', 'yunta', user]) {
        expect(await canConnect({ host: '127.0.0.1', port, user, password })).toBe(false);
        expect(await canConnect({ socketPath, user, password })).toBe(false);
      }
    for (const closed of [folder, path.join(folder, 'data')]) expect(statSync(closed).mode & 0o077).toBe(0);
    expect(statSync(path.join(folder, 'passwords.json')).mode & 0o777).toBe(0o600);
    const passwords = JSON.parse(readFileSync(path.join(folder, 'passwords.json'), 'utf8')) as {
      root: string;
      application: string;
    };
    expect(await canConnect({ socketPath, user: 'root', password: passwords.root })).toBe(true);
    expect(await canConnect({ host: '127.0.0.1', port, user: 'root', password: passwords.root })).toBe(false);
    const application = await mysql.createConnection({
      host: '127.0.0.1',
      port,
      user: 'yunta',
      password: passwords.application,
      database: 'yunta',
    });
    const variables = await application.query(
      "SHOW VARIABLES WHERE Variable_name IN ('local_infile', 'secure_file_priv')",
    );
    expect(JSON.stringify(variables[0])).toMatch(/"local_infile","Value":"OFF"/);
    expect(JSON.stringify(variables[0])).toContain(`${folder}/files`);
    await expect(application.query('SELECT * FROM mysql.global_priv')).rejects.toThrow(/denied/);
    await application.end();
  }

  test('is shut to everybody who cannot read its passwords', async () => {
    const home = path.join(top, 'shut');
    const running = start(home);
    await running.url;
    await isBlocked(home);
    await stopped(running);
  });

  test('of an older Yunta, with no password for root and a known one for the application, is shut at the next start and keeps its data', async () => {
    const home = path.join(top, 'older');
    const fresh = start(home);
    await make(await fresh.url, 'From before');
    await stopped(fresh);
    // Opens it as it used to be.
    const data = path.join(home, 'database/data');
    execFileSync(
      '/usr/sbin/mariadbd',
      [
        '--no-defaults',
        `--user=${os.userInfo().username}`,
        '--bootstrap',
        `--datadir=${data}`,
        '--innodb-log-file-size=32M',
      ],
      {
        input:
          "FLUSH PRIVILEGES;\nSET PASSWORD FOR 'root'@'localhost' = '';\nCREATE OR REPLACE USER 'root'@'127.0.0.1' IDENTIFIED BY '';\nGRANT ALL ON *.* TO 'root'@'127.0.0.1';\nCREATE OR REPLACE USER 'yunta'@'127.0.0.1' IDENTIFIED BY 'yunta';\nGRANT ALL ON yunta.* TO 'yunta'@'127.0.0.1';\n",
        stdio: ['pipe', 'ignore', 'ignore'],
      },
    );
    chmodSync(data, 0o755);
    chmodSync(path.join(home, 'database'), 0o755);
    rmSync(path.join(home, 'database/passwords.json'));
    const next = start(home);
    expect(await names(await next.url)).toContain('From before');
    await isBlocked(home);
    await stopped(next);
  });
});

describe('npx yunta backup and restore', () => {
  const home = path.join(top, 'kept');
  const file = path.join(top, 'all of it.yunta-backup');
  const yunta = async (...words: readonly string[]): Promise<{ code: unknown; said: string }> => {
    const child = spawn(process.execPath, [path.join(root, 'apps/cli/bin/yunta.mjs'), ...words], {
      env: { ...process.env, NODE_OPTIONS: '', YUNTA_HOME: home },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let said = '';
    child.stdout.on('data', (data) => (said += String(data)));
    child.stderr.on('data', (data) => (said += String(data)));
    return { code: await ended(child), said };
  };

  test('work while Yunta runs and while it does not; bad files and calls are refused', async () => {
    let running = start(home);
    await make(await running.url, 'Precious');
    const was = await names(await running.url);
    expect(await yunta('backup', file)).toMatchObject({ code: 0, said: expect.stringContaining('Backed up to') });
    expect(statSync(file).mode & 0o077).toBe(0);
    expect(await yunta('backup', file)).toMatchObject({ code: 1, said: expect.stringContaining('is there already') });
    await make(await running.url, 'Too much');
    expect(await yunta('restore', file)).toMatchObject({
      code: 0,
      said: expect.stringMatching(/Restored 3 rigs.*\n.*before-restore/),
    });
    expect(await names(await running.url)).toBe(was);
    await make(await running.url, 'Again too much');
    await stopped(running);
    expect(await yunta('backup', file, '--overwrite')).toMatchObject({ code: 0 });
    expect(await yunta('restore', file)).toMatchObject({ code: 0, said: expect.stringContaining('Restored 4 rigs') });
    const cut = path.join(top, 'cut');
    writeFileSync(cut, readFileSync(file).subarray(0, 300));
    expect(await yunta('restore', cut)).toMatchObject({
      code: 1,
      said: expect.stringMatching(/cannot be restored.*\n.*all is as it was/),
    });
    expect(await yunta('restore', path.join(top, 'nothing'))).toMatchObject({ code: 1 });
    expect(await yunta('restore')).toMatchObject({ code: 2 });
    expect(left(home)).toEqual([]);
    running = start(home);
    expect(JSON.parse(await names(await running.url))).toHaveLength(4);
    await stopped(running);
  });
});
