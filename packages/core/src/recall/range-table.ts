import type { HearingEdge } from './sound-comparison.ts';
import type { Possible, Range } from './three-valued-judge.ts';

/**
 * What the variables that open or close sections may be, packed into words of bits. A bit is a class of values that
 * no section tells apart. `may`: the classes that the variable may be in (all where it may be anything). `must`: the
 * same, with a bit that no section allows where the value is not known.
 */
export interface Ranges {
  readonly may: Int32Array;
  readonly must: Int32Array;
}

/** Values of some variables, packed to be laid over others: word, and the bits of it. */
export interface Overlay {
  readonly words: Int32Array;
  readonly may: Int32Array;
  readonly must: Int32Array;
}

const classesInWord = 30;
/** In `must` where a value is not known: no section allows it. */
const unknown = 1 << 31;

interface Layout {
  readonly variable: number;
  readonly first: number;
  readonly words: number;
  /**
   * The class of each value met so far; −1 for one that stands for any. Values that no section names are in class 0.
   */
  readonly classes: (number | undefined)[];
}

/** Packs ranges of variables, and says of each section from the bits whether it may close and whether it must. */
export class RangeTable {
  private readonly layouts: readonly Layout[];
  private readonly absent: Layout | undefined;
  /** By variable. */
  private readonly layoutAt: readonly (Layout | undefined)[];
  private readonly words: number;
  /** Words that the widest variable takes. */
  private readonly widest: number;
  private readonly scratch: Ranges;
  // The conditions of section e are those from start[e] to start[e + 1]: each some words, and what it allows of each.
  private readonly start: Int32Array;
  private readonly word: Int32Array;
  private readonly count: Int32Array;
  private readonly allowedAt: Int32Array;
  private readonly allowed: Int32Array;
  /**
   * Of a section with at most one condition of one word: that word and what it allows, so that one look tells; −1 of
   * the others. One without conditions has the last word, which is never filled otherwise.
   */
  private readonly onlyWord: Int32Array;
  private readonly onlyAllowed: Int32Array;

  /** `isSymbolic`: of a value, whether it stands for contents that are not known. */
  constructor(
    edges: readonly HearingEdge[],
    private readonly isSymbolic: (value: number) => boolean,
  ) {
    const layouts: Layout[] = [];
    let words = 0;
    for (const [variable, conditions] of conditionsOf(edges)) {
      const classes = variable < 0 ? noClasses : this.classesOf(conditions);
      const layout = {
        variable,
        first: words,
        words: Math.ceil((classes.count + 1) / classesInWord),
        classes: classes.of,
      };
      layouts.push(layout);
      words += layout.words;
    }
    const free = words;
    this.words = words + 1;
    this.scratch = { may: new Int32Array(this.words), must: new Int32Array(this.words) };
    this.widest = Math.max(1, ...layouts.map((layout) => layout.words));
    this.absent = layouts.find((layout) => layout.variable < 0);
    this.layouts = layouts.filter((layout) => layout.variable >= 0);
    const layoutAt: Layout[] = [];
    for (const layout of this.layouts) layoutAt[layout.variable] = layout;
    this.layoutAt = layoutAt;
    this.start = new Int32Array(edges.length + 1);
    for (let i = 0; i < edges.length; i += 1) this.start[i + 1] = this.start[i] + edges[i].when.length;
    const conditions = this.start[edges.length];
    this.word = new Int32Array(conditions);
    this.count = new Int32Array(conditions);
    this.allowedAt = new Int32Array(conditions);
    const allowed: number[] = [];
    for (let edge = 0, i = 0; edge < edges.length; edge += 1)
      for (let k = 0; k < edges[edge].when.length; k += 1, i += 1) {
        const { variable, values } = edges[edge].when[k];
        const layout = (variable < 0 ? this.absent : layoutAt[variable])!;
        this.word[i] = layout.first;
        this.count[i] = layout.words;
        this.allowedAt[i] = allowed.length;
        for (let word = 0; word < layout.words; word += 1) allowed.push(0);
        // A variable that is not there may be anything: its conditions may close and never must.
        if (variable < 0) allowed[this.allowedAt[i]] = 1;
        else
          for (let n = 0; n < values.length; n += 1)
            allowed[this.allowedAt[i] + wordOf(layout.classes[values[n]]!)] |= bitOf(layout.classes[values[n]]!);
      }
    this.allowed = Int32Array.from(allowed);
    this.onlyWord = new Int32Array(edges.length).fill(-1);
    this.onlyAllowed = new Int32Array(edges.length).fill(-1);
    for (let edge = 0; edge < edges.length; edge += 1) {
      const at = this.start[edge];
      const own = this.start[edge + 1] - at;
      if (own === 0) this.onlyWord[edge] = free;
      if (own !== 1 || this.count[at] !== 1) continue;
      this.onlyWord[edge] = this.word[at];
      this.onlyAllowed[edge] = this.allowed[this.allowedAt[at]];
    }
  }

