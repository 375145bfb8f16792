// node scripts/rules-page.mjs: writes docs/rules.md from the rules themselves; a test holds the page to them.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './lib.mjs';

const { rules, rulesPage } = await import(path.join(root, 'packages/core/dist/index.js'));
writeFileSync(path.join(root, 'docs/rules.md'), rulesPage(rules));
