import type { ClipboardEvent } from 'react';

/** More than these are not typed into a field: a table is imported instead. */
const mostLines = 200;

/**
 * A column pasted from a spreadsheet or a list: the first cell of each line that holds something. Null where it is one
 * line, which the field takes itself.
 */
export function pastedLines(text: string): readonly string[] | null {
  const lines = text
    .split(/\r\n|\r|\n/)
    .map((line) => line.split('\t')[0].trim())
    .filter((line) => line !== '');
  return lines.length < 2 ? null : lines.slice(0, mostLines);
}

/** For a field: a pasted column goes to whoever adds rows; a single line is pasted as always. */
export const onPasteLines =
  (add: (lines: readonly string[]) => void) =>
  (event: ClipboardEvent): void => {
    const lines = pastedLines(event.clipboardData.getData('text/plain'));
    if (!lines) return;
    event.preventDefault();
    add(lines);
  };
