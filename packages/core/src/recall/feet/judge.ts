import type { SoundComparison } from '../audible/sound-comparison.ts';
import type { SoundTarget } from '../audible/sound-target.ts';
import type { Row } from '../explore/row.ts';
import type { Belief, Machine } from './machine.ts';
import type { Machines } from './machines.ts';

/** `unknown`: contents that nobody entered decide, or more combinations than are tried. */
export type Rightness = 'right' | 'wrong' | 'unknown';

/** Combinations of what machines may be that one judgement tries. */
const mostCombinations = 2_000;
const noPins: ReadonlyMap<number, number> = new Map();

/** Thrown where a machine may be several things and what it is matters. */
class NeedRow {
  constructor(readonly machine: Machine) {}
}

/**
 * Whether a sound is right whatever each machine is: wrong in one combination is wrong. `obey`: whether its cues are
 * taken as done.
 */
export function judgeBeliefs(
  comparison: SoundComparison,
  machines: Machines,
  beliefOf: (machine: Machine) => Belief,
  target: SoundTarget,
  obey = false,
): Rightness {
  const chosen = new Map<Machine, Row>();
  let left = mostCombinations;
  const read = (variable: number): number => {
    const machine = machines.machineOf(variable)!;
    const belief = beliefOf(machine);
    const row = belief.rows.length === 1 ? belief.rows[0] : chosen.get(machine);
    if (row) return machine.valueIn(row, variable);
    const values = machine.valuesOf(belief, variable);
    if (values.length > 1) throw new NeedRow(machine);
    return values[0];
  };
  const judge = (): Rightness => {
    if ((left -= 1) < 0) return 'unknown';
    try {
      return comparison.judge(read, target, { obey, pins: noPins }).is;
    } catch (reason) {
      if (!(reason instanceof NeedRow)) throw reason;
      return overRows(reason.machine);
    }
  };
  const overRows = (machine: Machine): Rightness => {
    let all: Rightness = 'right';
    for (const row of beliefOf(machine).rows) {
      chosen.set(machine, row);
      const is = judge();
      if (is === 'wrong') return is;
      if (is === 'unknown') all = is;
    }
    chosen.delete(machine);
    return all;
  };
  return judge();
}
