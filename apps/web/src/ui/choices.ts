export interface Choice {
  readonly value: string;
  readonly label: string;
}

/** Choices that hold every word typed, those that begin with it first. */
export function matching(choices: readonly Choice[], typed: string): readonly Choice[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const found = choices.filter(({ label }) => words.every((word) => label.toLowerCase().includes(word)));
  const begins = (choice: Choice) => choice.label.toLowerCase().startsWith(typed.toLowerCase());
  return [...found.filter(begins), ...found.filter((choice) => !begins(choice))];
}
