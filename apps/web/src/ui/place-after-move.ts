/** The row that stands after one that was moved to a place; null where it is the last then. */
export function placeAfterMove(ids: readonly string[], id: string, to: number): string | null {
  const others = ids.filter((other) => other !== id);
  return others[to] ?? null;
}
