// npm test: installs what is missing, then type check, lint, arrows, unit, component, server and browser tests.
// `--only NAME` runs one of them.
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
  ...(project === 'unit' ? [] : ['--runInBand']),
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

try {
  await ensurePrograms([...databaseNeeds, { program: 'chromium', packages: ['chromium'] }]);
  await ensureNpm();
  await ensureBuilt();
  for (const [name, stage] of stages) if (!only || only === name) await stage();
  say('All of it passed.');
} catch (reason) {
  say(reason.message);
  process.exit(1);
}
