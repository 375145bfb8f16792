import type { CatalogueEntry } from './entry.ts';
import { bodyOfType } from './bodies.ts';
import { instruments } from './instruments.ts';
import { switching } from './switching.ts';
import { pedals } from './pedals.ts';
import { presetEffects } from './preset-effects.ts';
import { amps } from './amps.ts';
import { lineGear } from './line-gear.ts';
import { powerOfType } from './power.ts';

export type { CatalogueEntry } from './entry.ts';

/** Typical generic gear; every value can be changed on the device. */
export const catalogue: readonly CatalogueEntry[] = [
  ...instruments,
  ...switching,
  ...pedals,
  ...presetEffects,
  ...amps,
  ...lineGear,
].map(withFacts);

function withFacts(one: CatalogueEntry): CatalogueEntry {
  const power = powerOfType(one.type.id);
  const body = bodyOfType(one.type);
  return { ...one, type: { ...one.type, ...(power ? { power } : {}), ...(body ? { body } : {}) } };
}

/** Words that say nothing of a piece: *a selector for two guitars*. */
const littleWords: ReadonlySet<string> = new Set(['a', 'an', 'the', 'for', 'of', 'with', 'and', 'to', 'my']);

/** Entries that hold every typed word, best first: the very name, then names that begin with it. */
export function findTypes(typed: string, library: readonly CatalogueEntry[] = catalogue): readonly CatalogueEntry[] {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '' && !littleWords.has(word));
  if (words.length === 0 && typed.trim() !== '') return [];
  const matching = library.filter((entry) => words.every((word) => begins(entry, word)));
  const whole = words.join(' ');
  const rank = ({ type, aliases }: CatalogueEntry): number => {
    const name = type.name.toLowerCase();
    if (name === whole || aliases.includes(whole)) return 0;
    if (name.startsWith(words[0] ?? '')) return 1;
    if (name.includes(` ${words[0] ?? ''}`)) return 2;
    return 3;
  };
  return [...matching].sort((a, b) => rank(a) - rank(b));
}

const split = new WeakMap<CatalogueEntry, readonly string[]>();
function wordsOf(entry: CatalogueEntry): readonly string[] {
  const known = split.get(entry);
  if (known) return known;
  const words = entry.words.split(/[\s,]+/);
  split.set(entry, words);
  return words;
}

/** Whether some word of an entry begins so; also where several were said. */
const begins = (entry: CatalogueEntry, typed: string): boolean =>
  wordsOf(entry).some((word) => word.startsWith(typed) || (typed.length > word.length && typed === `${word}s`));

export const typeById = (id: string): CatalogueEntry => {
  const found = catalogue.find((catalogueEntry) => catalogueEntry.type.id === id);
  if (!found) throw new Error(`no type ${id} in the catalogue`);
  return found;
};
