/** Notes which variables an answer turns on while it is worked out. */
export class Consulted {
  /** What the answer at hand has turned on so far; undefined while none is worked out. */
  private now: number[] | undefined;
  /** How many answers are being worked out, one within the other; by that and by variable, for which answer it was noted last. */
  private depth = 0;
  private readonly notedFor: number[][] = [];
  private answer = 0;
  private answers = 0;

  note(variable: number): void {
    const { now } = this;
    if (!now) return;
    const noted = this.notedFor[this.depth];
    if (noted[variable] === this.answer) return;
    noted[variable] = this.answer;
    now.push(variable);
  }

  noteAll(variables: readonly number[]): void {
    if (this.now) for (let i = 0; i < variables.length; i += 1) this.note(variables[i]);
  }

  /** Works something out and tells what that turned on, each once; what is being worked out around it turns on it too. */
  during<T>(act: () => T): { readonly result: T; readonly turnsOn: readonly number[] } {
    const { now: around, answer } = this;
    const inside: number[] = [];
    this.now = inside;
    this.answer = this.answers += 1;
    this.depth += 1;
    this.notedFor[this.depth] ??= [];
    try {
      return { result: act(), turnsOn: inside };
    } finally {
      this.now = around;
      this.answer = answer;
      this.depth -= 1;
      this.noteAll(inside);
    }
  }
}
