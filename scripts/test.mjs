// npm test: installs what is missing, then type check, lint, arrows, unit, component, server and browser tests.
// `--only NAME` runs one of them. What only reads the code goes two at a time; tests run in two workers, those of the
// server and the browser each with a database of its own.
import path from 'node:path';
import { databaseNeeds } from './database.mjs';
import { ensureBuilt, ensureNpm, ensurePrograms, root, run, say } from './lib.mjs';

const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null;
const node = process.execPath;
const tool = (name) => path.join(root, 'node_modules', name);
const jest = (project) => [
  '--experimental-vm-modules',
  '--no-warnings',
  tool('jest/bin/jest.js'),
  '--selectProjects',
  project,
  ...(project === 'components' ? ['--runInBand'] : ['--maxWorkers=2']),
];

const stages = [
  ['types', () => run(node, [tool('typescript/bin/tsc'), '-p', 'tsconfig.tests.json'], { what: 'Types of the tests' })],
  ['types-web', () => run(node, [tool('typescript/bin/tsc'), '-p', 'apps/web'], { what: 'Types of the page' })],
  ['lint', () => run(node, [tool('eslint/bin/eslint.js'), '.'], { what: 'Lint' })],
  ['format', () => run(node, [tool('prettier/bin/prettier.cjs'), '--check', '.'], { what: 'Format' })],
  ['arrows', () => run(node, ['scripts/arrows.mjs'], { what: 'Arrows between rooms' })],
  ['words', () => run(node, ['scripts/words.mjs'], { what: 'Words that people read' })],
  ['unit', () => run(node, jest('unit'), { show: true })],
  ['components', () => run(node, jest('components'), { show: true })],
  ['server', () => run(node, jest('server'), { show: true })],
  ['browser', () => run(node, jest('browser'), { show: true })],
];

const readingStages = new Set(['types', 'types-web', 'lint', 'format', 'arrows', 'words']);

try {
  await ensurePrograms([...databaseNeeds, { program: 'chromium', packages: ['chromium'] }]);
  await ensureNpm();
  await ensureBuilt();
  const chosen = stages.filter(([name]) => !only || only === name);
  const reading = chosen.filter(([name]) => readingStages.has(name));
  const line = async () => {
    for (let next = reading.shift(); next; next = reading.shift()) await next[1]();
  };
  await Promise.all([line(), line()]);
  for (const [name, stage] of chosen) if (!readingStages.has(name)) await stage();
  say('All of it passed.');
} catch (reason) {
  say(reason.message);
  process.exit(1);
}
