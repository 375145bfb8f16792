// Checks what people read for words that we do not use: each with the one that we do. Texts are told from code by what
// stands around them: quotes, backticks, or the tags of a page. Comments and tests are left alone.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './lib.mjs';

const words = [
  [/\b(sound|piece|slot|device) in hand\b/i, 'selected'],
  [/\b(rig’s|one|the other) schools?\b|\bschools differ\b|>Schools</, 'convention'],
  [/\bmended where\b/i, 'where to fix'],
  [/\b(live|lived) with (it|:)|\bjudge it again\b/i, 'accept, accepted, reopen'],
  [/\bstones?\b/i, 'step'],
  [/\bleft over from before\b/i, 'wrong sound after an earlier press'],
  [/\bstray foot\b/i, 'accidental press'],
  [/\bfalls? quiet\b/i, 'settles'],
  [/\bcounted the other way\b/i, 'off by one'],
  [/\bbeside the slots\b/i, 'power-up, momentary switches, calls'],
  [/\bfacts of this type\b|\bwho sets what\b/i, 'settings, controlled by'],
  [/\btake away\b|\bsongs in \(|\blist in \(|\bbring one along\b/i, 'export, import'],
  [/>\s*(Pull|Put in|\+ end)\s*</, 'unplug, add, split'],
  [/\bloop (\d+|that is) (in|out)\b/i, 'loop on, off'],
  [/\bwanted so\b|\bnot wanted, taken out\b/i, 'on, off'],
  [/\bdeclare (it|that|the sound)\b.*silent|\bdeclared silent\b/i, 'mark as silent'],
  [/\bon the wire\b/i, 'sent as'],
  [/\bdeeds?\b|\bdeaf\b|\bdoes not care\b|\blet go\b/i, 'action, none, don’t care, released'],
  [/\bkeyed in\b/i, 'entered'],
  [/\brefrain\b/i, 'chorus'],
];

/** Texts of a line: what stands in quotes or between tags. */
const textsOf = (line) =>
  [
    ...line.matchAll(
      /'((?:[^'\\]|\\.)*)'|`((?:[^`\\]|\\.)*)`|"((?:[^"\\]|\\.)*)"|>([^<>{}]+)<|^\s*([A-Za-z][^<>{}();=]*[a-z.,…])$/g,
    ),
  ].map((match) =>
    match
      .slice(1)
      .find((part) => part !== undefined)
      .replace(/\$\{[^}]*\}/g, '…'),
  );
const isComment = (line) => /^\s*(\/\/|\/\*|\*)/.test(line);
const isCode = (text) => /^[a-z0-9./_-]+$/.test(text);

const found = [];
for (const folder of ['apps/web/src', 'apps/server/src', 'apps/cli/src', 'packages/core/src', 'scripts'])
  for (const entry of readdirSync(path.join(root, folder), { recursive: true, withFileTypes: true })) {
    const file = path.join(entry.parentPath, entry.name);
    if (!entry.isFile() || !/\.(tsx?|mjs)$/.test(file) || /\.test\.ts$|scripts\/words\.mjs$|\/testing\//.test(file))
      continue;
    readFileSync(file, 'utf8')
      .split('\n')
      .forEach((line, i) => {
        if (isComment(line) || /^import /.test(line)) return;
        for (const text of textsOf(line).filter((one) => !isCode(one)))
          for (const [word, ours] of words)
            if (word.test(text))
              found.push(
                `${path.relative(root, file)}:${i + 1} says “${word.exec(text)[0]}” (we say: ${ours}): ${text.trim().slice(0, 100)}`,
              );
      });
  }

if (found.length > 0) {
  process.stderr.write(`${found.join('\n')}\n`);
  process.exit(1);
}
process.stdout.write('Every word is one of ours.\n');
