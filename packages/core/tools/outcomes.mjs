// npm run outcomes [-- COUNT [FIRST_SEED]] [--write | --lines NAME]: a digest of all that the engine says of the demos,
// the
// starters and seeded random rigs (300 unless said). The same before and after a change that should change nothing.
// --write keeps the sample that npm test compares with; --lines prints the lines of one show, to see what differs.
import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { outcomeShows, outcomesOf } from '../dist/testing/index.js';

const words = process.argv.slice(2);
const numbers = words.filter((word) => /^\d+$/.test(word)).map(Number);
const only = words.includes('--lines') ? words[words.indexOf('--lines') + 1] : null;
const sampleSeeds = 25;
const digest = (lines) => createHash('sha256').update(lines.join('\n')).digest('hex').slice(0, 16);

const write = words.includes('--write');
const each = {};
const whole = createHash('sha256');
for (const [name, show] of outcomeShows(write ? sampleSeeds : (numbers[0] ?? 300), numbers[1] ?? 1)) {
  if (only !== null && only !== name) continue;
  const lines = outcomesOf(show);
  if (only !== null) process.stdout.write(`${lines.join('\n')}\n`);
  each[name] = digest(lines);
  whole.update(each[name]);
}
if (write)
  writeFileSync(
    path.join(import.meta.dirname, '../fixtures/outcomes.json'),
    `${JSON.stringify({ seeds: sampleSeeds, each }, null, 1)}\n`,
  );
if (only === null) process.stdout.write(`${Object.keys(each).length} shows: ${whole.digest('hex').slice(0, 32)}\n`);
