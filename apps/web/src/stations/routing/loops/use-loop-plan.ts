import {
  allocationOf,
  type AllocationProblem,
  type AllocationProgress,
  type Changed,
  compileProblem,
  type Line,
  lineOf,
  type NoLine,
  type Plan,
  type PlanCost,
  type PlannedLine,
  type Show,
} from '@yunta/core';
import { useEffect, useMemo, useState } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { useServices } from '../../../api/services.tsx';
import { heard } from '../../../workers/heard.ts';

/** The answer to one question: the best plan so far, and whether it is the best of all. */
export interface Answer {
  readonly plan: Plan | null;
  readonly cost: PlanCost | null;
  readonly lostAtLeast: number;
  readonly state: 'working' | 'optimal' | 'not searched' | 'stopped' | 'refused';
}

/** The line that loops are given out along, or why there is none. */
export function useLine(switcher: string | undefined): Line | NoLine {
  const { wiring } = useShow();
  return useMemo(() => lineOf(wiring, switcher), [wiring, switcher]);
}

const told = (progress: AllocationProgress, state: Answer['state']): Answer => ({
  plan: progress.best,
  cost: progress.cost,
  lostAtLeast: progress.lostAtLeast,
  state,
});

/** Asks the worker; again where the question is another one. `name`: the newest question of a name wins. */
export function useAnswer(
  name: string,
  problem: AllocationProblem,
): { readonly answer: Answer | null; readonly stop: () => void } {
  const { plan: planner } = useServices();
  const key = useMemo(() => JSON.stringify(problem), [problem]);
  const [held, setHeld] = useState<{ readonly key: string; readonly answer: Answer } | null>(null);
  useEffect(() => {
    const asked = JSON.parse(key) as AllocationProblem;
    let isMine = true;
    const take = (answer: Answer) => isMine && setHeld({ key, answer });
    const remote = planner();
    void heard(
      (hear: (progress: AllocationProgress) => void) => remote.plan(name, asked, hear),
      (progress) => take(told(progress, 'working')),
    ).then((planned) => {
      if (planned.is === 'planned')
        take(told(planned.allocation, planned.allocation.isOptimal ? 'optimal' : 'not searched'));
      else if (planned.is === 'refused') take({ plan: null, cost: null, lostAtLeast: 0, state: 'refused' });
      else take(told(planned.best, 'stopped'));
    });
    return () => {
      isMine = false;
      void remote.stop(name);
    };
  }, [key, name, planner]);
  return {
    answer: held?.key === key ? held.answer : null,
    stop: () => void planner().stop(name),
  };
}

/** What is asked of a line as things are, or with something given up. */
export function useProblem(show: Show, line: Line, changed: Changed): AllocationProblem {
  return useMemo(() => allocationOf(show, line, changed), [show, line, changed]);
}

/** A plan with what it was worked out from; null while there is none. */
export function usePlanned(
  show: Show,
  line: Line,
  problem: AllocationProblem | null,
  plan: Plan | null,
): PlannedLine | null {
  return useMemo(() => {
    if (!problem || !plan) return null;
    const compiled = compileProblem(problem);
    return compiled.ok ? { show, line, compiled: compiled.value, plan } : null;
  }, [show, line, problem, plan]);
}
