import { createContext, useContext, useSyncExternalStore } from 'react';
import type { JudgedState } from './judged-show.ts';
import type { OpenRig, OpenShow } from './open-rig.ts';
import type { EditState } from './store.ts';

const context = createContext<OpenRig | null>(null);
export const RigProvider = context.Provider;

/** The open rig, not followed: for those who only act on it. */
export function useRig(): OpenRig {
  const open = useContext(context);
  if (!open) throw new Error('no rig is open here');
  return open;
}

/** The open rig as it is now. */
export function useShow(): OpenShow {
  const open = useRig();
  return useSyncExternalStore(open.subscribe, open.get);
}

/** What is saved, what can be undone, what was refused. */
export function useSaved(): EditState {
  const { store } = useRig();
  return useSyncExternalStore(store.subscribe, store.get);
}

/** What is found, and what went away lately. */
export function useFindings(): JudgedState {
  const { judging } = useRig();
  return useSyncExternalStore(judging.subscribe, judging.get);
}
