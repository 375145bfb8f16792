// Checks that imports point one way between rooms; says an upward one as a sentence.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './lib.mjs';

const core = {
  units: [],
  model: ['units'],
  midi: ['units', 'model'],
  catalogue: ['units', 'model'],
  trace: ['units', 'model'],
  program: ['units', 'model', 'midi', 'trace'],
  show: ['units', 'model', 'midi', 'program'],
  change: ['units', 'model', 'program'],
  recall: ['units', 'model', 'midi', 'trace', 'program'],
  check: ['units', 'model', 'midi', 'trace', 'program', 'change', 'recall', 'catalogue'],
  paper: ['units', 'model', 'midi', 'program', 'show'],
  wire: ['units', 'model', 'midi', 'change', 'program', 'show', 'paper'],
  why: ['units', 'model', 'midi', 'trace', 'program', 'show', 'recall'],
  starters: ['units', 'model', 'catalogue', 'change'],
  demo: ['units', 'model', 'catalogue', 'change', 'starters'],
  testing: null,
};
const packages = {
  'packages/core': [],
  'packages/contract': ['@yunta/core'],
  'apps/server': ['@yunta/core', '@yunta/contract'],
  'apps/cli': ['@yunta/core'],
  'apps/web': ['@yunta/core', '@yunta/contract'],
};
const web = {
  ui: [],
  workers: [],
  api: ['ui', 'workers'],
  stations: ['ui', 'api', 'workers'],
  app: ['ui', 'api', 'workers', 'stations'],
};

const wrongs = [];
const files = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !entry.parentPath.includes('dist'))
    .map((entry) => path.join(entry.parentPath, entry.name));
const importsOf = (file) =>
  [
    ...readFileSync(file, 'utf8').matchAll(
      /^(?:import|export)\b[^;'"]*?from '([^']+)'|^import '([^']+)'|\bimport\('([^']+)'\)/gm,
    ),
  ].map((match) => match[1] ?? match[2] ?? match[3]);

function checkRooms(src, rooms, where) {
  for (const file of files(src)) {
    const room = path.relative(src, file).split(path.sep)[0];
    const allowed = rooms[room];
    const isTest = file.endsWith('.test.ts');
    if (!(room in rooms) || allowed === null || isTest) continue;
    for (const target of importsOf(file)) {
      if (!target.startsWith('.')) continue;
      const there = path.relative(src, path.resolve(path.dirname(file), target)).split(path.sep)[0];
      if (there !== room && there in rooms && !allowed.includes(there))
        wrongs.push(`${path.relative(root, file)} in ${where}/${room} must not look up to ${there}.`);
      if (
        path.basename(target) === 'index.ts' &&
        there === room &&
        path.dirname(path.resolve(path.dirname(file), target)) === path.dirname(file)
      )
        wrongs.push(`${path.relative(root, file)} imports its own folder's door.`);
    }
  }
}

checkRooms(path.join(root, 'packages/core/src'), core, 'core');
checkRooms(path.join(root, 'apps/web/src'), web, 'web');
for (const [folder, allowed] of Object.entries(packages))
  for (const file of files(path.join(root, folder, 'src'))) {
    for (const target of importsOf(file)) {
      if (target.startsWith('@yunta/') && !allowed.includes(target) && !file.endsWith('.test.ts'))
        wrongs.push(`${path.relative(root, file)} must not import ${target}.`);
      if (folder === 'packages/core' && !target.startsWith('.') && !file.endsWith('.test.ts'))
        wrongs.push(`${path.relative(root, file)} in the core must not import ${target}.`);
    }
  }

// Every room of the core says at its door what it may import, and says the same as here.
for (const [room, allowed] of Object.entries(core)) {
  const door = path.join(root, 'packages/core/src', room, 'README.md');
  const line = `- May import: ${allowed === null ? 'every room' : allowed.length === 0 ? 'nothing' : allowed.join(', ')}\n`;
  if (!existsSync(door)) wrongs.push(`core/${room} has no README.md.`);
  else if (!readFileSync(door, 'utf8').includes(line)) wrongs.push(`core/${room}/README.md must say “${line.trim()}”.`);
}

if (wrongs.length > 0) {
  process.stderr.write(`${wrongs.join('\n')}\n`);
  process.exit(1);
}
process.stdout.write('Every arrow points down.\n');
