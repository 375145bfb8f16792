import { type Arranged, type ArrangeProblem, type ArrangeProgress, describeProblem } from '@yunta/core';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { useServices } from '../../api/services.tsx';

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
  const [held, setHeld] = useState<{ readonly key: string; readonly arranging: Arranging } | null>(null);
  useEffect(() => () => void planner().stop('arrange'), [key, planner]);
  const begin = (seed: number, milliseconds: number) => {
    const take = (arranging: Arranging) => newest.current === key && setHeld({ key, arranging });
    take({ is: 'working', progress: null });
    const hear = proxy((progress: ArrangeProgress) => void take({ is: 'working', progress }));
    void planner()
      .arrange('arrange', problem, seed, milliseconds, hear)
      .then((answer) =>
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
