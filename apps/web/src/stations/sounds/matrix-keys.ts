import { type ControlValue, domainValues } from '@yunta/core';
import type { Column } from './matrix-columns.ts';

/** What a key asks of the cell that it is pressed in. */
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
  | { readonly kind: 'mark' }
  /** The sound itself moves among its neighbours. */
  | { readonly kind: 'move'; readonly by: -1 | 1 };

export interface PressedKey {
  readonly key: string;
  readonly altKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}

const walks: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const isDigit = (key: string): boolean => /^\d$/.test(key);

/** Whether numbers are typed into a column's cells. */
export const takesNumbers = (column: Column): boolean =>
  column.kind === 'preset' || (column.kind === 'control' && column.control.domain.kind === 'range');

/** What a key does in a cell of a column; `typed`: the number being typed into it, if any. Null: it is not for it. */
export function actionOfKey(pressed: PressedKey, column: Column, typed: string | null): CellAction | null {
  const { key, altKey } = pressed;
  if (pressed.ctrlKey || pressed.metaKey) return null;
  if (typed !== null) return whileTyping(key, typed);
  if (altKey) return key === 'ArrowUp' || key === 'ArrowDown' ? { kind: 'move', by: key === 'ArrowUp' ? -1 : 1 } : null;
  if (Object.hasOwn(walks, key)) return { kind: 'walk', rows: walks[key][0], columns: walks[key][1] };
  if (key === ' ' || key === 'Enter') return { kind: 'turn' };
  if (key === 'Delete' || key === 'Backspace') return { kind: 'clear' };
  if (key.toLowerCase() === 'd') return { kind: 'copy' };
  if (key.toLowerCase() === 'x') return { kind: 'mark' };
  return isDigit(key) && takesNumbers(column) ? { kind: 'type', text: key } : null;
}

/** Every key is the number's then: what it does not know is swallowed. */
function whileTyping(key: string, typed: string): CellAction {
  if (isDigit(key)) return { kind: 'type', text: typed + key };
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
  if (takesNumbers(column) || column.kind === 'preset') return null;
  const values = domainValues(column.control.domain);
  return values[(before === undefined ? 0 : values.indexOf(before) + 1) % values.length];
}

/** A typed number as it is stored: presets by the panel's count. Null where it is none. */
export function numberTyped(column: Column, typed: string): number | null {
  const number = Number(typed) - (column.kind === 'preset' ? column.firstPresetNumber : 0);
  return typed.trim() !== '' && Number.isInteger(number) && number >= 0 ? number : null;
}
