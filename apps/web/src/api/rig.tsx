import type { Command, Finding, Sound, Step, Tracer, Wiring } from '@yunta/core';
import { createContext, useContext, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { judge } from './judge.ts';
import type { Judged, ToldFinding } from '../workers/judge-types.ts';
import type { EditState, ShowStore } from './store.ts';

/** Everything a station needs of the open rig. */
export interface OpenShow extends EditState {
  readonly id: string;
  readonly store: ShowStore;
  readonly run: (command: Command | null) => boolean;
  readonly wiring: Wiring;
  readonly tracer: Tracer;
  /** The sound in hand, followed by every station. */
  readonly sound: Sound | null;
  readonly takeSound: (id: string) => void;
  /** The device in hand, shown in the inspector. */
  readonly device: string | null;
  readonly takeDevice: (id: string | null) => void;
  readonly judged: Judged | null;
  /** Findings that went away with a recent edit. */
  readonly gone: readonly ToldFinding[];
  /** Takes what a finding is about in hand. */
  readonly take: (finding: Finding) => void;
  readonly fix: (finding: Finding) => void;
}

const context = createContext<OpenShow | null>(null);
export const ShowProvider = context.Provider;

export function useShow(): OpenShow {
  const open = useContext(context);
  if (!open) throw new Error('no rig is open here');
  return open;
}

export const useEdits = (store: ShowStore): EditState => useSyncExternalStore(store.subscribe, store.get);

const keyOf = (finding: Finding): string => `${finding.ruleId}|${finding.messageId}|${JSON.stringify(finding.at)}`;

/** Judges in the worker after every edit: the steps go over where they can, the whole show otherwise. */
export function useJudged(store: ShowStore, state: EditState): { judged: Judged | null; gone: readonly ToldFinding[] } {
  const [judged, setJudged] = useState<Judged | null>(null);
  const [gone, setGone] = useState<readonly ToldFinding[]>([]);
  const before = useRef<{ readonly judged: Judged | null; readonly sent: EditState['show'] | null }>({ judged: null, sent: null });
  const { show } = state;
  useEffect(() => {
    let wanted = true;
    void (async () => {
      const steps: readonly Step[] | null = before.current.sent ? store.stepsSince(before.current.sent) : null;
      before.current = { ...before.current, sent: show };
      if (!steps || !(await judge().edit(steps))) await judge().load(show);
      const next = await judge().judge();
      if (!next || !wanted) return;
      const now = new Set(next.findings.map(keyOf));
      const left = (before.current.judged?.findings ?? []).filter((finding) => !now.has(keyOf(finding)));
      setGone((old) => [...left, ...old.filter((finding) => !now.has(keyOf(finding)))].slice(0, 4));
      before.current = { ...before.current, judged: next };
      setJudged(next);
    })();
    return () => {
      wanted = false;
    };
  }, [store, show]);
  return { judged, gone };
}
