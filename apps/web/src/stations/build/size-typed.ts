import { wholeNumber } from '../../ui/numbers.ts';

/** `600 × 400 × 300`, with x, * or blanks between: three millimetres; undefined where it is no size. */
export function sizeTyped(typed: string): readonly [number, number, number] | undefined {
  const parts = typed
    .replace(/\bmm\b/gi, '')
    .trim()
    .split(/\s*[×x*]\s*|\s+/i);
  const [width, depth, height] = parts.map((part) => wholeNumber(part, 1, 5_000));
  return parts.length === 3 && width !== undefined && depth !== undefined && height !== undefined
    ? [width, depth, height]
    : undefined;
}
