import { describe, expect, test } from '@jest/globals';
import type { Show } from '../../model/documents.ts';
import { clean, fourCable } from '../../testing/build-show.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { buildCsr } from '../../trace/csr.ts';
import { proverOf } from '../prove/prover-of.ts';
import { guaranteedThrough } from './guaranteed-paths.ts';
import { SoundComparison } from './sound-comparison.ts';

function found(show: Show) {
  const comparison = new SoundComparison(proverOf(show).model);
  const { edges, graph, model } = comparison;
  const conditioned = buildCsr(model.variables.length, (tell) => {
    for (const { index, when } of edges) for (const { variable } of when) if (variable >= 0) tell(variable, index);
  });
  const variables = [...new Set(edges.flatMap(({ when }) => when.map(({ variable }) => variable)))].filter(
    (variable) => variable >= 0,
  );
  const { onwards, back } = guaranteedThrough(comparison, conditioned, variables);
  const pairs: [number, number][] = [];
  for (let node = 0; node < graph.nodeCount; node += 1)
    for (let k = onwards.start[node]; k < onwards.start[node + 1]; k += 1) pairs.push([node, onwards.items[k]]);
  return { comparison, variables, pairs, back };
}

/**
 * Nodes that a way leads to from a start, where each variable has the value of a state: asked plainly, section by
 * section, until none is added.
 */
function reachedFrom(
  { edges }: SoundComparison,
  start: number,
  state: ReadonlyMap<number, number>,
): ReadonlySet<number> {
  const reached = new Set([start]);
  for (let before = 0; before < reached.size;) {
    before = reached.size;
    for (const { from, to, when } of edges)
      if (reached.has(from) && when.every(({ variable, values }) => values.includes(state.get(variable) ?? -1)))
        reached.add(to);
  }
  return reached;
}

describe('ways that are always there', () => {
  test.each(Array.from({ length: 24 }, (_, i) => 500 + i))(
    'seed %i: they are there whatever each control is, and are told from both ends',
    (seed) => {
      const { comparison, variables, pairs, back } = found(seededShow(seed));
      expect(pairs.length).toBe(back.items.length);
      for (const [start, end] of pairs)
        expect([...back.items.subarray(back.start[end], back.start[end + 1])]).toContain(start);
      const r = new Random(seed);
      for (let round = 0; round < 20; round += 1) {
        const state = new Map(variables.map((variable) => [variable, r.pick(comparison.optionsOf(variable))]));
        for (const [start, end] of pairs)
          expect([start, end, reachedFrom(comparison, start, state).has(end)]).toEqual([start, end, true]);
      }
    },
  );
  test('a pedal goes through by its effect or its bypass, and then the loop that holds it, in or out', () => {
    const { comparison, pairs } = found(fourCable().sound('clean', clean).show);
    const { edges, model } = comparison;
    const leads = (from: number, to: number): boolean => pairs.some(([start, end]) => start === from && end === to);
    const loops = edges.filter(
      ({ index, when }) => when.length === 1 && comparison.graph.edges[index].section.startsWith('bypass-'),
    );
    const holding = loops.filter(({ when }) =>
      [...model.switching.values()].some(
        ({ loop }) => loop !== undefined && model.variableOf.get(loop) === when[0].variable,
      ),
    );
    expect(holding.length).toBeGreaterThan(2);
    for (const { from, to } of holding) expect(leads(from, to)).toBe(true);
    for (const { from, to } of loops.filter((loop) => !holding.includes(loop))) expect(leads(from, to)).toBe(false);
  });
});
