import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { JudgedShow } from '../api/judged-show.ts';
import { OpenRig, type SelectionStorage } from '../api/open-rig.ts';
import { RigProvider } from '../api/rig.tsx';
import { useServices } from '../api/services.tsx';
import { ShowStore } from '../api/store.ts';
import { Shell } from './Shell.tsx';

/** Reads the rig from the server, then hands it to the stations. */
export function RigPage() {
  const { id = '' } = useParams();
  const { transport } = useServices();
  const opened = useQuery({
    queryKey: ['show', id],
    queryFn: () => ShowStore.find(id, transport()),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
    structuralSharing: false,
  });
  if (opened.error)
    return (
      <main className="home">
        <div className="refusal" role="alert">
          {opened.error.message}
        </div>
        <Link to="/">All rigs</Link>
      </main>
    );
  return opened.data ? <Rig key={id} id={id} store={opened.data} /> : <p className="home soft">Opening …</p>;
}

function Rig({ id, store }: { readonly id: string; readonly store: ShowStore }) {
  const { judge } = useServices();
  const [judging] = useState(() => new JudgedShow(store, (request) => judge().judge(id, request)));
  const [open] = useState(() => new OpenRig(id, store, judging, remembered(id)));
  useEffect(() => {
    const stop = judging.start();
    return () => {
      stop();
      void judge().forget(id);
    };
  }, [judging, judge, id]);
  useEffect(() => lookAgainOnReturn(store), [store]);
  useEffect(() => store.follow(), [store]);
  useEffect(() => whenIdle(() => store.warmUp()), [store]);
  return (
    <RigProvider value={open}>
      <Shell />
    </RigProvider>
  );
}

/** The sound and the variant that were selected last; a browser that keeps nothing begins with the first. */
function remembered(rig: string): SelectionStorage {
  const key = `sound:${rig}`;
  const variantKey = `variant:${rig}`;
  const trying = <T,>(work: () => T): T | null => {
    try {
      return work();
    } catch {
      return null;
    }
  };
  return {
    load: () => trying(() => localStorage.getItem(key)),
    save: (sound) => void trying(() => localStorage.setItem(key, sound)),
    loadVariant: () => trying(() => localStorage.getItem(variantKey)),
    saveVariant: (variant) =>
      void trying(() =>
        variant === null ? localStorage.removeItem(variantKey) : localStorage.setItem(variantKey, variant),
      ),
  };
}

/** Coming back to this window, one sees what was changed elsewhere. */
function lookAgainOnReturn(store: ShowStore): () => void {
  const look = () => void store.refresh();
  window.addEventListener('focus', look);
  return () => window.removeEventListener('focus', look);
}

/** Not every browser says when it is idle: a moment later will do. */
function whenIdle(act: () => void): () => void {
  if (!('requestIdleCallback' in window)) {
    const waiting = setTimeout(act, 500);
    return () => clearTimeout(waiting);
  }
  const waiting = requestIdleCallback(act, { timeout: 2000 });
  return () => cancelIdleCallback(waiting);
}
