import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { jsonSize } from './json-size.ts';

/** Counted over the parsed data, another way. */
function counted(data: unknown): { depth: number; entries: number } {
  if (data === null || typeof data !== 'object') return { depth: 0, entries: 0 };
  const inner = Object.values(data).map(counted);
  return {
    depth: 1 + Math.max(0, ...inner.map(({ depth }) => depth)),
    entries: 1 + Math.max(0, inner.length - 1) + inner.reduce((sum, { entries }) => sum + entries, 0),
  };
}

test('depth and entries of any JSON are those of its data, whatever its texts hold', () => {
  let deepest = 0;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), fc.constantFrom(undefined, 2), (data, indent) => {
      const size = jsonSize(JSON.stringify(data, null, indent));
      deepest = Math.max(deepest, size.depth);
      expect(size).toEqual(counted(JSON.parse(JSON.stringify(data))));
    }),
    { seed: 20261127, numRuns: 400 },
  );
  expect(deepest).toBeGreaterThan(3);
});

test('brackets, commas, quotes and backslashes inside of texts do not count', () => {
  expect(jsonSize(JSON.stringify({ '[{,': '\\"[,{\\' }))).toEqual({ depth: 1, entries: 1 });
});

test('an endless text, or one of brackets alone, is counted and not parsed', () => {
  expect(jsonSize('['.repeat(1_000_000)).depth).toBe(1_000_000);
  expect(jsonSize('"[[[[').depth).toBe(0);
});
