import {
  allocate,
  type Allocation,
  type AllocationProblem,
  type AllocationProgress,
  compileProblem,
  fewestLoops,
  type Problem,
  type Show,
} from '@yunta/core';
import { type Figures, figuresOf } from './figures.ts';

export type Planned =
  | { readonly is: 'planned'; readonly allocation: Allocation }
  | { readonly is: 'refused'; readonly problems: readonly Problem[] }
  /** Another question of the same name came meanwhile, or it was stopped; with the best so far. */
  | { readonly is: 'stopped'; readonly best: AllocationProgress | null };

/** Works plans out, each question under its name: the newest of a name wins, and any can be stopped. */
export class Planning {
  private readonly asked = new Map<string, number>();

  constructor(private readonly turn: () => Promise<void>) {}

  /** The best plan; `onProgress` hears of each better one, and now and then how far it has come. */
  async plan(
    name: string,
    problem: AllocationProblem,
    onProgress?: (progress: AllocationProgress) => void | Promise<void>,
  ): Promise<Planned> {
    const mine = (this.asked.get(name) ?? 0) + 1;
    this.asked.set(name, mine);
    const compiled = compileProblem(problem);
    if (!compiled.ok) return { is: 'refused', problems: compiled.problems };
    const search = allocate(compiled.value);
    let last = performance.now();
    for (;;) {
      const step = search.next();
      if (step.done) return { is: 'planned', allocation: step.value };
      if (performance.now() - last < 40) continue;
      await this.turn();
      if (this.asked.get(name) !== mine) return { is: 'stopped', best: step.value };
      void onProgress?.(step.value);
      last = performance.now();
    }
  }

  /** The fewest loops that would do for everything, without a foot; null where none would, or it was stopped. */
  async fewestLoops(name: string, problem: AllocationProblem): Promise<number | null> {
    const mine = (this.asked.get(name) ?? 0) + 1;
    this.asked.set(name, mine);
    const search = fewestLoops(problem);
    for (let last = performance.now(); ;) {
      const step = search.next();
      if (step.done) return step.value;
      if (performance.now() - last < 40) continue;
      await this.turn();
      if (this.asked.get(name) !== mine) return null;
      last = performance.now();
    }
  }

  stop(name: string): void {
    this.asked.set(name, (this.asked.get(name) ?? 0) + 1);
  }

  /** What there is to count of a rig, judged anew. */
  figures(show: Show): Figures {
    return figuresOf(show);
  }
}
