import {
  applySteps,
  describeCommand,
  invertSteps,
  type Sound,
  type Trace,
  type Tracer,
  type Wiring,
} from '@yunta/core';
import { useMemo } from 'react';
import { useSaved, useShow } from '../../api/rig.tsx';
import { Resolver } from '../../api/resolved.ts';

/** Another run: of another sound, or of the same before the last edit. */
export interface Compared {
  readonly name: string;
  readonly wiring: Wiring;
  readonly tracer: Tracer;
  readonly sound: Sound | null;
  readonly trace: Trace;
}

/** Stands for the rig as it was before the last edit, where a sound's id is chosen otherwise. */
export const beforeEdit = ' before';

/** What the last edit is called, and the rig before it; null where none was made since the rig was opened. */
export function useBeforeEdit(): { readonly name: string; readonly rig: () => Wiring['rig'] | null } | null {
  const { show } = useShow();
  const { undo } = useSaved();
  const last = undo.at(-1);
  return useMemo(() => {
    if (!last) return null;
    const rig = () => {
      const before = applySteps(show, invertSteps(last.steps));
      return before.ok ? before.value.rig : null;
    };
    return { name: describeCommand(last.command), rig };
  }, [last, show]);
}

/** The run that is compared with; null where none is, or where it is no longer there. */
export function useCompared(chosen: string): Compared | null {
  const { show, wiring, tracer, sound } = useShow();
  const before = useBeforeEdit();
  return useMemo(() => {
    if (chosen === beforeEdit) {
      const rig = before?.rig();
      if (!before || !rig) return null;
      const resolved = new Resolver().resolve(rig);
      const same = sound === null ? null : (rig.sounds[sound.id] ?? null);
      return { name: `Before: ${before.name}`, ...resolved, sound: same, trace: resolved.tracer.trace(same) };
    }
    const other = Object.hasOwn(show.rig.sounds, chosen) ? show.rig.sounds[chosen] : undefined;
    return other && other.id !== sound?.id
      ? { name: other.name, wiring, tracer, sound: other, trace: tracer.trace(other) }
      : null;
  }, [chosen, before, show.rig.sounds, sound, wiring, tracer]);
}
