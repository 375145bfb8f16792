import type { Row } from './stepper.ts';
import type { Store } from './store.ts';
import { NeedVariable } from './store.ts';
import type { Pins } from './values.ts';

/** The column that is read next, and where each value of it leads. */
interface Question {
  readonly column: number;
  readonly answers: Map<number, Question | Writes>;
}

/** What is written, once all that was read is known: at each place a column and its value. */
interface Writes {
  readonly column: -1;
  readonly columns: readonly number[];
  readonly values: readonly number[];
  /** Whether every column but the last is written, or was read on the way: it then leads to one row alone. */
  readonly isWhole: boolean;
  /** Bits of the values of the last column from which it led on before. */
  ledFrom: number;
}

/**
 * What something does to rows of a machine, worked out once for all rows that agree in what it reads on the way:
 * kept as a tree of the columns read, in the order of reading. It must turn on nothing but what it reads, and leave
 * the last column alone, which is 0 or 1.
 */
export class Effect {
  private root: Question | Writes | undefined;

  constructor(
    private readonly reader: Reader,
    private readonly act: (store: Store) => void,
  ) {}

  /** Does it to a row, in place. */
  apply(row: Row): void {
    const { columns, values } = this.writes(row);
    for (let i = 0; i < columns.length; i += 1) row[columns[i]] = values[i];
  }

  /** Puts the row that it leads to into another; false where it has led to the very same one before. */
  leadsTo(row: Row, into: Row): boolean {
    const writes = this.writes(row);
    const { columns, values } = writes;
    const last = row.length - 1;
    if (writes.isWhole) {
      const bit = 1 << row[last];
      if ((writes.ledFrom & bit) !== 0) return false;
      writes.ledFrom |= bit;
    }
    for (let column = 0; column <= last; column += 1) into[column] = row[column];
    for (let i = 0; i < columns.length; i += 1) into[columns[i]] = values[i];
    return true;
  }

  /** What one column is after it. */
  valueAfter(row: Row, column: number): number {
    const { columns, values } = this.writes(row);
    for (let i = 0; i < columns.length; i += 1) if (columns[i] === column) return values[i];
    return row[column];
  }

  private writes(row: Row): Writes {
    let here = this.root;
    while (here && here.column >= 0) here = (here as Question).answers.get(row[here.column]);
    return (here as Writes | undefined) ?? this.learn(row);
  }

  /** Does it to a row once, watching what is read, and takes that into the tree. */
  private learn(row: Row): Writes {
    const { reader } = this;
    reader.begin(row);
    this.act(reader);
    const writes = reader.written();
    const { read } = reader;
    if (read.length === 0) return (this.root = writes) as Writes;
    let here = (this.root ??= { column: read[0], answers: new Map() }) as Question;
    for (let i = 0; i < read.length; i += 1) {
      const value = row[read[i]];
      if (i === read.length - 1) here.answers.set(value, writes);
      else {
        let next = here.answers.get(value) as Question | undefined;
        if (!next) here.answers.set(value, (next = { column: read[i + 1], answers: new Map() }));
        here = next;
      }
    }
    return writes;
  }
}

/** A row that notes which of its columns are read before they are written, and what is written. */
export class Reader implements Store {
  /** Columns read, in order. */
  readonly read: number[] = [];
  private readonly state: Row;
  private readonly isKnown: Uint8Array;
  private readonly isWritten: Uint8Array;

  constructor(
    private readonly place: Int32Array,
    readonly pins: Pins,
    width: number,
  ) {
    this.state = new Array<number>(width).fill(0);
    this.isKnown = new Uint8Array(width);
    this.isWritten = new Uint8Array(width);
  }

  begin(row: Row): void {
    for (let column = 0; column < row.length; column += 1) this.state[column] = row[column];
    this.isKnown.fill(0);
    this.isWritten.fill(0);
    this.read.length = 0;
  }

  written(): Writes {
    const columns: number[] = [];
    for (let column = 0; column < this.isWritten.length; column += 1)
      if (this.isWritten[column] === 1) columns.push(column);
    const isWhole = this.isKnown.subarray(0, this.isKnown.length - 1).every((known) => known === 1);
    return { column: -1, columns, values: columns.map((column) => this.state[column]), isWhole, ledFrom: 0 };
  }

  has(variable: number): boolean {
    return this.place[variable] >= 0;
  }

  get(variable: number): number {
    const column = this.place[variable];
    if (!(column >= 0)) throw new NeedVariable(variable);
    if (this.isKnown[column] === 0) {
      this.isKnown[column] = 1;
      this.read.push(column);
    }
    return this.state[column];
  }

  set(variable: number, value: number): void {
    const column = this.place[variable];
    if (!(column >= 0)) return;
    this.isKnown[column] = 1;
    this.isWritten[column] = 1;
    this.state[column] = value;
  }

  key(): string {
    return this.state.join(',');
  }
}
