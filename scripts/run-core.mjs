// npm run oracle|reference: builds the core and runs one of its measuring programs (packages/core/tools) with the rest
// of the words.
import path from 'node:path';
import { ensureNpm, root, run } from './lib.mjs';

const [tool, ...words] = process.argv.slice(2);
const silent = { what: undefined };
await ensureNpm();
await run(process.execPath, [path.join(root, 'node_modules/typescript/bin/tsc'), '-b', 'packages/core'], silent);
process.argv.splice(2, process.argv.length, ...words);
await import(path.join(root, `packages/core/tools/${tool}.mjs`));
