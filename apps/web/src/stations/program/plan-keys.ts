import type { Slot } from '@yunta/core';

/** A switch in one of a controller's banks. */
export type Place = Pick<Slot, 'bank' | 'position'>;

/** The shape of the plan: its banks, and the switches of each in rows, the first row nearest the player. */
export interface PlanShape {
  readonly banks: number;
  readonly positions: number;
  readonly perRow: number;
}

/** What a key asks of the plan. */
export type PlanAction =
  | { readonly kind: 'walk'; readonly to: Place }
  /** Pick up what lies here, or put down what is carried. */
  | { readonly kind: 'carry' }
  | { readonly kind: 'select' }
  | { readonly kind: 'clear' }
  | { readonly kind: 'give-up' }
  /** Go to the next sound that begins so. */
  | { readonly kind: 'find'; readonly letter: string };

/** The rows of a bank as they are drawn: the farthest from the player first. */
export function floorRows({
  positions,
  perRow,
}: Pick<PlanShape, 'positions' | 'perRow'>): readonly (readonly number[])[] {
  const rows = Math.ceil(positions / perRow);
  return Array.from({ length: rows }, (_, i) => {
    const first = (rows - 1 - i) * perRow;
    return Array.from({ length: Math.min(perRow, positions - first) }, (_, k) => first + k);
  });
}

/** One step up or down the drawn rows, into the next bank where the bank ends. */
function rowStep(shape: PlanShape, at: Place, by: 1 | -1): Place {
  const rows = floorRows(shape);
  const row = rows.findIndex((positions) => positions.includes(at.position));
  const column = rows[row].indexOf(at.position);
  const bank = row + by < 0 ? at.bank - 1 : row + by >= rows.length ? at.bank + 1 : at.bank;
  if (bank < 0 || bank >= shape.banks) return at;
  const next = rows[(row + by + rows.length) % rows.length];
  return { bank, position: next[Math.min(column, next.length - 1)] };
}

/** What a key does on a switch of the plan; null where it is none of the plan's. */
export function actionOfPlanKey(
  { key, ctrlKey, metaKey, altKey }: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>,
  shape: PlanShape,
  at: Place,
): PlanAction | null {
  if (ctrlKey || metaKey || altKey) return null;
  const walk = (to: Place): PlanAction => ({ kind: 'walk', to });
  const inOrder = (by: 1 | -1): Place => {
    const next = at.bank * shape.positions + at.position + by;
    if (next < 0 || next >= shape.banks * shape.positions) return at;
    return { bank: Math.floor(next / shape.positions), position: next % shape.positions };
  };
  switch (key) {
    case 'ArrowRight':
      return walk(inOrder(1));
    case 'ArrowLeft':
      return walk(inOrder(-1));
    case 'ArrowDown':
      return walk(rowStep(shape, at, 1));
    case 'ArrowUp':
      return walk(rowStep(shape, at, -1));
    case 'PageDown':
      return walk({ bank: Math.min(shape.banks - 1, at.bank + 1), position: at.position });
    case 'PageUp':
      return walk({ bank: Math.max(0, at.bank - 1), position: at.position });
    case 'Home':
      return walk({ bank: at.bank, position: 0 });
    case 'End':
      return walk({ bank: at.bank, position: shape.positions - 1 });
    case ' ':
      return { kind: 'carry' };
    case 'Enter':
      return { kind: 'select' };
    case 'Delete':
    case 'Backspace':
      return { kind: 'clear' };
    case 'Escape':
      return { kind: 'give-up' };
    default:
      return /^[\p{L}\p{N}]$/u.test(key) ? { kind: 'find', letter: key } : null;
  }
}

/** The next place after `from`, round to the first, whose sound begins with what was typed. */
export function findTyped(
  named: readonly (Place & { readonly name: string })[],
  from: Place,
  typed: string,
): Place | null {
  const order = (place: Place): number => place.bank * 1000 + place.position;
  const begin = named
    .filter(({ name }) => name.toLowerCase().startsWith(typed.toLowerCase()))
    .sort((a, b) => order(a) - order(b));
  const isHere = (place: Place): boolean => order(place) === order(from);
  // With more letters typed, the one that one stands on still counts.
  const after = begin.find((place) => order(place) > order(from) || (typed.length > 1 && isHere(place)));
  return after ?? begin[0] ?? null;
}
