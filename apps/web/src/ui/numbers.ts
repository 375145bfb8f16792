/** Numbers as this browser's language writes them. */

/** What stands between whole and broken in the browser's language. */
const decimal = (locale: string | undefined): string =>
  new Intl.NumberFormat(locale).formatToParts(1.5).find((part) => part.type === 'decimal')?.value ?? '.';

/** A number in the browser's language, without grouping, so that it can be typed back. */
export const numberShown = (value: number, locale?: string): string => String(value).replace('.', decimal(locale));

/** A whole number in a range; undefined for anything else. */
export function wholeNumber(typed: string, low: number, high: number): number | undefined {
  if (!/^[-−]?\d{1,9}$/.test(typed.trim())) return undefined;
  const value = Number(typed.trim().replace('−', '-'));
  return value >= low && value <= high ? value : undefined;
}
