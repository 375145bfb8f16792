import type { Ranges } from '../audible/range-table.ts';
import type { ThreeValuedJudge } from '../audible/three-valued-judge.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noValue } from '../state/ids.ts';
import type { CompiledEvent } from './event-table.ts';
import type { Exploration } from './exploration.ts';

/** What each variable may be after a press. */
export class PostPressRanges {
  private pressAlone: Ranges | undefined;
  private everything: Ranges | undefined;

  /** `releasable`: variables that letting go of a held switch may move. */
  constructor(
    private readonly press: CompiledEvent,
    private readonly exploration: Exploration,
    private readonly threeValued: ThreeValuedJudge,
    private readonly releasable: ReadonlySet<VariableId>,
  ) {}

  /** The value that the press leaves a variable on; negative where that is not known from the press alone. */
  left(variable: VariableId): number {
    const value = this.press.summary.leaves(variable);
    return value >= 0 && !this.isReleasable(variable) ? value : noValue;
  }

  /** All values that it may have, from its own space where the press alone does not tell. */
  all(variable: VariableId): readonly number[] {
    const value = this.left(variable);
    if (value >= 0) return [value];
    return this.isTouched(variable)
      ? this.exploration.after(variable, this.press)
      : this.exploration.reachable(variable);
  }

  /** The same where it has been found out. */
  known(variable: VariableId): readonly number[] | undefined {
    return this.isTouched(variable)
      ? this.exploration.afterIfKnown(variable, this.press)
      : this.exploration.reachableIfKnown(variable);
  }

  /** Whether one of them is enough; looks no further. */
  some(variable: VariableId, isEnough: (value: ValueId) => boolean): boolean {
    return this.isTouched(variable)
      ? this.exploration.someAfter(variable, this.press, isEnough)
      : this.exploration.someReachable(variable, isEnough);
  }

  /** What every variable may be, to judge from: from the press alone. */
  fromPress(): Ranges {
    return (this.pressAlone ??= this.threeValued.settledGround((variable) => this.left(variable)));
  }

  /** From all that can be found out. */
  fromAll(): Ranges {
    return (this.everything ??= this.threeValued.ground((variable) => this.all(variable)));
  }

  private isTouched(variable: VariableId): boolean {
    return this.press.summary.mayWrite(variable) || this.isReleasable(variable);
  }

  private isReleasable(variable: VariableId): boolean {
    return this.releasable.size > 0 && this.releasable.has(variable);
  }
}
