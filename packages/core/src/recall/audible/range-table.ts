import type { ValueId, VariableId } from '../state/ids.ts';
import type { SoundEdge } from './sound-comparison.ts';

/** Values that a variable may have; null where it may have any. */
export type Range = readonly number[] | null;
export type Possible = (variable: VariableId) => Range;

/** What each variable that opens or closes sections may be, by its place in the table. */
export type Ranges = Range[];

/** Some of them, to be target over others. */
export interface Overlay {
  readonly places: readonly number[];
  readonly ranges: readonly Range[];
}

/** One condition of a section: a place of the table, and the values that open the section. */
interface Condition {
  readonly place: number;
  readonly values: readonly ValueId[];
}

const never: readonly number[] = [];
const anything = null;

/** Keeps ranges of variables, and says of each section whether it may close and whether it must. */
export class RangeTable {
  /** The variable at each place. One that is not there (−1) may be anything. */
  private readonly variables: readonly VariableId[];
  private readonly placeOf = new Map<number, number>();
  private readonly conditions: readonly (readonly Condition[])[];
  /** The range of each value alone: the very same each time. */
  private readonly ofValue: Range[] = [];

  /** `isSymbolic`: of a value, whether it stands for contents that are not known. It may be anything. */
  constructor(
    edges: readonly SoundEdge[],
    private readonly isSymbolic: (value: ValueId) => boolean,
  ) {
    this.conditions = edges.map(({ when }) =>
      when.length === 0 ? noConditions : when.map(({ variable, values }) => ({ place: this.place(variable), values })),
    );
    this.variables = [...this.placeOf.keys()];
  }

  private place(variable: VariableId): number {
    let place = this.placeOf.get(variable);
    if (place === undefined) this.placeOf.set(variable, (place = this.placeOf.size));
    return place;
  }

  private single(value: ValueId): Range {
    return (this.ofValue[value] ??= this.isSymbolic(value) ? anything : [value]);
  }

  private known(range: Range): Range {
    return range === null || range.some(this.isSymbolic) ? anything : range;
  }

  ranges(possible: Possible): Ranges {
    return this.variables.map((variable) => (variable < 0 ? anything : this.known(possible(variable))));
  }

  /** `valueOf`: the one value that a variable has; negative where it may be anything. */
  settled(valueOf: (variable: VariableId) => number): Ranges {
    return this.variables.map((variable) => {
      const value = variable < 0 ? -1 : valueOf(variable);
      return value < 0 ? anything : this.single(value);
    });
  }

  /** Puts a variable on a range of its own, in place. */
  putOn(ranges: Ranges, variable: VariableId, range: Range): void {
    const place = this.placeOf.get(variable);
    if (place !== undefined) ranges[place] = this.known(range);
  }

  /** Puts a variable on one value, in place. */
  setValue(ranges: Ranges, variable: VariableId, value: ValueId): void {
    const place = this.placeOf.get(variable);
    if (place !== undefined) ranges[place] = this.single(value);
  }

  /** At each place a variable and its value; those that `isLeftOut` are not target over. */
  overlay(variables: Int32Array, values: Int32Array, isLeftOut: (variable: VariableId) => boolean): Overlay {
    const places: number[] = [];
    const ranges: Range[] = [];
    for (let i = 0; i < variables.length; i += 1) {
      const place = this.placeOf.get(variables[i]);
      if (place === undefined || isLeftOut(variables[i])) continue;
      places.push(place);
      ranges.push(this.single(values[i]));
    }
    return { places, ranges };
  }

  /** Some variables on one value each, the others as they were. */
  replaced(ranges: Ranges, overlay: Overlay): Ranges {
    const made = ranges.slice();
    for (let i = 0; i < overlay.places.length; i += 1) made[overlay.places[i]] = overlay.ranges[i];
    return made;
  }

  /** Puts some variables perhaps on one value more, in place. */
  widen(ranges: Ranges, overlay: Overlay): void {
    for (let i = 0; i < overlay.places.length; i += 1) {
      const place = overlay.places[i];
      ranges[place] = union(ranges[place], overlay.ranges[i]);
    }
  }

  mayClose(edge: number, ranges: Ranges): boolean {
    const conditions = this.conditions[edge];
    for (let i = 0; i < conditions.length; i += 1) {
      const range = ranges[conditions[i].place];
      if (range !== null && !overlaps(range, conditions[i].values)) return false;
    }
    return true;
  }

  mustClose(edge: number, ranges: Ranges): boolean {
    const conditions = this.conditions[edge];
    for (let i = 0; i < conditions.length; i += 1) {
      const range = ranges[conditions[i].place] ?? never;
      if (range.length === 0 || !isWithin(range, conditions[i].values)) return false;
    }
    return true;
  }
}

const noConditions: readonly Condition[] = [];

function overlaps(range: readonly number[], values: readonly ValueId[]): boolean {
  for (let i = 0; i < range.length; i += 1) if (values.includes(range[i])) return true;
  return false;
}

function isWithin(range: readonly number[], values: readonly ValueId[]): boolean {
  for (let i = 0; i < range.length; i += 1) if (!values.includes(range[i])) return false;
  return true;
}

function union(range: Range, more: Range): Range {
  if (range === null || more === null) return anything;
  return isWithin(more, range) ? range : [...range, ...more];
}
