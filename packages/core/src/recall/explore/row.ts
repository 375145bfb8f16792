/** More states, or more work, than the limits of an exploration allow. */
export class TooManyStates extends Error {}

/** A row of a space: its variables' values, and last whether the one stray foot or fault has been used. */
export type Row = number[];

/** Tells rows of one space apart. */
export function rowKey(row: Row): string | number {
  if (row.length === 2) return row[0] * 2 + row[1];
  if (row.length === 3 && row[1] < 32_768) return (row[0] * 32_768 + row[1]) * 2 + row[2];
  return row.join(',');
}
