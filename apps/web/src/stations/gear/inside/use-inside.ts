import { type Anatomy, anatomyOf, describeProblem, type Device, setAnatomy, stillNeeded } from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';

/** What is inside one device, and its edits. */
export interface Inside {
  readonly device: Device;
  readonly anatomy: Anatomy;
  /** Makes an edit of one list; why it cannot be made, or null. */
  readonly attempt: (next: Anatomy, what: string) => string | null;
  /** The same; a refusal is told at the head of the page. */
  readonly edit: (next: Anatomy, what: string) => void;
}

export function useInside(id: string): Inside {
  const { show, store, attempt: attemptCommand } = useShow();
  const device = show.rig.devices[id];
  const attempt = (next: Anatomy, what: string): string | null => {
    const needed = stillNeeded(show, id, next);
    return needed ? describeProblem(needed) : attemptCommand(setAnatomy(show, id, next, what));
  };
  return {
    device,
    anatomy: anatomyOf(device.type),
    attempt,
    edit: (next, what) => {
      const refused = attempt(next, what);
      if (refused !== null) store.refuse(refused);
    },
  };
}
