import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Range } from './range-table.ts';
import { RangeTable } from './range-table.ts';
import type { SoundEdge } from './sound-comparison.ts';

const symbol = 999;
const isSymbolic = (value: number) => value === symbol;
const edgesOf = (whens: readonly SoundEdge['when'][]): SoundEdge[] =>
  whens.map((when, index) => ({ index, from: 0, to: 1, active: true, when, parameters: [] }));

/** The same said plainly: whether one condition may and must hold, of a range. */
const may = (range: Range, values: readonly number[]): boolean =>
  range === null || range.some((value) => values.includes(value) || isSymbolic(value));
const must = (range: Range, values: readonly number[]): boolean =>
  range !== null && range.length > 0 && range.every((value) => values.includes(value));

/** Many values, so that a variable needs several words. */
const value = fc.integer({ min: 0, max: 70 });
const condition = fc.record({
  variable: fc.integer({ min: 0, max: 2 }),
  values: fc.uniqueArray(value, { minLength: 1, maxLength: 3 }),
});
const whens = fc.array(fc.array(condition, { maxLength: 3 }), { minLength: 1, maxLength: 80 });
const range: fc.Arbitrary<Range> = fc.oneof(
  fc.constant(null),
  fc.uniqueArray(fc.oneof({ weight: 8, arbitrary: value }, { weight: 1, arbitrary: fc.constant(symbol) }), {
    maxLength: 4,
  }),
);
const ranges = fc.tuple(range, range, range);

describe('ranges', () => {
  test('law: a section may close, and must, as its conditions plainly say', () => {
    fc.assert(
      fc.property(whens, ranges, (list, at) => {
        const table = new RangeTable(edgesOf(list), isSymbolic);
        const some = table.ranges((variable) => at[variable]);
        for (const [edge, when] of list.entries()) {
          expect([edge, table.mayClose(edge, some)]).toEqual([
            edge,
            when.every(({ variable, values }) => may(at[variable], values)),
          ]);
          expect([edge, table.mustClose(edge, some)]).toEqual([
            edge,
            when.every(({ variable, values }) => must(at[variable], values)),
          ]);
        }
      }),
    );
  });
  test('law: target over and widened by wanted values it is as if the ranges had been so', () => {
    fc.assert(
      fc.property(
        whens,
        ranges,
        fc.array(fc.tuple(fc.integer({ min: 0, max: 2 }), value), { maxLength: 3 }),
        (list, at, wants) => {
          const wanted = new Map(wants);
          const table = new RangeTable(edgesOf(list), isSymbolic);
          const overlay = table.overlay(Int32Array.from(wanted.keys()), Int32Array.from(wanted.values()), () => false);
          const now = table.ranges((variable) => at[variable]);
          const item = (variable: number): Range => (wanted.has(variable) ? [wanted.get(variable)!] : at[variable]);
          const more = (variable: number): Range =>
            wanted.has(variable) && at[variable] !== null ? [...at[variable], wanted.get(variable)!] : at[variable];
          for (const [edge, when] of list.entries()) {
            const replaced = table.replaced(now, overlay);
            expect(table.mayClose(edge, replaced)).toBe(
              when.every(({ variable, values }) => may(item(variable), values)),
            );
            expect(table.mustClose(edge, replaced)).toBe(
              when.every(({ variable, values }) => must(item(variable), values)),
            );
            const widened = now.slice();
            table.widen(widened, overlay);
            expect(table.mayClose(edge, widened)).toBe(
              when.every(({ variable, values }) => may(more(variable), values)),
            );
          }
        },
      ),
    );
  });
  test('a variable that is not there may be anything; one left out of an overlay stays', () => {
    const table = new RangeTable(
      edgesOf([[{ variable: -1, values: [1] }], [{ variable: 0, values: [1] }]]),
      isSymbolic,
    );
    const now = table.ranges(() => [2]);
    expect([table.mayClose(0, now), table.mustClose(0, now), table.mayClose(1, now)]).toEqual([true, false, false]);
    const left = table.overlay(Int32Array.of(0), Int32Array.of(1), () => true);
    expect(table.mayClose(1, table.replaced(now, left))).toBe(false);
    expect(
      table.mustClose(
        1,
        table.replaced(
          now,
          table.overlay(Int32Array.of(0), Int32Array.of(1), () => false),
        ),
      ),
    ).toBe(true);
  });
});
