/**
 * What a run leaves open, taken in order: the first of each at first, then every other combination, the last choice
 * changing soonest. How many there are of each may depend on what was chosen before.
 */
export class Choices {
  private script: readonly number[] = [];
  private sizes: number[] = [];

  /** Before each run. */
  begin(): void {
    this.sizes = [];
  }

  /** One of `count` things, counted from 0. */
  of(count: number): number {
    const at = this.sizes.push(count) - 1;
    return this.script[at] ?? 0;
  }

  /** Goes on to the next combination; false once all have been. */
  next(): boolean {
    const { sizes, script } = this;
    let i = sizes.length - 1;
    while (i >= 0 && (script[i] ?? 0) + 1 >= sizes[i]) i -= 1;
    if (i < 0) return false;
    const next: number[] = [];
    for (let at = 0; at < i; at += 1) next.push(script[at] ?? 0);
    next.push((script[i] ?? 0) + 1);
    this.script = next;
    return true;
  }
}
