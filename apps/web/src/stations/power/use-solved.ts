import {
  compileSupply,
  type CompiledSupply,
  type PowerPlan,
  type PowerProgress,
  type Problem,
  supplyProblemOf,
  type SupplyProgress,
} from '@yunta/core';
import { useEffect, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import { heard } from '../../workers/heard.ts';

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
  // Asked again meanwhile, the older answer is none.
  const asked = useRef(0);
  useEffect(() => () => void planner().stop('power'), [key, planner]);
  const solve = () => {
    const { rig } = show;
    const mine = (asked.current += 1);
    const take = (solved: Solved) => newest.current === key && asked.current === mine && setHeld({ key, solved });
    take({ is: 'working', step: 'outputs', found: null });
    void heard(
      (hear: (progress: PowerProgress) => void) => planner().power('power', rig, hear),
      ({ step, found }) => take({ is: 'working', step, found }),
    ).then((answer) => {
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
