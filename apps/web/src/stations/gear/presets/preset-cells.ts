import { type PresetColumn, presetText, presetTyped, presetTurned, type StoredPreset } from '@yunta/core';

/** A row of the table: a preset by its number as sent. */
export interface PresetRow {
  readonly number: number;
  readonly preset: StoredPreset;
}

export interface At {
  readonly row: number;
  readonly column: number;
}

/** What is selected: from where one began to where one is. */
export interface Selection {
  readonly from: At;
  readonly to: At;
}

export interface Rectangle {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export const rectangleOf = ({ from, to }: Selection): Rectangle => ({
  top: Math.min(from.row, to.row),
  bottom: Math.max(from.row, to.row),
  left: Math.min(from.column, to.column),
  right: Math.max(from.column, to.column),
});

export const isInside = ({ top, bottom, left, right }: Rectangle, row: number, column: number): boolean =>
  row >= top && row <= bottom && column >= left && column <= right;

/** Rows that an edit changes, each with its preset afterwards; or why it is refused. */
export type Edit = readonly (readonly [number: number, preset: StoredPreset])[] | string;

const emptyPreset: StoredPreset = { values: {} };

/** Each selected cell as `text` says of it; what it refuses refuses all. */
function edited(
  rows: readonly PresetRow[],
  columns: readonly PresetColumn[],
  { top, bottom, left, right }: Rectangle,
  text: (row: number, column: number, preset: StoredPreset) => string,
): Edit {
  const changes: [number, StoredPreset][] = [];
  for (let row = top; row <= bottom; row += 1) {
    let { preset } = rows[row];
    for (let column = left; column <= right; column += 1) {
      const next = presetTyped(columns[column], preset, text(row, column, preset));
      if (typeof next === 'string') return next;
      preset = next;
    }
    changes.push([rows[row].number, preset]);
  }
  return changes;
}

/** The same text into every selected cell. */
export const typedInto = (
  rows: readonly PresetRow[],
  columns: readonly PresetColumn[],
  at: Rectangle,
  typed: string,
): Edit => edited(rows, columns, at, () => typed);

/** What the first of the selected rows holds, into the others. */
export const filledDown = (rows: readonly PresetRow[], columns: readonly PresetColumn[], at: Rectangle): Edit =>
  at.top === at.bottom
    ? 'Select the rows to fill first: Shift and an arrow.'
    : edited(rows, columns, at, (_, column) => presetText(columns[column], rows[at.top].preset));

/** The next value of the cell that one is on, into every selected cell. Null where the cell is typed into. */
export function turnedAt(
  rows: readonly PresetRow[],
  columns: readonly PresetColumn[],
  at: At,
  selected: Rectangle,
): Edit | null {
  const next = presetTurned(columns[at.column], rows[at.row].preset);
  return next === null ? null : typedInto(rows, columns, selected, next);
}

/** The selected cells as a spreadsheet takes them: tabs between columns, a line a row. */
export const copiedText = (
  rows: readonly PresetRow[],
  columns: readonly PresetColumn[],
  { top, bottom, left, right }: Rectangle,
): string =>
  rows
    .slice(top, bottom + 1)
    .map(({ preset }) =>
      columns
        .slice(left, right + 1)
        .map((column) => presetText(column, preset))
        .join('\t'),
    )
    .join('\n');

/**
 * Pasted cells from one on. One cell goes into all that is selected; rows past the last one make presets of the next
 * numbers. What cannot be read refuses all, with its row and column.
 */
export function pastedCells(
  rows: readonly PresetRow[],
  columns: readonly PresetColumn[],
  selected: Rectangle,
  text: string,
): Edit {
  const cells = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  if (cells.length === 1 && cells[0].length === 1) return typedInto(rows, columns, selected, cells[0][0]);
  const changes: [number, StoredPreset][] = [];
  let last = rows.at(-1)?.number ?? -1;
  for (const [r, line] of cells.entries()) {
    const row = rows[selected.top + r] as PresetRow | undefined;
    const number = row?.number ?? (last += 1);
    let preset = row?.preset ?? emptyPreset;
    for (const [c, cell] of line.entries()) {
      const column = columns[selected.left + c] as PresetColumn | undefined;
      if (!column) return `Line ${r + 1} has more columns than are left: ${line.length}.`;
      const next = presetTyped(column, preset, cell);
      if (typeof next === 'string') return `Line ${r + 1}, ${column.label}: ${next}`;
      preset = next;
    }
    changes.push([number, preset]);
  }
  return changes;
}

/** Preset numbers as a panel shows them, *12* or *1–20*; a text where they are none. */
export function numbersTyped(typed: string, first: 0 | 1): readonly number[] | string {
  const read = /^\s*(\d{1,6})\s*(?:(?:-|–|to)\s*(\d{1,6}))?\s*$/.exec(typed);
  if (!read) return `“${typed.trim()}” is no preset number: write 12, or 1–20.`;
  const [from, to] = [Number(read[1]), Number(read[2] ?? read[1])];
  if (from < first) return `Its panel counts from ${first}.`;
  if (to < from) return `${from} to ${to} runs backwards.`;
  if (to - from >= 1000) return 'A thousand at a time at most.';
  return Array.from({ length: to - from + 1 }, (_, i) => from + i - first);
}
