import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../../demo/demo.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import type { Judged } from '../prove/judgements.ts';
import { Judgements } from '../prove/judgements.ts';
import { proverOf } from '../prove/prover-of.ts';
import { doesTheSame } from './event-table.ts';

describe('events of random rigs', () => {
  const faults = new Set(['sent', 'link', 'receiver', 'edge', 'restart'] as const);

  test.each([2, 3, 4] as const)(
    'at level %i those that concern some variables are those that may change one, in document order',
    (level) => {
      let concerned = 0;
      for (let seed = 1; seed <= 25; seed += 1) {
        const r = new Random(seed);
        const { table, model } = proverOf(seededShow(seed));
        const all = table.at(level, faults);
        for (let i = 0; i < 12; i += 1) {
          const variables = Array.from({ length: 1 + r.below(3) }, () => r.below(model.variables.length));
          const expected = all.filter(({ summary }) => variables.some((variable) => summary.mayWrite(variable)));
          expect(table.concerning(level, faults, variables)).toEqual(expected);
          expect(table.mayWrite(level, faults, variables[0])).toBe(
            all.some(({ summary }) => summary.mayWrite(variables[0])),
          );
          concerned += expected.length;
        }
      }
      expect(concerned).toBeGreaterThan(500);
    },
  );

  test('a level holds the ordinary events, and beside them what it is about', () => {
    const { table } = proverOf(demoShow());
    const kinds = (level: 2 | 3 | 4) =>
      table
        .at(level, faults)
        .filter(({ event }) => !table.ordinary.some((compiledEvent) => compiledEvent.event === event))
        .map(({ event }) => (event.kind === 'foot' && event.stray ? 'stray' : event.kind));
    expect(kinds(2)).toEqual([]);
    expect(new Set(kinds(3))).toEqual(new Set(['stray']));
    expect(new Set(kinds(4))).toEqual(new Set(['restart']));
  });

  test('an event does the same as itself where it leaves a known value or nothing at all', () => {
    for (let seed = 1; seed <= 10; seed += 1) {
      const { table, model } = proverOf(seededShow(seed));
      for (const compiled of table.ordinary)
        for (const { index } of model.variables)
          if (!compiled.summary.mayWrite(index) || compiled.summary.leaves(index) >= 0)
            expect(doesTheSame(compiled, compiled, index)).toBe(true);
    }
  });

  test('of two presses that leave a variable on different values neither does the same', () => {
    let different = 0;
    for (let seed = 1; seed <= 20; seed += 1) {
      const { table, model } = proverOf(seededShow(seed));
      const presses = [...table.press.values()];
      for (const { index } of model.variables)
        for (const other of presses.slice(1)) {
          if (presses[0].summary.leaves(index) === other.summary.leaves(index)) continue;
          expect(doesTheSame(presses[0], other, index)).toBe(false);
          different += 1;
        }
    }
    expect(different).toBeGreaterThan(50);
  });
});

test('judgements are kept by level, slot and sound', () => {
  const prover = proverOf(seededShow(1));
  const [{ slot, sound }] = prover.pairs();
  const judged = (level: 1 | 2, of: typeof sound): Judged => ({
    slot,
    sound: of,
    judgement: { slot: slot.slot.id, sound: of.id, level, verdict: 'recalls', length: null, sequence: null },
    dependsOn: [],
  });
  const other = { ...sound, id: 'other' };
  const kept = new Judgements();
  const all = [judged(1, sound), judged(2, sound), judged(2, other)];
  for (const judged of all) kept.add(judged);
  expect([...kept]).toEqual(all);
  expect(kept.get(2, slot.index, 'other')).toBe(all[2]);
  expect(kept.get(2, slot.index, sound.id)).toBe(all[1]);
  expect(kept.get(1, slot.index, 'other')).toBeUndefined();
  expect(kept.get(3, slot.index, sound.id)).toBeUndefined();
  expect(kept.get(2, slot.index + 1, sound.id)).toBeUndefined();
});
