import { buildCsr, type Csr } from '../../trace/csr.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { SoundComparison } from './sound-comparison.ts';

/**
 * Ways through that are there whatever value a control has (a loop passes in or out): for each node those that it leads
 * to, and those that lead there.
 */
export interface GuaranteedPaths {
  readonly onwards: Csr;
  readonly back: Csr;
}

/**
 * Nodes joined by the sections that one control opens and closes, so that some way may lead from one to the other
 * whatever its value is.
 */
interface Candidate {
  readonly variable: VariableId;
  readonly start: number;
  readonly end: number;
}

/**
 * Finds them from the inside out: a pedal's own switch first, then the loop that holds it. Only controls that stay
 * inside their domain count. `conditioned`: the sections that each variable opens and closes; `variables`: those that
 * open or close any.
 */
export function guaranteedThrough(
  comparison: SoundComparison,
  conditioned: Csr,
  variables: readonly VariableId[],
): GuaranteedPaths {
  const { graph } = comparison;
  const search = new Search(comparison, conditioned);
  const found: Candidate[] = [];
  const pairs = new Set<number>();
  /** Whether a way is there now whatever the control is; remembered if it was not known. */
  const isThere = (candidate: Candidate): boolean => {
    const pair = candidate.start * graph.nodeCount + candidate.end;
    if (pairs.has(pair)) return true;
    for (const option of comparison.optionsOf(candidate.variable)) if (!search.reaches(candidate, option)) return false;
    pairs.add(pair);
    found.push(candidate);
    search.add(candidate.start, candidate.end);
    return true;
  };
  const open = candidates(comparison, conditioned, variables);
  for (let left = open.length, before = Infinity; left < before;) {
    before = left;
    left = 0;
    for (let i = 0; i < before; i += 1) if (!isThere(open[i])) open[left++] = open[i];
  }
  return {
    onwards: buildCsr(graph.nodeCount, (tell) => found.forEach(({ start, end }) => tell(start, end))),
    back: buildCsr(graph.nodeCount, (tell) => found.forEach(({ start, end }) => tell(end, start))),
  };
}

function candidates(
  comparison: SoundComparison,
  { start: first, items }: Csr,
  variables: readonly VariableId[],
): Candidate[] {
  const found: Candidate[] = [];
  for (const variable of variables) {
    let count = 0;
    for (let k = first[variable]; k < first[variable + 1]; k += 1)
      if (comparison.edges[items[k]].when.length === 1) count += 1;
    if (count < 2 || !comparison.staysInDomain(variable)) continue;
    const own = found.length;
    for (let i = first[variable]; i < first[variable + 1]; i += 1)
      for (let k = first[variable]; k < first[variable + 1]; k += 1) {
        const [one, other] = [comparison.edges[items[i]], comparison.edges[items[k]]];
        const [start, end] = [one.from, other.to];
        if (one.when.length !== 1 || other.when.length !== 1 || start === end || isAmong(found, own, start, end))
          continue;
        found.push({ variable, start, end });
      }
  }
  return found;
}

function isAmong(candidates: readonly Candidate[], from: number, start: number, end: number): boolean {
  for (let i = from; i < candidates.length; i += 1)
    if (candidates[i].start === start && candidates[i].end === end) return true;
  return false;
}

const nowhere = -1;

/**
 * Asks again and again what can be reached from a node, along ways that are always there and those that one control
 * opens.
 */
class Search {
  private readonly seen: Int32Array;
  private readonly stack: Int32Array;
  private round = 0;
  // The ways that are always there, as a chain from each node: its first link; of each link where it leads, and the
  // link after it.
  private readonly chainAt: Int32Array;
  private readonly leadsTo: number[] = [];
  private readonly linkAfter: number[] = [];
  /** Sections that the control opens at the value at hand. */
  private readonly open: number[] = [];

  constructor(
    private readonly comparison: SoundComparison,
    private readonly conditioned: Csr,
  ) {
    const { edges, graph } = comparison;
    this.seen = new Int32Array(graph.nodeCount);
    this.stack = new Int32Array(graph.nodeCount);
    this.chainAt = new Int32Array(graph.nodeCount).fill(nowhere);
    for (const { from, to, when } of edges) if (when.length === 0) this.add(from, to);
  }

  /** From now on a way leads from one node to another, whatever is asked. */
  add(from: number, to: number): void {
    this.linkAfter.push(this.chainAt[from]);
    this.chainAt[from] = this.leadsTo.push(to) - 1;
  }

  /** Whether a way leads from start to end while a control has a value. */
  reaches({ variable, start, end }: Candidate, value: ValueId): boolean {
    const { seen, stack, chainAt, leadsTo, linkAfter, open } = this;
    const { edges } = this.comparison;
    const count = this.openAt(variable, value);
    this.round += 1;
    const { round } = this;
    let height = 0;
    stack[height++] = start;
    seen[start] = round;
    while (height > 0 && seen[end] !== round) {
      const node = stack[--height];
      for (let link = chainAt[node]; link !== nowhere; link = linkAfter[link]) {
        if (seen[leadsTo[link]] === round) continue;
        seen[leadsTo[link]] = round;
        stack[height++] = leadsTo[link];
      }
      for (let i = 0; i < count; i += 1) {
        const { from, to } = edges[open[i]];
        if (from !== node || seen[to] === round) continue;
        seen[to] = round;
        stack[height++] = to;
      }
    }
    return seen[end] === round;
  }

  private openAt(variable: VariableId, value: ValueId): number {
    const { start, items } = this.conditioned;
    const { edges } = this.comparison;
    let count = 0;
    for (let k = start[variable]; k < start[variable + 1]; k += 1) {
      const { when } = edges[items[k]];
      if (when.length === 1 && when[0].values.includes(value)) this.open[count++] = items[k];
    }
    return count;
  }
}
