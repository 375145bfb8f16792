/** A sheet of paper as a pure table: the page, the PDF and CSV are made from it alike. */
export interface Sheet {
  readonly title: string;
  /** Rig, songbook, revision and the like, in one line. */
  readonly about: string;
  readonly columns: readonly string[];
  readonly groups: readonly SheetGroup[];
  /** Cautions and assumptions, printed under the table. */
  readonly notes: readonly string[];
  /**
   * How it is printed: a `list` to tick off line by line, a `matrix` of many narrow columns, the switches of a `floor`
   * unit, `cues` to be read from the floor.
   */
  readonly look: 'list' | 'matrix' | 'floor' | 'cues';
}

export interface SheetGroup {
  readonly heading: string;
  readonly lines: readonly SheetLine[];
}

export interface SheetLine {
  /** Stays the same while the thing stays the same thing: what a tick is filed under. */
  readonly id: string;
  readonly cells: readonly string[];
}

/** What a line says in one text: what a tick remembers, so that a changed line opens again. */
export const saidBy = (line: SheetLine): string => line.cells.join(' | ').slice(0, 1000);
