#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.js', import.meta.url);
if (!existsSync(built)) {
  process.stderr.write('Not built yet: run npm start (or npm run build) once.\n');
  process.exit(2);
}
const { main } = await import(built.href);
process.exitCode = await main(process.argv.slice(2));
