import { type Arranged, type ArrangeProblem, type ArrangeProgress, describeProblem } from '@yunta/core';
import { useEffect, useRef, useState } from 'react';
import { useServices } from '../../api/services.tsx';
import { heard } from '../../workers/heard.ts';

export type Arranging =
  | { readonly is: 'working'; readonly progress: ArrangeProgress | null }
  | { readonly is: 'done'; readonly answer: Arranged }
  | { readonly is: 'refused'; readonly why: string };

/** Asks the worker where the pieces of a board stand best; what it says is dropped where the question has changed. */
export function useArranged(problem: ArrangeProblem): {
  readonly arranging: Arranging | null;
  readonly begin: (seed: number, milliseconds: number) => void;
  readonly stop: () => void;
  readonly close: () => void;
} {
  const { plan: planner } = useServices();
  const key = JSON.stringify(problem);
  const newest = useRef(key);
  newest.current = key;
  // Asked again meanwhile, the older answer is none.
  const asked = useRef(0);
  const [held, setHeld] = useState<{ readonly key: string; readonly arranging: Arranging } | null>(null);
  useEffect(() => () => void planner().stop('arrange'), [key, planner]);
  const begin = (seed: number, milliseconds: number) => {
    const mine = (asked.current += 1);
    const take = (arranging: Arranging) =>
      newest.current === key && asked.current === mine && setHeld({ key, arranging });
    take({ is: 'working', progress: null });
    void heard(
      (hear: (progress: ArrangeProgress) => void) => planner().arrange('arrange', problem, seed, milliseconds, hear),
      (progress) => take({ is: 'working', progress }),
    ).then((answer) =>
      take(
        'refused' in answer
          ? { is: 'refused', why: answer.refused.map(describeProblem).join(' ') }
          : { is: 'done', answer },
      ),
    );
  };
  return {
    arranging: held?.key === key ? held.arranging : null,
    begin,
    stop: () => void planner().stop('arrange'),
    close: () => setHeld(null),
  };
}
