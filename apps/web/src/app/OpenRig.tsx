import { useQuery } from '@tanstack/react-query';
import { inOrder } from '@yunta/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Resolver } from '../api/resolved.ts';
import { type OpenShow, ShowProvider, useEdits, useJudged } from '../api/rig.tsx';
import { readShow } from '../api/shows.ts';
import { ShowStore } from '../api/store.ts';
import { Shell } from './Shell.tsx';

/** Reads the rig from the server, then hands it to the stations. */
export function OpenRig() {
  const { id = '' } = useParams();
  const opened = useQuery({ queryKey: ['show', id], queryFn: () => readShow(id).then((at) => ShowStore.open(at)), staleTime: Infinity, gcTime: 0, refetchOnWindowFocus: false, refetchOnReconnect: false, structuralSharing: false });
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
  const state = useEdits(store);
  const [resolver] = useState(() => new Resolver());
  const { wiring, tracer } = resolver.resolve(state.show.rig);
  const { judged, gone } = useJudged(store, state);
  const [wanted, takeSound] = useState<string | null>(() => localStorage.getItem(`sound:${id}`));
  const [device, takeDevice] = useState<string | null>(null);
  const { sounds, devices } = state.show.rig;
  const sound = (wanted !== null && Object.hasOwn(sounds, wanted) ? sounds[wanted] : inOrder(sounds)[0]) ?? null;
  useEffect(() => {
    if (sound) localStorage.setItem(`sound:${id}`, sound.id);
  }, [id, sound]);
  const open = useMemo(
    (): OpenShow => ({
      ...state,
      id,
      store,
      run: (command) => store.run(command),
      wiring,
      tracer,
      sound,
      takeSound,
      device: device !== null && Object.hasOwn(devices, device) ? device : null,
      takeDevice,
      judged,
      gone,
      take: ({ at }) => {
        if (at.sound) takeSound(at.sound);
        if (at.device) takeDevice(at.device);
      },
      fix: (finding) => finding.fix && store.run({ command: { name: 'fix', facts: { label: finding.fix.label } }, steps: finding.fix.steps }),
    }),
    [state, id, store, wiring, tracer, sound, device, devices, judged, gone],
  );
  return (
    <ShowProvider value={open}>
      <Shell />
    </ShowProvider>
  );
}
