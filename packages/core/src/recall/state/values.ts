import type { ControlValue } from '../../model/anatomy.ts';
import type { ValueId } from './ids.ts';

/** The stored content of a preset that nobody entered: one of a control's values, always the same one. */
export interface ContentSymbol {
  readonly id: number;
  readonly device: string;
  readonly preset: number;
  readonly control: string;
  /** Value ids that it may be. */
  readonly options: readonly ValueId[];
}

/** Contents assumed for the length of one exploration: symbol id → index into its options. */
export type Pins = ReadonlyMap<number, number>;

/** Thrown where a transition depends on unknown content: the exploration is split over that symbol. */
export class NeedPin extends Error {
  constructor(readonly symbol: ContentSymbol) {
    super(`content of ${symbol.device} preset ${symbol.preset}, ${symbol.control} is unknown`);
  }
}

interface Symbolic {
  readonly symbol: ContentSymbol;
  /** What it became, for each content it may have. */
  readonly map: readonly number[];
}

/**
 * Values as small integers, so that states are rows of numbers. A value is a controlValue, or a function of one
 * unknown content (the content itself, or what toggles and steps have made of it).
 */
export class Values {
  private readonly controlValues: (ControlValue | undefined)[] = [];
  private readonly symbolic: (Symbolic | undefined)[] = [];
  private readonly byNumber = new Map<number, number>();
  private readonly byWord = new Map<string, number>();
  private readonly bySymbolic = new Map<string, number>();
  private readonly symbols: ContentSymbol[] = [];
  private readonly bySymbol = new Map<string, ContentSymbol>();

  /** The ids of small whole numbers, plus 1; 0 where there is none yet. */
  private readonly small = new Int32Array(1024);

  id(controlValue: ControlValue): ValueId {
    const isSmall =
      typeof controlValue === 'number' && controlValue >= 0 && controlValue < 1024 && Number.isInteger(controlValue);
    if (isSmall && this.small[controlValue] > 0) return this.small[controlValue] - 1;
    const id = this.find(controlValue);
    if (isSmall) this.small[controlValue] = id + 1;
    return id;
  }

  private find(controlValue: ControlValue): ValueId {
    const found = typeof controlValue === 'number' ? this.byNumber.get(controlValue) : this.byWord.get(controlValue);
    if (found !== undefined) return found;
    const id = this.controlValues.length;
    this.controlValues.push(controlValue);
    this.symbolic.push(undefined);
    if (typeof controlValue === 'number') this.byNumber.set(controlValue, id);
    else this.byWord.set(controlValue, id);
    return id;
  }

  controlValue(id: ValueId): ControlValue | undefined {
    return this.controlValues[id];
  }

  /** The number that a controlValue is; only for variables that always hold numbers. */
  number(id: ValueId): number {
    return this.controlValues[id] as number;
  }

  isSymbolic(id: ValueId): boolean {
    return this.symbolic[id] !== undefined;
  }

  symbolOf(id: ValueId): ContentSymbol | undefined {
    return this.symbolic[id]?.symbol;
  }

  symbol(id: number): ContentSymbol {
    return this.symbols[id];
  }

  content(device: string, preset: number, control: string, options: readonly ValueId[]): number {
    const key = JSON.stringify([device, preset, control]);
    let symbol = this.bySymbol.get(key);
    if (!symbol) {
      symbol = { id: this.symbols.length, device, preset, control, options };
      this.symbols.push(symbol);
      this.bySymbol.set(key, symbol);
    }
    return this.internSymbolic(symbol, options);
  }

  /** Applies a function to a value, content by content where the value is unknown. */
  apply(id: number, fn: (literalId: number) => number): number {
    const symbolic = this.symbolic[id];
    return symbolic ? this.internSymbolic(symbolic.symbol, symbolic.map.map(fn)) : fn(id);
  }

  /** The controlValue's id under the pins; throws NeedPin where it is still open. */
  decide(id: number, pins: Pins): number {
    const symbolic = this.symbolic[id];
    if (!symbolic) return id;
    const pinned = pins.get(symbolic.symbol.id);
    if (pinned === undefined) throw new NeedPin(symbolic.symbol);
    return symbolic.map[pinned];
  }

  compare(a: number, b: number, pins: Pins): 'same' | 'different' | 'unknown' {
    if (a === b) return 'same';
    const left = this.possible(a, pins);
    const right = this.possible(b, pins);
    const sa = this.symbolic[a];
    const sb = this.symbolic[b];
    if (sa && sb && sa.symbol === sb.symbol && left.length === right.length && left.length > 1) {
      const equal = left.filter((value, i) => value === right[i]).length;
      return equal === left.length ? 'same' : equal === 0 ? 'different' : 'unknown';
    }
    if (left.length === 1 && right.length === 1) return left[0] === right[0] ? 'same' : 'different';
    return left.some((value) => right.includes(value)) ? 'unknown' : 'different';
  }

  private possible(id: number, pins: Pins): readonly number[] {
    const symbolic = this.symbolic[id];
    if (!symbolic) return [id];
    const pinned = pins.get(symbolic.symbol.id);
    return pinned === undefined ? symbolic.map : [symbolic.map[pinned]];
  }

  private internSymbolic(symbol: ContentSymbol, map: readonly number[]): number {
    if (map.length > 0 && map.every((value) => value === map[0])) return map[0];
    const key = `${symbol.id}|${map.join(',')}`;
    const found = this.bySymbolic.get(key);
    if (found !== undefined) return found;
    const id = this.controlValues.length;
    this.controlValues.push(undefined);
    this.symbolic.push({ symbol, map });
    this.bySymbolic.set(key, id);
    return id;
  }
}
