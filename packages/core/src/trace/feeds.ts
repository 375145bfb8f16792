import type { TraceGraph } from './graph.ts';
import type { Live } from './live.ts';

/**
 * What feeds what among the live sections that do something, from the sources to the destinations, wires and bypasses
 * contracted: the same text for two states in which the line runs alike.
 */
export function feedsOf(graph: TraceGraph, live: Live): string {
  const { edges, active, from, to, leaving, sources, destinations } = graph;
  const ends = new Map<number, string[]>();
  const note = (node: number, name: string) => ends.set(node, [...(ends.get(node) ?? []), name]);
  for (const end of destinations) note(end.node, `>${end.device}`);
  const acts = (edge: number) => active[edge] === 1 && live.edges[edge] === 1;
  for (let edge = 0; edge < edges.length; edge += 1) if (acts(edge)) note(from[edge], `${edge}`);
  const feeds = new Set<string>();
  const follow = (name: string, start: number) => {
    const seen = new Set([start]);
    const stack = [start];
    while (stack.length > 0) {
      const node = stack.pop()!;
      for (const end of ends.get(node) ?? []) feeds.add(`${name}:${end}`);
      for (let k = leaving.start[node]; k < leaving.start[node + 1]; k += 1) {
        const edge = leaving.items[k];
        if (active[edge] === 1 || live.edges[edge] !== 1 || seen.has(to[edge])) continue;
        seen.add(to[edge]);
        stack.push(to[edge]);
      }
    }
  };
  for (const source of sources) follow(`<${source.device}`, source.node);
  for (let edge = 0; edge < edges.length; edge += 1) if (acts(edge)) follow(`${edge}`, to[edge]);
  return [...feeds].sort().join(';');
}
