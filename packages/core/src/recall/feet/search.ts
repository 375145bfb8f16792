import type { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import type { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import { TooManyStates } from '../explore/row.ts';
import type { VariableId } from '../state/ids.ts';
import { judgeBeliefs } from './judge.ts';
import type { Belief, Machine } from './machine.ts';
import type { Machines } from './machines.ts';
import type { Move } from './moves.ts';

/** Where a machine can be brought, by how many moves. */
interface Option {
  /** What it is when the sound is judged. */
  readonly belief: Belief;
  readonly path: readonly Move[];
}

export interface Search {
  readonly machines: Machines;
  readonly comparison: SoundComparison;
  readonly threeValued: ThreeValuedJudge;
  readonly target: SoundTarget;
  readonly beliefOf: (machine: Machine) => Belief;
  readonly movesOn: (machine: Machine, belief: Belief) => readonly Move[];
  /** What still happens to a machine after the moves, before the sound is judged. */
  readonly then: (machine: Machine, belief: Belief) => Belief;
}

export type Found =
  | { readonly is: 'found'; readonly moves: readonly Move[] }
  /** Nothing leads there; `stuck`: wanted variables that nothing brings to where they are wanted. */
  | { readonly is: 'none'; readonly stuck: readonly VariableId[] }
  /** Unknown contents decide, or the search was given up. */
  | { readonly is: 'unknown' };

const mostBeliefs = 16_000;
const mostNodes = 40_000;
const noPins: ReadonlyMap<number, number> = new Map();

/**
 * The fewest moves that bring a sound up; of several, the first in document order. Machines do not move one another, so
 * each is brought somewhere by its own shortest path, and what they are together is judged: by total length, shortest
 * first, leaving out what surely is wrong whatever the others are.
 */
export function fewestMoves(search: Search): Found {
  return new Searcher(search).run();
}

class Searcher {
  private readonly options: (readonly Option[])[];
  private readonly chosen: Belief[];
  private nodes = 0;
  private sawUnknown = false;

  constructor(private readonly search: Search) {
    const { machines } = search;
    this.options = machines.list.map((machine) => this.reachable(machine));
    this.chosen = this.options.map(([option]) => option.belief);
  }

  run(): Found {
    const { search } = this;
    if (this.judge() === 'right') return { is: 'found', moves: [] };
    const movable = search.machines.list.filter(({ index }) => this.options[index].length > 1 || this.isOff(index));
    const left = movable.map((machine) => ({ machine, options: this.notSurelyWrong(machine) }));
    const blocked = left.filter(({ options }) => options.length === 0);
    if (blocked.length > 0) return { is: 'none', stuck: this.stuck(blocked.map(({ machine }) => machine)) };
    // Mostly each machine has one nearest place that is not wrong, and together they are right.
    const nearest = this.nearest(left);
    if (nearest) return { is: 'found', moves: nearest };
    // Those with the least choice first.
    left.sort((a, b) => a.options.length - b.options.length || a.machine.index - b.machine.index);
    const least = left.map(({ options }) => options[0].path.length);
    const rest = suffixSums(least);
    try {
      const longest = this.anySolution(left);
      if (longest === null)
        return this.sawUnknown
          ? { is: 'unknown' }
          : { is: 'none', stuck: this.stuck(left.map(({ machine }) => machine)) };
      for (let length = rest[0]; length <= longest; length += 1) {
        const found = this.ofLength(left, rest, length);
        if (found) return { is: 'found', moves: found };
      }
    } catch (reason) {
      if (!(reason instanceof GivenUp)) throw reason;
    }
    return { is: 'unknown' };
  }

  /** Every machine brought to its nearest place, where each has only one and the sound is right then. */
  private nearest(left: readonly Left[]): readonly Move[] | null {
    const isOnly = left.every(({ options: [first, second] }) => !second || second.path.length > first.path.length);
    if (!isOnly) return null;
    const before = left.map(({ machine }) => this.chosen[machine.index]);
    for (const { machine, options } of left) this.chosen[machine.index] = options[0].belief;
    if (this.judge() === 'right') return merged(left.map(({ options }) => options[0].path));
    left.forEach(({ machine }, i) => (this.chosen[machine.index] = before[i]));
    return null;
  }

  /** Where a machine can be brought; of what cannot be told apart in this sound, the nearest. */
  private reachable(machine: Machine): readonly Option[] {
    const { beliefOf, movesOn, then } = this.search;
    const start = beliefOf(machine);
    const seen = new Map<Belief, readonly Move[]>([[start, []]]);
    for (const [belief, path] of seen)
      for (const move of movesOn(machine, belief)) {
        const next = machine.after(belief, move.compiled);
        if (seen.has(next)) continue;
        if (seen.size >= mostBeliefs) throw new TooManyStates();
        seen.set(next, [...path, move]);
      }
    const options: Option[] = [];
    const classes = new Set<string>();
    for (const [belief, path] of seen) {
      const judged = then(machine, belief);
      const kind = this.kindOf(machine, judged);
      if (classes.has(kind)) continue;
      classes.add(kind);
      options.push({ belief: judged, path });
    }
    return options;
  }

  /** What a sound can tell of a belief. */
  private kindOf(machine: Machine, { rows }: Belief): string {
    const { threeValued, target } = this.search;
    const kinds = rows.map((row) =>
      machine.variables
        .map((variable) => threeValued.classOf(target, variable, machine.valueIn(row, variable)))
        .join('|'),
    );
    return rows.length === 1 ? kinds[0] : [...new Set(kinds)].sort().join('/');
  }

  private judge() {
    const { comparison, machines, target } = this.search;
    const is = judgeBeliefs(comparison, machines, (machine) => this.chosen[machine.index], target);
    if (is === 'unknown') this.sawUnknown = true;
    return is;
  }

  /** Whether some wanted variable of a machine is not as it is wanted. */
  private isOff(index: number): boolean {
    const { machines, target } = this.search;
    const machine = machines.list[index];
    return machine.variables.some(
      (variable) =>
        target.has(variable) &&
        this.chosen[index].rows.some((row) => machine.valueIn(row, variable) !== target.wants(variable)),
    );
  }

  private notSurelyWrong(machine: Machine): readonly Option[] {
    const { threeValued, machines, target } = this.search;
    const ground = threeValued.ground((variable) => {
      const other = machines.machineOf(variable);
      if (!other) return null;
      const values = new Set<number>();
      for (const { belief } of this.options[other.index])
        for (const value of other.valuesOf(belief, variable)) values.add(value);
      return values.size > 64 ? null : [...values];
    });
    return this.options[machine.index].filter(({ belief }) =>
      belief.rows.every((row) => {
        const at = new Map(machine.variables.map((variable) => [variable, machine.valueIn(row, variable)]));
        return threeValued.status(target, at, ground, noPins) !== 'wrong';
      }),
    );
  }

  /** Whether the machines chosen so far are surely wrong, whatever the others are. */
  private isHopeless(left: readonly Left[], depth: number): boolean {
    const { threeValued, machines, target } = this.search;
    const open = new Map(left.slice(depth + 1).map((item) => [item.machine, item.options]));
    const ground = threeValued.ground((variable) => {
      const machine = machines.machineOf(variable);
      if (!machine) return null;
      const values = new Set<number>();
      for (const belief of open.get(machine)?.map((option) => option.belief) ?? [this.chosen[machine.index]])
        for (const value of machine.valuesOf(belief, variable)) values.add(value);
      return values.size > 64 ? null : [...values];
    });
    const at = new Map<number, number>();
    for (const { machine } of left.slice(0, depth + 1)) {
      const { rows } = this.chosen[machine.index];
      if (rows.length === 1)
        for (const variable of machine.variables) at.set(variable, machine.valueIn(rows[0], variable));
    }
    return threeValued.status(target, at, ground, noPins) === 'wrong';
  }

  private count(): void {
    if ((this.nodes += 1) > mostNodes) throw new GivenUp();
  }

  /** The length of some solution, what is wanted tried first; null where there is none. */
  private anySolution(left: readonly Left[]): number | null {
    const { target } = this.search;
    const asWanted = ({ machine }: Left, { belief }: Option): number =>
      machine.variables.reduce(
        (off, variable) =>
          off +
          (target.has(variable) && belief.rows.some((row) => machine.valueIn(row, variable) !== target.wants(variable))
            ? 1
            : 0),
        0,
      );
    const ordered = left.map((item) => ({
      machine: item.machine,
      options: [...item.options].sort((a, b) => asWanted(item, a) - asWanted(item, b)),
    }));
    const dig = (depth: number): number | null => {
      this.count();
      if (depth === ordered.length) return this.judge() === 'right' ? 0 : null;
      const { machine, options } = ordered[depth];
      for (const { belief, path } of options) {
        this.chosen[machine.index] = belief;
        if (options.length > 1 && this.isHopeless(ordered, depth)) continue;
        const found = dig(depth + 1);
        if (found !== null) return found + path.length;
      }
      this.chosen[machine.index] = this.options[machine.index][0].belief;
      return null;
    };
    return dig(0);
  }

  /** Of the solutions of a length, the first in document order. */
  private ofLength(left: readonly Left[], rest: readonly number[], length: number): readonly Move[] | null {
    let best: readonly Move[] | null = null;
    const paths: (readonly Move[])[] = [];
    const dig = (depth: number, budget: number): void => {
      this.count();
      if (depth === left.length) {
        if (budget > 0 || this.judge() !== 'right') return;
        const moves = merged(paths);
        if (!best || isEarlier(moves, best)) best = moves;
        return;
      }
      const { machine, options } = left[depth];
      for (const { belief, path } of options) {
        if (path.length + rest[depth + 1] > budget) continue;
        this.chosen[machine.index] = belief;
        if (options.length > 1 && this.isHopeless(left, depth)) continue;
        paths[depth] = path;
        dig(depth + 1, budget - path.length);
      }
    };
    dig(0, length);
    return best;
  }

  /** Wanted variables that nothing brings to where they are wanted, of some machines, else of any. */
  private stuck(machines: readonly Machine[]): readonly VariableId[] {
    const { target } = this.search;
    const isStuck = (machine: Machine, variable: VariableId): boolean =>
      target.has(variable) &&
      !this.options[machine.index].some(({ belief }) =>
        belief.rows.every((row) => machine.valueIn(row, variable) === target.wants(variable)),
      );
    const found = machines.flatMap((machine) => machine.variables.filter((variable) => isStuck(machine, variable)));
    return found.filter((variable) => target.named.has(variable)).length > 0
      ? found.filter((variable) => target.named.has(variable))
      : found;
  }
}

interface Left {
  readonly machine: Machine;
  readonly options: readonly Option[];
}

class GivenUp {}

/** At each place what is left from there on; one more than there are. */
function suffixSums(numbers: readonly number[]): readonly number[] {
  const sums = new Array<number>(numbers.length + 1).fill(0);
  for (let i = numbers.length - 1; i >= 0; i -= 1) sums[i] = sums[i + 1] + numbers[i];
  return sums;
}

/** Several paths that do not move one another as one: always the earliest move in document order that is next. */
function merged(paths: readonly (readonly Move[])[]): readonly Move[] {
  const next = paths.map(() => 0);
  const moves: Move[] = [];
  for (;;) {
    let at = -1;
    for (const [i, path] of paths.entries())
      if (next[i] < path.length && (at < 0 || path[next[i]].order < paths[at][next[at]].order)) at = i;
    if (at < 0) return moves;
    moves.push(paths[at][next[at]]);
    next[at] += 1;
  }
}

function isEarlier(a: readonly Move[], b: readonly Move[]): boolean {
  for (let i = 0; i < a.length && i < b.length; i += 1) if (a[i].order !== b[i].order) return a[i].order < b[i].order;
  return a.length < b.length;
}
