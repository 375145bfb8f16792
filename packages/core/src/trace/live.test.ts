import { describe, expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { identity, transpose } from './csr.ts';
import { cyclesOf } from './feedback.ts';
import type { TraceEdge, TraceGraph } from './graph.ts';
import { ReachabilitySearch } from './live.ts';

/** Some points with sections between them that do something with gain 1, or nothing. */
function anyGraph(r: Random): TraceGraph {
  const nodeCount = 2 + r.below(7);
  const edges = Array.from({ length: 1 + r.below(10) }, (_, index): TraceEdge => ({
    index,
    device: `device-${index}`,
    section: 'section',
    label: '',
    from: r.below(nodeCount),
    to: r.below(nodeCount),
    active: r.chance(0.5),
    gain: 1,
    when: [],
    parameters: [],
  }));
  const from = Int32Array.from(edges, (edge) => edge.from);
  const to = Int32Array.from(edges, (edge) => edge.to);
  const terminals = (count: number) =>
    Array.from({ length: count }, () => ({ device: 'end', node: r.below(nodeCount) }));
  return {
    nodeCount,
    edges,
    from,
    to,
    active: Uint8Array.from(edges, (edge) => (edge.active ? 1 : 0)),
    leaving: transpose(identity(from), nodeCount),
    arriving: transpose(identity(to), nodeCount),
    sources: terminals(1 + r.below(2)),
    destinations: terminals(1 + r.below(2)),
    jacks: Array.from({ length: nodeCount }, () => []),
    sided: [],
  };
}

/** Points that some lead to, themselves among them, by repeated looking. */
function reachedFrom(starts: readonly number[], steps: readonly (readonly [number, number])[]): Set<number> {
  const reached = new Set(starts);
  for (let before = -1; before !== reached.size;) {
    before = reached.size;
    for (const [from, to] of steps) if (reached.has(from)) reached.add(to);
  }
  return reached;
}

describe('what is live in a graph, on random ones', () => {
  const cases = Array.from({ length: 2_000 }, (_, seed) => {
    const r = new Random(seed);
    const graph = anyGraph(r);
    const closed = graph.edges.map(() => r.chance(0.75));
    return { graph, closed, live: new ReachabilitySearch(graph).live((edge) => closed[edge]) };
  });

  test('it is what lies on a way from a source to a destination', () => {
    let sounding = 0;
    for (const { graph, closed, live } of cases) {
      const steps = graph.edges.filter(({ index }) => closed[index]).map(({ from, to }) => [from, to] as const);
      const forward = reachedFrom(
        graph.sources.map(({ node }) => node),
        steps,
      );
      const heard = graph.destinations.filter(({ node }) => forward.has(node));
      const backward = reachedFrom(
        heard.map(({ node }) => node),
        steps.map(([from, to]) => [to, from] as const),
      );
      expect(live.sounds).toBe(heard.length > 0);
      expect([...live.forward].map(Boolean)).toEqual(
        Array.from({ length: graph.nodeCount }, (_, node) => forward.has(node)),
      );
      expect([...live.reached].map(Boolean)).toEqual(
        graph.edges.map(({ index, from }) => closed[index] && forward.has(from)),
      );
      expect([...live.edges].map(Boolean)).toEqual(
        graph.edges.map(({ index, from, to }) => closed[index] && forward.has(from) && backward.has(to)),
      );
      const isWhole =
        live.reached.every((reached, edge) => reached === live.edges[edge]) &&
        graph.sources.every(({ node }) => backward.has(node));
      expect(live.isWhole).toBe(isWhole);
      if (isWhole && live.sounds) sounding += 1;
    }
    expect(sounding).toBeGreaterThan(100);
  });

  test('where no ways meet, nothing comes round, also where wires are drawn together', () => {
    let trees = 0;
    let others = 0;
    for (const { graph, live } of cases) {
      const cycles = cyclesOf(graph, live.reached);
      if (live.isTree) expect(cycles).toEqual([]);
      if (live.isTree && live.reached.some((reached) => reached === 1)) trees += 1;
      if (cycles.length > 0) others += 1;
    }
    expect(trees).toBeGreaterThan(200);
    expect(others).toBeGreaterThan(300);
  });

  test('one search answers again and again, each time anew, asked edge by edge or told of all', () => {
    for (const { graph, closed, live } of cases.slice(0, 200)) {
      const search = new ReachabilitySearch(graph);
      search.live(() => true);
      expect(search.live((edge) => closed[edge])).toEqual(live);
      expect(search.liveAmong(Uint8Array.from(closed, Number))).toEqual(live);
      expect(search.live((edge) => closed[edge])).toEqual(live);
    }
  });
});
