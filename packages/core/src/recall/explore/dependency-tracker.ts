import type { VariableId } from '../state/ids.ts';

/** Notes which variables an answer turns on while it is worked out. */
export class DependencyTracker {
  /**
   * What the answers that are being worked out have turned on so far, up to `height`: first the outermost's, then those
   * of the one within it.
   */
  private readonly reads: number[] = [];
  private height = 0;
  /** By how many are being worked out and by variable, for which answer it was read last. */
  private depth = 0;
  private readonly readsFor: number[][] = [];
  private answer = 0;
  private answers = 0;

  note(variable: VariableId): void {
    if (this.depth === 0) return;
    const readsFor = this.readsFor[this.depth];
    if (readsFor[variable] === this.answer) return;
    readsFor[variable] = this.answer;
    this.reads[this.height++] = variable;
  }

  noteAll(variables: readonly VariableId[]): void {
    if (this.depth > 0) for (let i = 0; i < variables.length; i += 1) this.note(variables[i]);
  }

  /**
   * Works something out and tells what that turned on, each once; what is being worked out around it turns on it too.
   */
  track<T>(act: () => T): { readonly result: T; readonly dependsOn: readonly VariableId[] } {
    const { answer, height } = this;
    this.answer = this.answers += 1;
    this.depth += 1;
    this.readsFor[this.depth] ??= [];
    try {
      return { result: act(), dependsOn: this.reads.slice(height, this.height) };
    } finally {
      this.answer = answer;
      this.depth -= 1;
      const top = this.height;
      this.height = height;
      for (let i = height; i < top; i += 1) this.note(this.reads[i]);
    }
  }
}
