import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { outcomeShows, outcomesOf } from './outcomes.ts';

const kept = JSON.parse(readFileSync(path.join(import.meta.dirname, '../../fixtures/outcomes.json'), 'utf8')) as {
  seeds: number;
  each: Record<string, string>;
};

/**
 * `npm run outcomes -- --write` keeps new ones, where what the engine says was meant to change; the history then shows
 * it.
 */
describe('what the engine says of a sample of shows is what was kept', () => {
  const shows = [...outcomeShows(kept.seeds)];
  test('of the same shows', () => expect(shows.map(([name]) => name)).toEqual(Object.keys(kept.each)));
  test.each(shows)('%s', (name, show) => {
    const lines = outcomesOf(show);
    expect(lines.length).toBeGreaterThan(0);
    expect(createHash('sha256').update(lines.join('\n')).digest('hex').slice(0, 16)).toBe(kept.each[name]);
  });
});
