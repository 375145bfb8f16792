import { lengthTyped } from '../units/typed.ts';

/** What one end of a link was typed as; several stand side by side where a Y cord joins them. */
export type Stop = readonly string[];

/** One piece or one run of cables of a text. */
export interface Statement {
  /** Its line, counted from 0. */
  readonly line: number;
  readonly typed: string;
  /** The run goes from the send of this loop to its return; no device: the switcher spoken of. */
  readonly loop?: { readonly device: string; readonly number: string };
  readonly carries?: 'midi' | 'contact';
  /** One alone is a piece to add. */
  readonly stops: readonly Stop[];
  /** Metres of the link after each stop; null: not said. */
  readonly lengths: readonly (number | null)[];
  /** Whether the link after each stop is of two sides. */
  readonly stereo: readonly boolean[];
}

/** More lines than these are not one rig. */
export const mostLines = 2_000;

/** Splits a text into statements: by lines, by semicolons, by the columns of a pasted table. */
export function statementsOf(text: string, bare: 'm' | 'ft', names: readonly string[] = []): readonly Statement[] {
  const guarded = new GuardedNames(names);
  return split(guarded.hide(text), bare).map((statement) => guarded.show(statement));
}

/** Names that hold signs of our own (*Drive + boost*, *Line: left*), kept whole while a text is split. */
class GuardedNames {
  private readonly names: readonly string[];
  constructor(names: readonly string[]) {
    this.names = names
      .filter((name) => /[>;:+=\t]|\s\/\s/.test(name) || lengthAtEnd.test(name))
      .sort((a, b) => b.length - a.length);
  }
  hide(text: string): string {
    return this.names.reduce(
      (now, name, i) => now.replace(new RegExp(escaped(name), 'gi'), String.fromCharCode(privateUse + i)),
      text,
    );
  }
  show(statement: Statement): Statement {
    if (this.names.length === 0) return statement;
    const back = (text: string) =>
      text.replace(/[\uE000-\uF8FF]/g, (sign) => this.names[sign.charCodeAt(0) - privateUse] ?? sign);
    return {
      ...statement,
      typed: back(statement.typed),
      stops: statement.stops.map((stop) => stop.map(back)),
      ...(statement.loop ? { loop: { ...statement.loop, device: back(statement.loop.device) } } : {}),
    };
  }
}
/** The first of the characters that Unicode leaves for private use. */
const privateUse = 0xe000;
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

function split(text: string, bare: 'm' | 'ft'): readonly Statement[] {
  const found: Statement[] = [];
  let columns: Columns | null = null;
  for (const [line, raw] of text
    .split(/\r\n|\r|\n/)
    .slice(0, mostLines)
    .entries()) {
    if (raw.includes('\t')) {
      const cells = raw.split('\t').map((cell) => cell.trim());
      const heads = columnsOf(cells);
      if (heads) columns = heads;
      else found.push(...rowOf(cells, columns, line, bare));
      continue;
    }
    for (const part of withoutBullet(raw).split(';')) {
      const typed = part.trim();
      if (typed !== '') found.push(statementOf(typed, line, bare));
    }
  }
  return found;
}

const withoutBullet = (line: string): string => line.replace(/^\s*(?:[-–•*]|\d{1,3}[.)])\s+/, '');

function statementOf(typed: string, line: number, bare: 'm' | 'ft'): Statement {
  const head = /^([^:>]*?)\s*:(?!\/)\s*(.*)$/.exec(typed);
  const named = head ? headOf(head[1].trim()) : null;
  const run = named ? head![2] : typed;
  return { line, typed, ...named, ...runOf(run, bare) };
}

/** `2:`, `switcher 2:`, `switcher loop 2:`, `midi:`: what a run belongs to. */
function headOf(head: string): Pick<Statement, 'loop' | 'carries'> | null {
  const carries = /^(midi|contacts?)$/i.exec(head);
  if (carries) return { carries: carries[1].toLowerCase() === 'midi' ? 'midi' : 'contact' };
  const loop = /^(.*?)\s*(?:\bloop\s*)?(\d{1,3})$/i.exec(head);
  return loop ? { loop: { device: loop[1].trim(), number: String(Number(loop[2])) } } : null;
}

const arrow = /\s*(=>|>>|⇒|-+>|>|→)\s*/;

