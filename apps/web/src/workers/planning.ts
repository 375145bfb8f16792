import {
  allocate,
  arrange,
  type Arranged,
  type ArrangeProblem,
  type ArrangeProgress,
  checkArrange,
  type Allocation,
  type AllocationProblem,
  type AllocationProgress,
  compileProblem,
  fewestLoops,
  type Figures,
  figuresOf,
  planPower,
  type PowerAnswer,
  type PowerProgress,
  type Problem,
  type Rig,
  type Show,
} from '@yunta/core';

export type Planned =
  | { readonly is: 'planned'; readonly allocation: Allocation }
  | { readonly is: 'refused'; readonly problems: readonly Problem[] }
  /** Another question of the same name came meanwhile, or it was stopped; with the best so far. */
  | { readonly is: 'stopped'; readonly best: AllocationProgress };

export type PlannedPower = PowerAnswer | { readonly is: 'stopped'; readonly best: PowerProgress };

/** Milliseconds after which a step of planning power is told as far as it has come. */
const stepTime: Readonly<Record<PowerProgress['step'], number>> = { outputs: 8_000, conflict: 6_000, cures: 6_000 };

/** Works plans out, each question under its name: the newest of a name wins, and any can be stopped. */
export class Planning {
  private readonly asked = new Map<string, number>();

  constructor(private readonly turn: () => Promise<void>) {}

  /** The best plan; `onProgress` hears now and then how far it has come. */
  async plan(
    name: string,
    problem: AllocationProblem,
    onProgress?: (progress: AllocationProgress) => void | Promise<void>,
  ): Promise<Planned> {
    const compiled = compileProblem(problem);
    if (!compiled.ok) return { is: 'refused', problems: compiled.problems };
    const found = await this.inSlices(name, allocate(compiled.value), (progress) => void onProgress?.(progress));
    return 'done' in found ? { is: 'planned', allocation: found.done } : { is: 'stopped', best: found.stopped };
  }

  /** The fewest loops that would do for everything, without a foot; null where none would, or it was stopped. */
  async fewestLoops(name: string, problem: AllocationProblem): Promise<number | null> {
    const found = await this.inSlices(name, fewestLoops(problem), () => undefined);
    return 'done' in found ? found.done : null;
  }

  /** Goes on step by step, giving way now and then; ended where its name was asked again, or stopped. */
  private async inSlices<S, T>(
    name: string,
    steps: Generator<S, T>,
    hear: (step: S) => void,
  ): Promise<{ readonly done: T } | { readonly stopped: S }> {
    this.stop(name);
    const mine = this.asked.get(name);
    for (let last = performance.now(); ;) {
      const step = steps.next();
      if (step.done) return { done: step.value };
      if (performance.now() - last < 40) continue;
      await this.turn();
      if (this.asked.get(name) !== mine) return { stopped: step.value };
      hear(step.value);
      last = performance.now();
    }
  }

  /**
   * The best plan of a rig's power, with what conflicts and what would cure it where not all can have any. Each step
   * has its time, and ends with the best so far.
   */
  async power(
    name: string,
    rig: Rig,
    onProgress?: (progress: PowerProgress) => void | Promise<void>,
  ): Promise<PlannedPower> {
    const began = new Map<PowerProgress['step'], number>();
    const isTimeUp = (step: PowerProgress['step']): boolean => {
      const now = performance.now();
      if (!began.has(step)) began.set(step, now);
      return now - began.get(step)! > stepTime[step];
    };
    const found = await this.inSlices(name, planPower(rig, isTimeUp), (progress) => void onProgress?.(progress));
    return 'done' in found ? found.done : { is: 'stopped', best: found.stopped };
  }

  /** Where pieces stand best, looked for so many milliseconds; `seed` decides which way the search goes. */
  async arrange(
    name: string,
    problem: ArrangeProblem,
    seed: number,
    milliseconds: number,
    onProgress?: (progress: ArrangeProgress) => void | Promise<void>,
  ): Promise<Arranged | { readonly refused: readonly Problem[] }> {
    const checked = checkArrange(problem);
    if (!checked.ok) return { refused: checked.problems };
    const end = performance.now() + milliseconds;
    const steps = until(arrange(problem, seed, Infinity), () => performance.now() > end);
    const found = await this.inSlices(name, steps, (progress) => void onProgress?.(progress));
    if ('done' in found && 'isProved' in found.done) return found.done;
    return { ...('done' in found ? found.done : found.stopped), isProved: false, cannot: undefined };
  }

  stop(name: string): void {
    this.asked.set(name, (this.asked.get(name) ?? 0) + 1);
  }

  /** What there is to count of a rig, judged anew. */
  figures(show: Show): Figures {
    return figuresOf(show);
  }
}

/** The same steps, ended with the last of them where they are over time. */
function* until<S, T>(steps: Generator<S, T>, isOver: () => boolean): Generator<S, S | T> {
  for (;;) {
    const step = steps.next();
    if (step.done || isOver()) return step.value;
    yield step.value;
  }
}