  private readonly known = new Map<string, Classes>();

  /** The very same for variables with the same conditions: most are switches of one kind. */
  private classesOf(conditions: readonly (readonly number[])[]): Classes {
    const key = conditions.join(';');
    let classes = this.known.get(key);
    if (!classes) this.known.set(key, (classes = findClasses(conditions)));
    return classes;
  }

  private blank(): Ranges {
    const packed: Ranges = { may: new Int32Array(this.words), must: new Int32Array(this.words) };
    packed.may[this.words - 1] = -1;
    if (this.absent) this.fill(packed, this.absent);
    return packed;
  }

  ranges(possible: Possible): Ranges {
    const packed = this.blank();
    for (const layout of this.layouts) this.put(packed, layout, possible(layout.variable));
    return packed;
  }

  /** `valueOf`: the one value that a variable has; negative where it may be anything. */
  settled(valueOf: (variable: number) => number): Ranges {
    const packed = this.blank();
    const { layouts } = this;
    for (let i = 0; i < layouts.length; i += 1) {
      const value = valueOf(layouts[i].variable);
      if (value < 0) this.fill(packed, layouts[i]);
      else this.putOne(packed, layouts[i], value);
    }
    return packed;
  }

  /** Ranges to be put elsewhere. */
  copy({ may, must }: Ranges): Ranges {
    return { may: may.slice(), must: must.slice() };
  }

  /** Puts a variable on a range of its own, in place. */
  putOn(packed: Ranges, variable: number, range: Range): void {
    const layout = this.clear(packed, variable);
    if (layout) this.put(packed, layout, range);
  }

  /** Puts a variable on one value, in place. */
  setValue(packed: Ranges, variable: number, value: number): void {
    const layout = this.clear(packed, variable);
    if (layout) this.putOne(packed, layout, value);
  }

  private clear({ may, must }: Ranges, variable: number): Layout | undefined {
    const layout = this.layoutAt[variable];
    if (layout)
      for (let word = layout.first; word < layout.first + layout.words; word += 1) {
        may[word] = 0;
        must[word] = 0;
      }
    return layout;
  }

  /** At each place a variable and its value; those that `isLeftOut` are not laid over. */
  overlay(variables: Int32Array, values: Int32Array, isLeftOut: (variable: number) => boolean): Overlay {
    const { scratch } = this;
    const words = new Int32Array(variables.length * this.widest);
    let count = 0;
    for (let i = 0; i < variables.length; i += 1) {
      const layout = this.layoutAt[variables[i]];
      if (!layout || isLeftOut(variables[i])) continue;
      for (let word = layout.first; word < layout.first + layout.words; word += 1) {
        words[count++] = word;
        scratch.may[word] = 0;
        scratch.must[word] = 0;
      }
      this.putOne(scratch, layout, values[i]);
    }
    const used = words.slice(0, count);
    return { words: used, may: used.map((word) => scratch.may[word]), must: used.map((word) => scratch.must[word]) };
  }