function runOf(run: string, bare: 'm' | 'ft'): Pick<Statement, 'stops' | 'lengths' | 'stereo'> {
  const pieces = run.split(arrow);
  const stops: Stop[] = [];
  const lengths: (number | null)[] = [];
  const stereo: boolean[] = [];
  const isWide: boolean[] = [];
  for (let i = 0; i < pieces.length; i += 2) {
    const sign = i > 0 ? pieces[i - 1] : '';
    const isDouble = sign === '=>' || sign === '>>' || sign === '⇒';
    const { words, length } = withLength(pieces[i], bare);
    // A length between two arrows belongs to the link that they make up.
    if (words === '' && length !== null && stops.length > 0 && i + 2 < pieces.length) {
      lengths[stops.length - 1] = length;
      isWide[stops.length] = isDouble;
      continue;
    }
    if (length !== null) lengths[stops.length === 0 ? 0 : stops.length - 1] = length;
    if (stops.length > 0) stereo[stops.length - 1] = isDouble || isWide[stops.length] === true;
    stops.push(endsIn(words));
  }
  return {
    stops,
    lengths: stops.map((_, i) => lengths[i] ?? null),
    stereo: stops.map((_, i) => stereo[i] ?? false),
  };
}

/** Inches by their sign alone: *Drive 1 in* is an input. */
const lengthAtEnd =
  /(?:^|[\s,(])\(?((?:\d+(?:[.,]\d+)?)\s*(?:m|cm|ft|feet|metres?|meters?|['"′″])(?:\s*\d+\s*["″])?)\)?$/i;

/** Takes a length off the end of what was typed: `amp 6 m`, `amp (20 ft)`. */
function withLength(typed: string, bare: 'm' | 'ft'): { readonly words: string; readonly length: number | null } {
  const found = lengthAtEnd.exec(typed.trim());
  if (!found) return { words: typed.trim(), length: null };
  const plain = found[1]
    .toLowerCase()
    .replace(/met(re|er)s?/, 'm')
    .replace('feet', 'ft');
  const length = lengthTyped(plain, bare);
  if (length === undefined || length === null) return { words: typed.trim(), length: null };
  return { words: typed.trim().slice(0, found.index).trim(), length };
}

/** Ends that stand side by side, split at each plus that stands alone. */
const endsIn = (words: string): Stop => words.split(/\s+\+\s+|\s+\+$/).map((word) => word.trim());

// ---- a pasted table ----

type Column = 'from' | 'fromJack' | 'to' | 'toJack' | 'length';
type Columns = Readonly<Partial<Record<Column, number>>>;

const heads: Readonly<Record<Column, RegExp>> = {
  from: /^(from|source|out of|device|piece|gear|name)$/i,
  fromJack: /^(from jack|output|output jack|jack)$/i,
  to: /^(to|destination|into)$/i,
  toJack: /^(to jack|input|input jack)$/i,
  length: /^(length|metres|meters|feet)( \((m|ft)\))?$/i,
};

/** Which column holds what, where the first row says it. */
function columnsOf(cells: readonly string[]): Columns | null {
  const found: Partial<Record<Column, number>> = {};
  for (const column of Object.keys(heads) as Column[]) {
    const at = cells.findIndex((cell) => heads[column].test(cell));
    if (at >= 0) found[column] = at;
  }
  return found.from === undefined ? null : found;
}

/** A row of a pasted table: what it comes from, what it goes into, how long. */
function rowOf(
  cells: readonly string[],
  columns: Columns | null,
  line: number,
  bare: 'm' | 'ft',
): readonly Statement[] {
  const filled = cells.filter((cell) => cell !== '');
  if (filled.length === 0) return [];
  const cell = (column: Column): string => (columns?.[column] === undefined ? '' : (cells[columns[column]] ?? ''));
  const isLength = (text: string) => lengthTyped(text, bare) !== undefined && /^\d/.test(text);
  const [from, to, length] = columns
    ? [`${cell('from')} ${cell('fromJack')}`.trim(), `${cell('to')} ${cell('toJack')}`.trim(), cell('length')]
    : [filled[0], filled[1] ?? '', filled.slice(2).find(isLength) ?? ''];
  const isPiece = to === '' || isLength(to);
  const metres = lengthTyped(length, bare);
  return [
    {
      line,
      typed: filled.join(' · '),
      stops: isPiece ? [[from]] : [[from], [to]],
      lengths: isPiece ? [null] : [metres ?? null, null],
      stereo: isPiece ? [false] : [false, false],
    },
  ];
}
