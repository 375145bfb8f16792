// Shared by the scripts: saying what happens, running commands, installing what is missing.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, mkdirSync, readdirSync, utimesSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';

export const root = path.resolve(import.meta.dirname, '..');
/** Where the data lies: YUNTA_HOME, from where the command was given, or `.yunta` beside the sources. */
export const home = path.resolve(
  process.env.INIT_CWD ?? process.cwd(),
  process.env.YUNTA_HOME ?? path.join(root, '.yunta'),
);
export const say = (line) => process.stdout.write(`${line}\n`);

/** Runs a command to its end; its output is shown only where it fails (or `show`). Says every 15 s that it goes on. */
export function run(command, args, { what, cwd = root, env = process.env, show = false } = {}) {
  return new Promise((resolve, reject) => {
    const started = Date.now();
    if (what) say(`${what} …`);
    const child = spawn(command, args, {
      cwd,
      env,
      stdio: ['ignore', show ? 'inherit' : 'pipe', show ? 'inherit' : 'pipe'],
    });
    let output = '';
    child.stdout?.on('data', (data) => (output += data));
    child.stderr?.on('data', (data) => (output += data));
    const tick = setInterval(() => what && say(`  … ${Math.round((Date.now() - started) / 1000)} s`), 15000);
    child.on('error', reject);
    child.on('close', (code) => {
      clearInterval(tick);
      if (code === 0) return resolve(output);
      reject(new Error(`${command} ${args.join(' ')} ended with ${code}\n${output.split('\n').slice(-30).join('\n')}`));
    });
  });
}

export const isInstalled = (program) =>
  [process.env.PATH ?? '', '/usr/sbin', '/usr/bin']
    .join(':')
    .split(':')
    .some((folder) => folder && existsSync(path.join(folder, program)));
export const pathOf = (program) =>
  `${process.env.PATH}:/usr/sbin`
    .split(':')
    .map((folder) => path.join(folder, program))
    .find(existsSync);

/** Installs Debian packages where a program is missing; without root or apt, says what to install. */
export async function ensurePrograms(needs) {
  const missing = needs.filter((need) => !isInstalled(need.program));
  if (missing.length === 0) return;
  const packages = missing.flatMap((need) => need.packages);
  if (process.getuid?.() !== 0 || !isInstalled('apt-get')) {
    throw new Error(
      `Please install first: ${packages.join(' ')}\n  (on Debian: sudo apt-get install --no-install-recommends ${packages.join(' ')})`,
    );
  }
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update', '-qq'], { what: 'Refreshing the list of Debian packages', env });
  await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], {
    what: `Installing ${packages.join(', ')}`,
    env,
  });
}

/** npm packages, where the lock is newer than what is installed. */
export async function ensureNpm() {
  const lock = path.join(root, 'package-lock.json');
  const mark = path.join(root, 'node_modules/.package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(lock).mtimeMs - 1000) return;
  await run('npm', ['ci', '--no-audit', '--no-fund'], { what: 'Installing npm packages (a minute or two)' });
}

const newest = (folder) => {
  let last = 0;
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    if (
      !entry.isFile() ||
      entry.parentPath.includes(`${path.sep}node_modules`) ||
      entry.parentPath.includes(`${path.sep}dist`)
    )
      continue;
    last = Math.max(last, statSync(path.join(entry.parentPath, entry.name)).mtimeMs);
  }
  return last;
};

/** Builds core, contract, server, command line, and the page, where sources are newer than the last build. */
export async function ensureBuilt({ web = true } = {}) {
  const settings = ['tsconfig.base.json', 'tsconfig.json', 'package-lock.json'].map((file) => path.join(root, file));
  const shared = [path.join(root, 'packages'), ...settings];
  if (
    isOlder('apps/server/dist/main.js', 'node_modules/.built', [
      ...shared,
      path.join(root, 'apps/server'),
      path.join(root, 'apps/cli'),
    ])
  ) {
    const from = Date.now();
    await run(process.execPath, ['node_modules/typescript/bin/tsc', '-b'], { what: 'Building the server' });
    stamp('node_modules/.built', from);
  }
  if (
    web &&
    isOlder('apps/web/dist/index.html', 'node_modules/.built-page', [...shared, path.join(root, 'apps/web')])
  ) {
    const from = Date.now();
    await run(process.execPath, [path.join(root, 'node_modules/vite/bin/vite.js'), 'build'], {
      what: 'Building the page',
      cwd: path.join(root, 'apps/web'),
      env: { ...process.env, NODE_ENV: 'production' },
    });
    stamp('node_modules/.built-page', from);
  }
}

/** Whether something was not built, or was before a source changed. The mark holds the time when that build began. */
function isOlder(result, mark, sources) {
  const at = path.join(root, mark);
  if (!existsSync(path.join(root, result)) || !existsSync(at)) return true;
  const changed = Math.max(
    ...sources.map((source) => (statSync(source).isDirectory() ? newest(source) : statSync(source).mtimeMs)),
  );
  return changed >= statSync(at).mtimeMs;
}

function stamp(mark, from) {
  const at = path.join(root, mark);
  writeFileSync(at, '');
  utimesSync(at, from / 1000, from / 1000);
}

export function freePort(wanted = 0) {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', () => (wanted === 0 ? reject(new Error('no free port')) : resolve(freePort(0))));
    probe.listen(wanted, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

/** Whether the process of a pid file still runs (and is ours: its command line holds `mark`). */
export function running(file, mark) {
  if (!existsSync(file)) return 0;
  const pid = Number(readFileSync(file, 'utf8').trim());
  if (!pid) return 0;
  try {
    const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    return line.includes(mark) ? pid : 0;
  } catch {
    return 0;
  }
}

export const ensureFolder = (folder) => mkdirSync(folder, { recursive: true });
export const capture = (command, args) => spawnSync(command, args, { encoding: 'utf8' });
