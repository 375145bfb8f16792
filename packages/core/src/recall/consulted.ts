/** Notes which variables an answer turns on while it is worked out. */
export class Consulted {
  private now: Set<number> | undefined;

  note(variable: number): void {
    this.now?.add(variable);
  }

  noteAll(variables: readonly number[]): void {
    if (this.now) for (let i = 0; i < variables.length; i += 1) this.now.add(variables[i]);
  }

  /** Works something out and tells what that turned on; what is being worked out around it turns on it too. */
  during<T>(act: () => T): { readonly result: T; readonly turnsOn: readonly number[] } {
    const around = this.now;
    const inside = new Set<number>();
    this.now = inside;
    try {
      const result = act();
      return { result, turnsOn: [...inside] };
    } finally {
      this.now = around;
      if (around) for (const variable of inside) around.add(variable);
    }
  }
}