  /** Some variables on one value each, the others as they were. */
  replaced(packed: Ranges, { words, may, must }: Overlay): Ranges {
    const made = this.copy(packed);
    for (let i = 0; i < words.length; i += 1) {
      made.may[words[i]] = may[i];
      made.must[words[i]] = must[i];
    }
    return made;
  }

  /** Puts some variables perhaps on one value more, in place. */
  widen(packed: Ranges, { words, may, must }: Overlay): void {
    for (let i = 0; i < words.length; i += 1) {
      packed.may[words[i]] |= may[i];
      packed.must[words[i]] |= must[i];
    }
  }

  mayClose(edge: number, { may }: Ranges): boolean {
    const only = this.onlyWord[edge];
    if (only >= 0) return (may[only] & this.onlyAllowed[edge]) !== 0;
    const { start, word, count, allowedAt, allowed } = this;
    for (let i = start[edge]; i < start[edge + 1]; i += 1) {
      let some = 0;
      for (let k = 0; k < count[i]; k += 1) some |= may[word[i] + k] & allowed[allowedAt[i] + k];
      if (some === 0) return false;
    }
    return true;
  }

  mustClose(edge: number, { must }: Ranges): boolean {
    const only = this.onlyWord[edge];
    if (only >= 0) return (must[only] & ~this.onlyAllowed[edge]) === 0;
    const { start, word, count, allowedAt, allowed } = this;
    for (let i = start[edge]; i < start[edge + 1]; i += 1)
      for (let k = 0; k < count[i]; k += 1) if ((must[word[i] + k] & ~allowed[allowedAt[i] + k]) !== 0) return false;
    return true;
  }

  private put(packed: Ranges, layout: Layout, range: Range): void {
    if (range === null) this.fill(packed, layout);
    else if (range.length === 0) packed.must[layout.first] |= unknown;
    else for (let i = 0; i < range.length; i += 1) this.putOne(packed, layout, range[i]);
  }

  private putOne(packed: Ranges, layout: Layout, value: number): void {
    const one = (layout.classes[value] ??= this.isSymbolic(value) ? -1 : 0);
    if (one < 0) return this.fill(packed, layout);
    const word = layout.first + wordOf(one);
    packed.may[word] |= bitOf(one);
    packed.must[word] |= bitOf(one);
  }

  private fill({ may, must }: Ranges, layout: Layout): void {
    for (let word = layout.first; word < layout.first + layout.words; word += 1) may[word] = -1;
    must[layout.first] |= unknown;
  }
}

const wordOf = (one: number): number => Math.floor(one / classesInWord);
const bitOf = (one: number): number => 1 << (one % classesInWord);

interface Classes {
  readonly of: (number | undefined)[];
  readonly count: number;
}
const noClasses: Classes = { of: [], count: 0 };

/** By variable what each of its conditions allows. */
function conditionsOf(edges: readonly HearingEdge[]): ReadonlyMap<number, readonly (readonly number[])[]> {
  const lists = new Map<number, (readonly number[])[]>();
  for (const { when } of edges)
    for (const { variable, values } of when) {
      const list = lists.get(variable);
      if (list) list.push(values);
      else lists.set(variable, [values]);
    }
  return lists;
}

/** Values that the same conditions allow are in one class; from 1 on. */
function findClasses(conditions: readonly (readonly number[])[]): Classes {
  const patterns = new Map<number, string>();
  for (const [i, values] of conditions.entries())
    for (const value of values) patterns.set(value, `${patterns.get(value) ?? ''},${i}`);
  const numbers = new Map<string, number>();
  const classes: (number | undefined)[] = [];
  for (const [value, pattern] of patterns) {
    if (!numbers.has(pattern)) numbers.set(pattern, numbers.size + 1);
    classes[value] = numbers.get(pattern);
  }
  return { of: classes, count: numbers.size };
}
