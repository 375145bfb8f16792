import type { Csr } from '../../trace/csr.ts';
import { type Live, ReachabilitySearch } from '../../trace/live.ts';
import type { GuaranteedPaths } from './guaranteed-paths.ts';
import type { Ranges, RangeTable } from './range-table.ts';
import type { SoundComparison } from './sound-comparison.ts';

/**
 * What may be live, and what surely is, when variables are known to ranges only. The graph is target out flat once and
 * each question is one pass over it: this is where a large proof spends its time.
 */
export class Reachability {
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly leaving: Csr;
  private readonly arriving: Csr;
  private readonly onwards: Csr;
  private readonly back: Csr;
  private readonly sources: readonly number[];
  private readonly ends: readonly number[];
  private readonly search: ReachabilitySearch;
  // Used again for each question.
  private readonly stack: Int32Array;
  private readonly forward: Uint8Array;
  private readonly backward: Uint8Array;

  constructor(
    comparison: SoundComparison,
    private readonly table: RangeTable,
    always: GuaranteedPaths,
  ) {
    const { graph } = comparison;
    this.from = graph.from;
    this.to = graph.to;
    this.leaving = graph.leaving;
    this.arriving = graph.arriving;
    this.onwards = always.onwards;
    this.back = always.back;
    this.sources = graph.sources.map((source) => source.node);
    this.ends = graph.destinations.map((end) => end.node);
    this.search = new ReachabilitySearch(graph);
    this.forward = new Uint8Array(graph.nodeCount);
    this.backward = new Uint8Array(graph.nodeCount);
    this.stack = new Int32Array(graph.nodeCount + this.sources.length + this.ends.length);
  }

  /** Sections that may be on a path from a source to a destination. */
  may(ranges: Ranges): Live {
    const { table } = this;
    return this.search.live((edge) => table.mayClose(edge, ranges));
  }

  /** Whether sound may come to a node. Looks back from there, and ends soon where little leads to it. */
  mayArrive(end: number, ranges: Ranges): boolean {
    const { arriving, from, stack, sources } = this;
    const seen = new Set([end]);
    let height = 0;
    stack[height++] = end;
    while (height > 0) {
      const node = stack[--height];
      if (sources.includes(node)) return true;
      for (let k = arriving.start[node]; k < arriving.start[node + 1]; k += 1) {
        const edge = arriving.items[k];
        if (seen.has(from[edge]) || !this.table.mayClose(edge, ranges)) continue;
        seen.add(from[edge]);
        stack[height++] = from[edge];
      }
    }
    return false;
  }

  /** Whether sound surely reaches a destination. */
  surelySounds(ranges: Ranges): boolean {
    const forward = this.surely(ranges, this.sources, this.onwards, this.leaving, this.to, this.forward);
    return this.ends.some((node) => forward[node] === 1);
  }

  /** 1 for each section that is surely on a path from a source to a destination. */
  mustLive(ranges: Ranges): Uint8Array {
    const { from, to } = this;
    const forward = this.surely(ranges, this.sources, this.onwards, this.leaving, to, this.forward);
    const backward = this.surely(ranges, this.ends, this.back, this.arriving, from, this.backward);
    const live = new Uint8Array(from.length);
    for (let edge = 0; edge < live.length; edge += 1)
      if (forward[from[edge]] === 1 && backward[to[edge]] === 1 && this.table.mustClose(edge, ranges)) live[edge] = 1;
    return live;
  }

  private surely(
    ranges: Ranges,
    starts: readonly number[],
    edgesFrom: Csr,
    edgesAt: Csr,
    other: Int32Array,
    seen: Uint8Array,
  ): Uint8Array {
    const { stack } = this;
    seen.fill(0);
    let height = 0;
    for (let i = 0; i < starts.length; i += 1) {
      seen[starts[i]] = 1;
      stack[height++] = starts[i];
    }
    while (height > 0) {
      const node = stack[--height];
      for (let k = edgesFrom.start[node]; k < edgesFrom.start[node + 1]; k += 1) {
        const next = edgesFrom.items[k];
        if (seen[next] === 1) continue;
        seen[next] = 1;
        stack[height++] = next;
      }
      for (let k = edgesAt.start[node]; k < edgesAt.start[node + 1]; k += 1) {
        const edge = edgesAt.items[k];
        const next = other[edge];
        if (seen[next] === 1 || !this.table.mustClose(edge, ranges)) continue;
        seen[next] = 1;
        stack[height++] = next;
      }
    }
    return seen;
  }
}
