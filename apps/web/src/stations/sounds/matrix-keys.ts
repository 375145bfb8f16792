import { type ControlValue, domainValues } from '@yunta/core';
import type { Column } from './matrix-columns.ts';

/** What a key asks of the cell that it is pressed in. Home and End walk to the edge, page keys ten rows. */
export type CellAction =
  | { readonly kind: 'walk'; readonly rows: number; readonly columns: number }
  /** A number is being typed into the cell: so far this. */
  | { readonly kind: 'type'; readonly text: string }
  | { readonly kind: 'give-up' }
  /** The typed number is taken, and then one walks on, or leaves by Tab. */
  | { readonly kind: 'take-typed'; readonly rows: number; readonly columns: number; readonly leaves: boolean }
  /** On, off, the next value; a number is then typed. */
  | { readonly kind: 'turn' }
  | { readonly kind: 'clear' }
  | { readonly kind: 'copy' }
  /** A new sound that builds on this one. */
  | { readonly kind: 'build' }
  | { readonly kind: 'mark' }
  /** What is wanted off may be heard all the same, or may not. */
  | { readonly kind: 'tolerate' }
  /** Go to the next sound that begins so. */
  | { readonly kind: 'find'; readonly letter: string }
  /** The sound itself moves among its neighbours. */
  | { readonly kind: 'move'; readonly by: -1 | 1 };

export interface PressedKey {
  readonly key: string;
  readonly altKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
}

const walks: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-10, 0],
  PageDown: [10, 0],
  Home: [0, -1000],
  End: [0, 1000],
};
const isDigit = (key: string): boolean => /^\d$/.test(key);

/** Whether numbers are typed into a column's cells. */
export const takesNumbers = (column: Column): boolean =>
  column.kind === 'preset' || (column.kind === 'control' && column.control.domain.kind === 'range');

/** What a key does in a cell of a column; `typed`: the number being typed into it, if any. Null: it is not for it. */
export function actionOfKey(pressed: PressedKey, column: Column, typed: string | null): CellAction | null {
  const { key, altKey } = pressed;
  if (pressed.ctrlKey || pressed.metaKey) return null;
  if (typed !== null) return whileTyping(key, typed, column);
  if (altKey) return key === 'ArrowUp' || key === 'ArrowDown' ? { kind: 'move', by: key === 'ArrowUp' ? -1 : 1 } : null;
  if (Object.hasOwn(walks, key)) return { kind: 'walk', rows: walks[key][0], columns: walks[key][1] };
  if (key === ' ' || key === 'Enter') return { kind: 'turn' };
  if (key === 'Delete' || key === 'Backspace') return { kind: 'clear' };
  if (pressed.shiftKey && key.toLowerCase() === 'd') return { kind: 'copy' };
  if (pressed.shiftKey && key.toLowerCase() === 'b') return { kind: 'build' };
  if (pressed.shiftKey && key.toLowerCase() === 'x') return { kind: 'mark' };
  if (pressed.shiftKey && key.toLowerCase() === 'h') return column.kind === 'pedal' ? { kind: 'tolerate' } : null;
  if (/^\p{L}$/u.test(key)) return { kind: 'find', letter: key };
  return isDigit(key) && (takesNumbers(column) || column.kind === 'order') ? { kind: 'type', text: key } : null;
}

/** Every key is the number's then: what it does not know is swallowed. */
function whileTyping(key: string, typed: string, column: Column): CellAction {
  if (isDigit(key) || (column.kind === 'order' && key.length === 1)) return { kind: 'type', text: typed + key };
  if (key === 'Backspace') return { kind: 'type', text: typed.slice(0, -1) };
  if (key === 'Escape') return { kind: 'give-up' };
  const [rows, columns] = Object.hasOwn(walks, key) ? walks[key] : [0, 0];
  return key === 'Enter' || key === 'Tab' || rows !== 0 || columns !== 0
    ? { kind: 'take-typed', rows, columns, leaves: key === 'Tab' }
    : { kind: 'type', text: typed };
}

/** The value that a turn of a cell gives it: on and off of a pedal, the next of a few; null where it is typed. */
export function turned(column: Column, before: ControlValue | undefined): ControlValue | null {
  if (column.kind === 'pedal') return before === 'on' ? 'off' : 'on';
  if (takesNumbers(column) || column.kind === 'preset' || column.kind === 'order') return null;
  const values = domainValues(column.control.domain);
  return values[(before === undefined ? 0 : values.indexOf(before) + 1) % values.length];
}

/** A typed number as it is stored: presets by the panel's count. Null where it is none. */
export function numberTyped(column: Column, typed: string): number | null {
  const number = Number(typed) - (column.kind === 'preset' ? column.firstPresetNumber : 0);
  return typed.trim() !== '' && Number.isInteger(number) && number >= 0 ? number : null;
}

/** Why a number cannot be wanted of a column; null where it can. */
export function outOfRange(column: Column, number: number): string | null {
  if (column.kind !== 'control' || column.control.domain.kind !== 'range') return null;
  const { min, max } = column.control.domain;
  return number >= min && number <= max ? null : `${column.name} ${column.note} goes from ${min} to ${max}.`;
}

/** The row after `from`, round to the first, whose name begins with what was typed. Null: there is none. */
export function nextNamed(names: readonly string[], from: number, typed: string): number | null {
  // With more letters typed, the row that one stands on still counts.
  const first = typed.length > 1 ? 0 : 1;
  for (let i = first; i < names.length + first; i += 1) {
    const row = (from + i) % names.length;
    if (names[row].toLowerCase().startsWith(typed.toLowerCase())) return row;
  }
  return null;
}
