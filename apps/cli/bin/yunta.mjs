#!/usr/bin/env node
import { existsSync } from 'node:fs';

const words = process.argv.slice(2);
if (['backup', 'restore'].includes(words[0])) {
  // These work on the data of an installation, not on a file: they belong to what starts it.
  const { main } = await import('../../../scripts/backup.mjs');
  process.exitCode = await main(words);
} else {
  const built = new URL('../dist/main.js', import.meta.url);
  if (!existsSync(built)) {
    process.stderr.write('Not built yet: run npm start (or npm run build) once.\n');
    process.exit(2);
  }
  const { main } = await import(built.href);
  process.exitCode = await main(words);
}
