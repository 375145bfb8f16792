// Checks that imports point one way between rooms, and that no files import each other in a circle; says what does not
// as a sentence.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './lib.mjs';

const recall = ['units', 'model', 'midi', 'trace', 'program'];
const core = {
  units: [],
  model: ['units'],
  midi: ['units', 'model'],
  catalogue: ['units', 'model'],
  trace: ['units', 'model'],
  program: ['units', 'model', 'midi', 'trace'],
  show: ['units', 'model', 'midi', 'program'],
  design: ['units', 'model'],
  change: ['units', 'model', 'program', 'design'],
  allocate: ['units', 'model'],
  supply: ['units'],
  optimise: [],
  arrange: ['units', 'optimise'],
  'recall/state': recall,
  'recall/device': [...recall, 'recall/state'],
  'recall/audible': [...recall, 'recall/state'],
  'recall/deliver': [...recall, 'recall/state', 'recall/device'],
  'recall/explore': [...recall, 'recall/state', 'recall/device', 'recall/audible', 'recall/deliver'],
  'recall/feet': [...recall, 'recall/state', 'recall/audible', 'recall/deliver', 'recall/explore'],
  'recall/prove': [
    ...recall,
    'recall/state',
    'recall/device',
    'recall/audible',
    'recall/deliver',
    'recall/explore',
    'recall/feet',
  ],
  'recall/replay': [...recall, 'recall/state', 'recall/audible', 'recall/deliver', 'recall/feet', 'recall/prove'],
  power: ['units', 'model', 'supply', 'change'],
  home: ['units', 'model', 'change', 'pack'],
  build: ['units', 'model', 'optimise', 'arrange', 'change'],
  pack: ['units', 'model', 'build', 'change'],
  check: [
    'units',
    'model',
    'midi',
    'trace',
    'program',
    'change',
    'recall',
    'catalogue',
    'power',
    'supply',
    'build',
    'pack',
  ],
  variants: ['units', 'model', 'midi', 'program', 'change'],
  paper: ['units', 'model', 'midi', 'program', 'show', 'variants', 'power', 'build', 'pack'],
  formats: ['units', 'model', 'midi', 'change', 'program', 'show', 'paper'],
  why: ['units', 'model', 'midi', 'trace', 'program', 'show', 'recall', 'power', 'arrange', 'build', 'pack', 'home'],
  entry: ['units', 'model', 'catalogue', 'change'],
  intent: ['units', 'model', 'program', 'catalogue', 'change', 'entry', 'allocate'],
  starters: ['units', 'model', 'catalogue', 'change', 'entry'],
  demo: ['units', 'model', 'catalogue', 'change', 'build', 'pack', 'starters'],
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
const said = (file) => path.relative(root, file);

/** The room that a file is in: the folder of most steps that is one. Undefined for a file in none. */
const roomOf = (src, file, rooms) => {
  const steps = path.relative(src, file).split(path.sep);
  return [steps.slice(0, 2).join('/'), steps[0]].find((room) => room in rooms);
};
const mayImport = (allowed, room) => allowed.some((one) => room === one || room.startsWith(`${one}/`));

function checkRooms(src, rooms, where) {
  for (const file of files(src)) {
    const room = roomOf(src, file, rooms);
    const isTest = file.endsWith('.test.ts');
    if (room === undefined || rooms[room] === null || isTest) continue;
    for (const target of importsOf(file).filter((one) => one.startsWith('.'))) {
      const to = path.resolve(path.dirname(file), target);
      const there = roomOf(src, to, rooms);
      if (there !== undefined && there !== room && !mayImport(rooms[room], there))
        wrongs.push(`${said(file)} in ${where}/${room} must not look up to ${there}.`);
      if (path.basename(to) === 'index.ts' && path.dirname(to) === path.dirname(file))
        wrongs.push(`${said(file)} imports its own folder's door.`);
    }
  }
}

/** Files that import each other, types or not: whoever reads one must read them all. */
function checkCircles(src) {
  const all = new Set(files(src).filter((file) => !file.endsWith('.test.ts')));
  const state = new Map();
  const visit = (file, way) => {
    if (state.get(file) === 'done') return;
    if (state.get(file) === 'open') {
      wrongs.push(`${[...way.slice(way.indexOf(file)), file].map(said).join(' imports ')}: a circle.`);
      return;
    }
    state.set(file, 'open');
    for (const target of importsOf(file).filter((one) => one.startsWith('.'))) {
      const to = path.resolve(path.dirname(file), target);
      if (all.has(to)) visit(to, [...way, file]);
    }
    state.set(file, 'done');
  };
  for (const file of all) visit(file, []);
}

const coreFolder = path.join(root, 'packages/core/src');
checkRooms(coreFolder, core, 'core');
checkRooms(path.join(root, 'apps/web/src'), web, 'web');
for (const [folder, allowed] of Object.entries(packages)) {
  checkCircles(path.join(root, folder, 'src'));
  for (const file of files(path.join(root, folder, 'src'))) {
    if (file.endsWith('.test.ts')) continue;
    for (const target of importsOf(file)) {
      if (target.startsWith('@yunta/') && !allowed.includes(target))
        wrongs.push(`${said(file)} must not import ${target}.`);
      if (folder === 'packages/core' && !target.startsWith('.'))
        wrongs.push(`${said(file)} in the core must not import ${target}.`);
    }
  }
}

// Every room of the core says at its door what it may import, and says the same as here.
for (const [room, allowed] of Object.entries(core)) {
  const door = path.join(coreFolder, room, 'README.md');
  const names = allowed === null ? 'every room' : allowed.length === 0 ? 'nothing' : allowed.join(', ');
  const line = `- May import: ${names}\n`;
  if (!existsSync(door)) wrongs.push(`core/${room} has no README.md.`);
  else if (!readFileSync(door, 'utf8').includes(line)) wrongs.push(`core/${room}/README.md must say “${line.trim()}”.`);
}

if (wrongs.length > 0) {
  process.stderr.write(`${wrongs.join('\n')}\n`);
  process.exit(1);
}
process.stdout.write('Every arrow points down, and none comes round.\n');
