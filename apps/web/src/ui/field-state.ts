/** What stands in a field, and why it was refused. */
export interface FieldState {
  readonly text: string;
  /** Null: nothing refused stands there. */
  readonly reason: string | null;
}

export const fieldOf = (value: string): FieldState => ({ text: value, reason: null });

/** Typing goes on from what was refused; the reason stays until it is tried again. */
export const typedInto = (state: FieldState, text: string): FieldState => ({ ...state, text });

/**
 * The field after its text was given to whoever takes it. What is refused stays as it was typed, with the reason beside
 * it; what was only typed back is what was there.
 */
export function confirmed(state: FieldState, value: string, commit: (text: string) => string | null): FieldState {
  const text = state.text.trim();
  if (text === value) return fieldOf(value);
  const reason = commit(text);
  return reason === null ? { text, reason: null } : { text: state.text, reason };
}

/** A value that came from elsewhere: it shows, unless something refused waits to be mended. */
export const valueChanged = (state: FieldState, value: string): FieldState =>
  state.reason === null ? fieldOf(value) : state;
