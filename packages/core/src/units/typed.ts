import { metresInFoot } from './length.ts';

/** `0.3`, `0,3`, `1 250`, `-2`: the number; undefined where it is none. */
export function numberTyped(text: string): number | undefined {
  const plain = text
    .trim()
    .replace(/[\s\u00a0\u202f']/g, '')
    .replace('−', '-');
  if (!/^-?(\d+([.,]\d*)?|[.,]\d+)$/.test(plain)) return undefined;
  return Number(plain.replace(',', '.'));
}

/** `12`, `12–15`, `9 to 18`: the lowest and the highest; undefined where it is no range. */
export function rangeTyped(text: string): readonly [low: number, high: number] | undefined {
  const parts = text.split(/\s*[–—-]\s*|\s+to\s+/);
  if (parts.length > 2) return undefined;
  const [low, high = low] = parts.map((part) => numberTyped(part));
  return low === undefined || high === undefined || low > high ? undefined : [low, high];
}

/** A range as it is typed: one number where both are alike. */
export const rangeText = (low: number, high = low): string => (low === high ? String(low) : `${low}–${high}`);

/** Metres in a foot and in an inch (exact since 1959). */
const metresIn: Readonly<Record<string, number>> = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  ft: metresInFoot,
  "'": metresInFoot,
  '′': metresInFoot,
  in: 0.0254,
  '"': 0.0254,
  '″': 0.0254,
};

/**
 * A length as people type it, a bare number in the unit `bare`: `6`, `6 m`, `0,3`, `30 cm`, `20 ft`, `1' 6"`; in
 * metres, to the millimetre. Null where nothing was typed, undefined where it is no length.
 */
export function lengthTyped(text: string, bare: 'm' | 'ft' = 'm'): number | null | undefined {
  if (text.trim() === '') return null;
  const parts = [
    ...text
      .trim()
      .toLowerCase()
      .matchAll(/([\d.,]+)\s*([a-z'"′″]*)\s*/gy),
  ];
  if (parts.length === 0 || parts.map((part) => part[0]).join('') !== text.trim().toLowerCase()) return undefined;
  let metres = 0;
  for (const [, number, unit] of parts) {
    const value = numberTyped(number);
    const named = unit === '' ? bare : unit;
    const factor = Object.hasOwn(metresIn, named) ? metresIn[named] : undefined;
    if (value === undefined || factor === undefined || (parts.length > 1 && unit === '')) return undefined;
    metres += value * factor;
  }
  return Math.round(metres * 1000) / 1000;
}
