import type { Level } from '@yunta/core';
import { useEffect, useState } from 'react';
import { judge } from '../../api/judge.ts';
import { useFindings } from '../../api/rig.tsx';
import type { Proved } from '../../workers/judge-types.ts';

/** The four levels, one after the other, anew after every judgement; each is shown as soon as it is there. */
export function useProof(): Partial<Record<Level, Proved>> {
  const { judged } = useFindings();
  const [proved, setProved] = useState<Partial<Record<Level, Proved>>>({});
  useEffect(() => {
    if (!judged) return;
    let wanted = true;
    void (async () => {
      for (const level of [2, 1, 3, 4] as const) {
        const one = await judge().prove(level);
        if (!wanted || !one) return;
        setProved((old) => ({ ...old, [level]: one }));
      }
    })();
    return () => {
      wanted = false;
    };
  }, [judged]);
  return proved;
}
