import {
  compileSupply,
  type CompiledSupply,
  type PowerPlan,
  type PowerProgress,
  type Problem,
  supplyProblemOf,
  type SupplyProgress,
} from '@yunta/core';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';

/** What the solver found for the rig as it was when it was asked. */
export type Solved =
  | { readonly is: 'working'; readonly step: PowerProgress['step']; readonly found: SupplyProgress | null }
  | { readonly is: 'solved'; readonly plan: PowerPlan; readonly wasStopped: boolean }
  | { readonly is: 'refused'; readonly problems: readonly Problem[] };

/** Asks the worker when told to; what it says is dropped where the rig's power has changed since. */
export function useSolved(): {
  readonly solved: Solved | null;
  readonly solve: () => void;
  readonly stop: () => void;
  readonly close: () => void;
} {
  const { show } = useShow();
  const { plan: planner } = useServices();
  const [held, setHeld] = useState<{ readonly key: string; readonly solved: Solved } | null>(null);
  const key = JSON.stringify(supplyProblemOf(show.rig));
  const newest = useRef(key);
  newest.current = key;
  useEffect(() => () => void planner().stop('power'), [key, planner]);
  const solve = () => {
    const { rig } = show;
    const take = (solved: Solved) => newest.current === key && setHeld({ key, solved });
    take({ is: 'working', step: 'outputs', found: null });
    const hear = proxy(({ step, found }: PowerProgress) => void take({ is: 'working', step, found }));
    void planner()
      .power('power', rig, hear)
      .then((answer) => {
        if (answer.is === 'planned') take({ is: 'solved', plan: answer.plan, wasStopped: false });
        else if (answer.is === 'refused') take(answer);
        else {
          const problem = compiledOf(rig);
          if (problem)
            take({
              is: 'solved',
              plan: { problem, found: answer.best.found, conflict: null, cures: [] },
              wasStopped: true,
            });
        }
      });
  };
  return {
    solved: held?.key === key ? held.solved : null,
    solve,
    stop: () => void planner().stop('power'),
    close: () => setHeld(null),
  };
}

function compiledOf(rig: Parameters<typeof supplyProblemOf>[0]): CompiledSupply | null {
  const compiled = compileSupply(supplyProblemOf(rig));
  return compiled.ok ? compiled.value : null;
}
