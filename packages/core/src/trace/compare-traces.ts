import type { ControlValue } from '../model/anatomy.ts';
import type { ControlRef, Sound } from '../model/rig.ts';
import type { Pass } from './passes.ts';
import { isUnknown } from './planned-state.ts';
import type { Trace, Tracer } from './trace.ts';

/** One rig in one sound; without a sound as it powers up. */
export interface Traced {
  readonly tracer: Tracer;
  readonly sound: Sound | null;
}

/** Where two runs part: the passes of each that the other has not, by their indexes. */
export interface TraceComparison {
  readonly onlyFirst: ReadonlySet<number>;
  readonly onlySecond: ReadonlySet<number>;
}

/**
 * Two runs side by side: passes that do the same between the same jacks, in the same order, are the same (the longest
 * common subsequence). Quadratic in the number of passes.
 */
export function compareTraces(first: Trace, second: Trace): TraceComparison {
  const [a, b] = [first.passes.map(signOf), second.passes.map(signOf)];
  /** length[i][j]: how many agree from a[i] and b[j] on. */
  const length = Array.from({ length: a.length + 1 }, () => new Int32Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i -= 1)
    for (let j = b.length - 1; j >= 0; j -= 1)
      length[i][j] = a[i] === b[j] ? length[i + 1][j + 1] + 1 : Math.max(length[i + 1][j], length[i][j + 1]);
  const onlyFirst = new Set<number>();
  const onlySecond = new Set<number>();
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length)
    if (i < a.length && j < b.length && a[i] === b[j]) [i, j] = [i + 1, j + 1];
    else if (j === b.length || (i < a.length && length[i + 1][j] >= length[i][j + 1])) onlyFirst.add(i++);
    else onlySecond.add(j++);
  return { onlyFirst, onlySecond };
}

const signOf = ({ device, entries, exits, activeSections, bypassed }: Pass): string =>
  JSON.stringify([device, entries, exits, activeSections, bypassed]);

/** A control that is heard in both and stands otherwise. Undefined: nobody entered what is stored there. */
export interface SettingDifference {
  readonly ref: ControlRef;
  readonly first: ControlValue | undefined;
  readonly second: ControlValue | undefined;
}

/** Settings heard in both runs that differ, in the order of the first rig's controls. */
export function settingDifferences(first: Traced, second: Traced): readonly SettingDifference[] {
  const there = heardValues(second);
  return [...heardValues(first)].flatMap(([ref, value]) =>
    there.has(ref) && there.get(ref) !== value ? [{ ref, first: value, second: there.get(ref) }] : [],
  );
}

/** Values of the controls that are heard, unknown contents by what they are contents of. */
function heardValues({ tracer, sound }: Traced): ReadonlyMap<ControlRef, ControlValue | undefined> {
  const state = tracer.stateOf(sound);
  const heard = new Set<number>();
  for (const edge of tracer.graph.edges)
    if (edge.active && tracer.passesThrough(sound, edge.index))
      for (const control of edge.parameters) heard.add(control);
  return new Map(
    [...heard]
      .sort((a, b) => a - b)
      .map((control) => {
        const value = state[control];
        return [tracer.wiring.controls.refs[control], isUnknown(value) ? undefined : value];
      }),
  );
}
