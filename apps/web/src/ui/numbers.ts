/** Numbers as this browser's language writes them. */

/** What stands between whole and broken in the browser's language. */
const decimal = (locale: string | undefined): string =>
  new Intl.NumberFormat(locale).formatToParts(1.5).find((part) => part.type === 'decimal')?.value ?? '.';

/** A number in the browser's language, without grouping, so that it can be typed back. */
export const numberShown = (value: number, locale?: string): string => String(value).replace('.', decimal(locale));
