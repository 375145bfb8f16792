import type { Domain } from '../model/anatomy.ts';

/** So many values a control may have one by one; more are a range. */
const mostValues = 200;

/**
 * What a control may be, as one types it: `off, on`; `low, mid, high`; `0 to 127`. Undefined where that is no
 * value, or the same one twice.
 */
export function domainTyped(typed: string): Domain | undefined {
  const range = /^\s*(-?\d{1,5})\s*(?:to|–|\.\.)\s*(-?\d{1,5})\s*$/i.exec(typed);
  if (range) {
    const [min, max] = [Number(range[1]), Number(range[2])];
    return min < max ? { kind: 'range', min, max } : undefined;
  }
  const words = typed
    .split(',')
    .map((word) => word.trim())
    .filter((word) => word !== '');
  if (words.length === 0 || words.length > mostValues || new Set(words).size < words.length) return undefined;
  if (words.some((word) => word.length > 120)) return undefined;
  const said = words.map((word) => word.toLowerCase());
  if (words.length === 2 && said.includes('off') && said.includes('on')) return { kind: 'switch' };
  const numbers = words.every((word) => /^-?\d{1,9}$/.test(word));
  return { kind: 'choice', values: numbers ? words.map(Number) : words };
}
