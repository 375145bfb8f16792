import type { Hearing } from './hearing.ts';
import type { Range } from './outlook.ts';

/** Ranges by variable; open where absent. */
export type Ranges = readonly (Range | undefined)[];

export interface May {
  /** 1 for each section that may be on a path from a source to a destination. */
  readonly edges: Uint8Array;
  readonly sounds: boolean;
}

/**
 * What may be live, and what surely is, when variables are known to ranges only. The graph is laid out flat once and
 * each question is one pass over it: this is where a large proof spends its time.
 */
export class Liveness {
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly conditions: readonly (readonly { readonly variable: number; readonly allowed: readonly number[] }[])[];
  private readonly leaving: readonly (readonly number[])[];
  private readonly arriving: readonly (readonly number[])[];
  private readonly sources: readonly number[];
  private readonly ends: readonly number[];
  private readonly nodeCount: number;
  private readonly stack: Int32Array;
  private readonly isSymbolic: (value: number) => boolean;

  /** `onwards` and `back`: ways between nodes that are there whatever any one control is. */
  constructor(
    hearing: Hearing,
    private readonly onwards: readonly (readonly number[])[],
    private readonly back: readonly (readonly number[])[],
  ) {
    const { graph, edges } = hearing;
    this.from = Int32Array.from(edges, (edge) => edge.from);
    this.to = Int32Array.from(edges, (edge) => edge.to);
    this.conditions = edges.map((edge) => edge.when.map(({ variable, values }) => ({ variable, allowed: values })));
    this.leaving = graph.leaving;
    this.arriving = graph.arriving;
    this.sources = graph.sources.map((source) => source.node);
    this.ends = graph.destinations.map((end) => end.node);
    this.nodeCount = graph.nodeCount;
    this.stack = new Int32Array(graph.nodeCount + this.sources.length + this.ends.length);
    this.isSymbolic = (value) => hearing.plant.values.isSymbolic(value);
  }

  may(ranges: Ranges): May {
    const { leaving, arriving, from, to, stack } = this;
    const asked = new Uint8Array(from.length);
    const forward = new Uint8Array(this.nodeCount);
    let height = 0;
    for (const node of this.sources) {
      forward[node] = 1;
      stack[height++] = node;
    }
    while (height > 0) {
      const out = leaving[stack[--height]];
      for (let k = 0; k < out.length; k += 1) {
        const edge = out[k];
        if (asked[edge] === 0) asked[edge] = this.mayClose(edge, ranges) ? 1 : 2;
        if (asked[edge] !== 1 || forward[to[edge]] === 1) continue;
        forward[to[edge]] = 1;
        stack[height++] = to[edge];
      }
    }
    const backward = new Uint8Array(this.nodeCount);
    const live = new Uint8Array(from.length);
    let sounds = false;
    for (const node of this.ends)
      if (forward[node] === 1) {
        sounds = true;
        backward[node] = 1;
        stack[height++] = node;
      }
    while (height > 0) {
      const into = arriving[stack[--height]];
      for (let k = 0; k < into.length; k += 1) {
        const edge = into[k];
        if (asked[edge] !== 1) continue;
        live[edge] = 1;
        if (backward[from[edge]] === 1) continue;
        backward[from[edge]] = 1;
        stack[height++] = from[edge];
      }
    }
    return { edges: live, sounds };
  }

  /** Whether sound surely reaches a destination. */
  surelySounds(ranges: Ranges): boolean {
    const forward = this.surely(ranges, this.sources, this.onwards, this.leaving, this.to);
    return this.ends.some((node) => forward[node] === 1);
  }

  /** Answers for a section whether it is surely on a path from a source to a destination. */
  mustLive(ranges: Ranges): (edge: number) => boolean {
    const forward = this.surely(ranges, this.sources, this.onwards, this.leaving, this.to);
    const backward = this.surely(ranges, this.ends, this.back, this.arriving, this.from);
    return (edge) => forward[this.from[edge]] === 1 && backward[this.to[edge]] === 1 && this.mustClose(edge, ranges);
  }

  private surely(ranges: Ranges, starts: readonly number[], ways: readonly (readonly number[])[], edgesAt: readonly (readonly number[])[], other: Int32Array): Uint8Array {
    const { stack } = this;
    const seen = new Uint8Array(this.nodeCount);
    let height = 0;
    for (const node of starts) {
      seen[node] = 1;
      stack[height++] = node;
    }
    while (height > 0) {
      const node = stack[--height];
      const shortcuts = ways[node];
      for (let k = 0; k < shortcuts.length; k += 1)
        if (seen[shortcuts[k]] === 0) {
          seen[shortcuts[k]] = 1;
          stack[height++] = shortcuts[k];
        }
      const edges = edgesAt[node];
      for (let k = 0; k < edges.length; k += 1) {
        const next = other[edges[k]];
        if (seen[next] === 1 || !this.mustClose(edges[k], ranges)) continue;
        seen[next] = 1;
        stack[height++] = next;
      }
    }
    return seen;
  }

  private mayClose(edge: number, ranges: Ranges): boolean {
    const conditions = this.conditions[edge];
    for (let i = 0; i < conditions.length; i += 1) {
      const range = ranges[conditions[i].variable];
      if (range && !this.someIn(range, conditions[i].allowed)) return false;
    }
    return true;
  }

  private someIn(range: readonly number[], allowed: readonly number[]): boolean {
    for (let k = 0; k < range.length; k += 1) if (allowed.includes(range[k]) || this.isSymbolic(range[k])) return true;
    return false;
  }

  private mustClose(edge: number, ranges: Ranges): boolean {
    const conditions = this.conditions[edge];
    for (let i = 0; i < conditions.length; i += 1) {
      const range = ranges[conditions[i].variable];
      if (!range || range.length === 0) return false;
      for (let k = 0; k < range.length; k += 1) if (!conditions[i].allowed.includes(range[k])) return false;
    }
    return true;
  }
}
