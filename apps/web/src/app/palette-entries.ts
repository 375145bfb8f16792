export interface PaletteEntry {
  readonly name: string;
  /** Station, sound, device, command: said beside the name, and found by too. */
  readonly kind: string;
  readonly act: () => void;
}

/** Entries that hold every typed word, those whose name begins with the first of them before the others. */
export function matching(entries: readonly PaletteEntry[], typed: string): readonly PaletteEntry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = entries.filter((entry) =>
    words.every((word) => `${entry.name} ${entry.kind}`.toLowerCase().includes(word)),
  );
  const rank = (entry: PaletteEntry): number => (entry.name.toLowerCase().startsWith(words[0] ?? '') ? 0 : 1);
  return words.length === 0 ? hits : [...hits].sort((a, b) => rank(a) - rank(b));
}
