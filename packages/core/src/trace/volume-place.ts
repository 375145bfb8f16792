import { ownerOf, type Wiring } from '../model/wiring.ts';
import type { Pass } from './passes.ts';
import { passesAfter } from './reachable-passes.ts';
import type { Trace } from './trace.ts';

/**
 * What a volume pedal does where it stands in a sound. `drive`: before gain, so that it turns the distortion down;
 * `level`: behind it; `dose`: on a branch beside which the signal goes on, so that it turns down that branch alone.
 */
export interface VolumePlace {
  readonly kind: 'drive' | 'level' | 'dose';
  /** Devices whose gain it turns down. */
  readonly drives: readonly string[];
  /** Echoes and rooms behind it: they ring on when it is turned down. */
  readonly ringsOn: readonly string[];
  /** Echoes and rooms before it: they fade with it, and swell. */
  readonly fades: readonly string[];
}

const wet = new Set(['delay', 'reverb']);

/** Devices whose position a foot holds all the time and that turn the level. */
export const volumePedals = ({ devices }: Wiring): readonly string[] =>
  devices
    .filter((wired) =>
      wired.anatomy.controls.some(
        (control) =>
          control.weight === 'level' &&
          ownerOf(wired, control) === 'live' &&
          wired.anatomy.sections.some((section) => section.parameters?.includes(control.id)),
      ),
    )
    .map(({ device }) => device.id);

/** Where a volume pedal stands in the run; undefined where the signal does not pass it. */
export function volumePlace(trace: Trace, device: string): VolumePlace | undefined {
  const pass = trace.passes.find((each) => each.device === device && each.activeSections.length > 0);
  if (!pass || !trace.sounds) return undefined;
  const after = passesAfter(trace, pass);
  const before = passesBefore(trace, pass);
  const having = (passes: readonly Pass[], is: (effect: string) => boolean): readonly string[] => [
    ...new Set(passes.filter(({ effects }) => effects.some(is)).map((each) => each.device)),
  ];
  const drives = having(after, (effect) => effect === 'drive');
  return {
    kind: isBeside(trace, pass) ? 'dose' : drives.length > 0 ? 'drive' : 'level',
    drives,
    ringsOn: having(after, (effect) => wet.has(effect)),
    fades: having(before, (effect) => wet.has(effect)),
  };
}

function passesBefore(trace: Trace, pass: Pass): readonly Pass[] {
  return trace.passes.filter((other) => passesAfter(trace, other).includes(pass));
}

/** Whether the signal gets from a start to an end without a pass. */
function isBeside({ passes }: Trace, without: Pass): boolean {
  const entered = new Set(passes.flatMap((pass) => pass.next));
  const queue = passes.filter((pass) => !entered.has(pass.index) && pass !== without).map((pass) => pass.index);
  const seen = new Set(queue);
  for (const at of queue) {
    if (passes[at].next.length === 0) return true;
    for (const next of passes[at].next)
      if (next !== without.index && !seen.has(next)) {
        seen.add(next);
        queue.push(next);
      }
  }
  return false;
}
