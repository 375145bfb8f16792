// npm run oracle [-- COUNT [FIRST_SEED]]: the proof against whole-rig enumeration from bytes; exits 1 on any
// disagreement.
import { runOracle } from '../dist/testing/index.js';

const count = Number(process.argv[2] ?? 10000);
const first = Number(process.argv[3] ?? 20_000_000);
if (!Number.isInteger(count) || count < 1 || !Number.isInteger(first)) {
  process.stderr.write('usage: npm run oracle [-- COUNT [FIRST_SEED]]\n');
  process.exit(2);
}
process.exitCode = runOracle(count, first, (line) => process.stdout.write(`${line}\n`)) === 0 ? 0 : 1;
