/**
 * What a run leaves open, taken in order: the first of each at first, then every other combination, the last choice
 * changing soonest. How many there are of each may depend on what was chosen before.
 */
export class ChoiceSequence {
  /** What to choose at each place; past its end, the first. */
  private readonly script: number[] = [];
  private readonly sizes: number[] = [];
  private scripted = 0;
  private count = 0;

  /** Before each run. */
  begin(): void {
    this.count = 0;
  }

  /** One of `count` things, counted from 0. */
  of(count: number): number {
    const at = this.count;
    this.sizes[at] = count;
    this.count = at + 1;
    if (at >= this.scripted) this.script[at] = 0;
    return this.script[at];
  }

  /** Goes on to the next combination; false once all have been. */
  next(): boolean {
    const { sizes, script } = this;
    let i = this.count - 1;
    while (i >= 0 && script[i] + 1 >= sizes[i]) i -= 1;
    if (i < 0) return false;
    script[i] += 1;
    this.scripted = i + 1;
    return true;
  }
}
