import type { DeviceIntent, Line, LinePiece } from '@yunta/core';
import type { Choice } from '../../../ui/choices.ts';

/** What a piece may be wanted: anywhere, at a kind of place, in a loop of a number. */
export function placeChoices({ loops, insertAfter, wet }: Line, { ampReturn }: LinePiece): readonly Choice[] {
  const numbered = loops.map((_, i) => ({ value: `${i + 1}`, label: `in loop ${i + 1}` }));
  const insert = insertAfter === null ? [] : [{ value: 'insert', label: 'in the insert' }];
  if (ampReturn !== null)
    return [
      ...insert,
      { value: 'loop', label: 'in a loop' },
      ...numbered,
      { value: 'after', label: 'behind the loops, its own loop in line' },
      { value: 'kept', label: 'the end of the line' },
    ];
  return [
    { value: 'anywhere', label: 'wherever it is best' },
    { value: 'front', label: 'in front' },
    { value: 'loop', label: 'in a loop' },
    ...numbered,
    ...insert,
    { value: 'after', label: 'after the loops' },
    ...(wet ? [{ value: 'wet', label: 'on the wet side' }] : []),
    { value: 'left out', label: 'left at home' },
    { value: 'kept', label: 'as it is wired' },
  ];
}

export const placeValue = ({ place }: LinePiece): string => String(place);

export const placeTyped = (picked: string): DeviceIntent['place'] =>
  picked === 'anywhere' ? undefined : /^\d+$/.test(picked) ? Number(picked) : (picked as DeviceIntent['place']);

export const todayWords = (now: LinePiece['now']): string =>
  typeof now === 'object'
    ? `loop ${now.loop}`
    : { front: 'in front', insert: 'insert', after: 'after the loops', wet: 'wet side', unwired: 'not plugged in' }[
        now
      ];
