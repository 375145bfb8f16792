import { describe, expect, test } from '@jest/globals';
import { fourCable } from '../../testing/build-show.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { buildCsr } from '../../trace/csr.ts';
import { proverOf } from '../prove/prover-of.ts';
import type { Range } from './range-table.ts';
import { RangeTable } from './range-table.ts';
import { Reachability } from './reachability.ts';
import { SoundComparison } from './sound-comparison.ts';

const seeds = Array.from({ length: 16 }, (_, i) => 300 + i);

/** Every combination of what some ranges leave open, or none where there are too many. */
function statesIn(ranges: ReadonlyMap<number, readonly number[]>): readonly ReadonlyMap<number, number>[] {
  let states: ReadonlyMap<number, number>[] = [new Map()];
  for (const [variable, values] of ranges) {
    states = states.flatMap((state) => values.map((value) => new Map([...state, [variable, value]])));
    if (states.length > 600) return [];
  }
  return states;
}

describe('what may sound, and what surely does', () => {
  test.each(seeds)(
    'seed %i: may covers what sounds in some state of the ranges, must only what sounds in all of them',
    (seed) => {
      const { model } = proverOf(seededShow(seed));
      const comparison = new SoundComparison(model);
      const none = buildCsr(comparison.graph.nodeCount, () => undefined);
      const table = new RangeTable(comparison.edges, (value) => model.values.isSymbolic(value));
      const liveness = new Reachability(comparison, table, { onwards: none, back: none });
      const deciding = [
        ...new Set(comparison.edges.flatMap((edge) => edge.when.map((condition) => condition.variable))),
      ].filter((variable) => variable >= 0);
      const r = new Random(seed);
      let looked = 0;
      for (let round = 0; round < 12; round += 1) {
        const ranges = new Map(
          deciding.map((variable) => {
            const options = comparison.optionsOf(variable);
            return [variable, r.chance(0.4) ? options : [r.pick(options)]] as const;
          }),
        );
        const states = statesIn(ranges);
        if (states.length === 0) continue;
        looked += 1;
        const some = table.ranges((variable): Range => ranges.get(variable) ?? null);
        const may = liveness.may(some);
        const must = liveness.mustLive(some);
        const lives = states.map((state) =>
          comparison.liveWhen(
            (condition) => condition.variable < 0 || condition.values.includes(state.get(condition.variable)!),
          ),
        );
        for (const edge of comparison.edges) {
          const some = lives.some((live) => live.edges[edge.index]);
          const every = lives.every((live) => live.edges[edge.index]);
          if (some) expect([edge.index, may.edges[edge.index]]).toEqual([edge.index, 1]);
          if (must[edge.index] === 1) expect([edge.index, every]).toEqual([edge.index, true]);
        }
        if (lives.some((live) => live.sounds)) expect(may.sounds).toBe(true);
        if (liveness.surelySounds(some)) expect(lives.every((live) => live.sounds)).toBe(true);
        // Where everything is known there is nothing between the two.
        if (states.length === 1)
          for (const edge of comparison.edges)
            if (edge.when.every((condition) => condition.variable >= 0))
              expect([edge.index, must[edge.index]]).toEqual([edge.index, lives[0].edges[edge.index] ? 1 : 0]);
      }
      expect(looked).toBeGreaterThan(0);
    },
  );

  test('a loop with a pedal in it passes either way; one with nothing in it cuts the line where it is in', () => {
    const prover = proverOf(fourCable().show);
    const { model, threeValued } = prover;
    const [held, empty, own] = ['switcher/loop-1', 'switcher/loop-4', 'drive/on'].map((ref) =>
      model.variableOf.get(ref as `${string}/${string}`)!,
    );
    expect(threeValued.mayCut({ has: () => false }, () => null)).toEqual([empty]);
    const withEmpty = (to: 0 | 1) =>
      threeValued.surelySounds((variable) => (variable === empty ? [model.values.id(to)] : null));
    expect([withEmpty(0), withEmpty(1), threeValued.surelySounds(() => null)]).toEqual([true, false, false]);
    expect([
      threeValued.relatedControls(own).includes(held),
      threeValued.relatedControls(held).includes(own),
      threeValued.relatedControls(empty),
    ]).toEqual([true, true, []]);
  });
});
