// npm run -s reference -- FILE [--compare]: every case of a reference file, computed from its inputs alone. Exits 2
// where a case holds what cannot be adapted, which is told by name.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { answerReference, compareReference } from '../dist/testing/index.js';

const words = process.argv.slice(2);
const [name] = words.filter((word) => !word.startsWith('--'));
if (!name) {
  process.stderr.write('usage: npm run -s reference -- FILE [--compare]\n');
  process.exit(2);
}
let file;
try {
  file = JSON.parse(readFileSync(path.resolve(process.env.INIT_CWD ?? '.', name), 'utf8'));
} catch (reason) {
  process.stderr.write(`${name}: ${reason.message}\n`);
  process.exit(2);
}
const { answers, left, refused } = answerReference(file);
for (const topic of left) process.stderr.write(`not reached yet: ${topic}\n`);
for (const { id, reason } of refused) process.stderr.write(`left out: ${id}: ${reason}\n`);
if (words.includes('--compare')) {
  const misses = compareReference(file);
  for (const miss of misses)
    process.stdout.write(
      `${miss.id}${miss.pointer}: expected ${JSON.stringify(miss.expected)}, found ${JSON.stringify(miss.found)}\n`,
    );
  process.stdout.write(
    `${Object.keys(answers).length} cases computed, ${misses.length} values out of tolerance or missing\n`,
  );
  process.exitCode = misses.length === 0 ? 0 : 1;
} else process.stdout.write(`${JSON.stringify(answers, null, 1)}\n`);
if (refused.length > 0) process.exitCode = 2;
