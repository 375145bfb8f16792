/** Fractional indices over the digits and small letters: there is always a string between two. */
const digits = '0123456789abcdefghijklmnopqrstuvwxyz';

/** A key strictly between two (null: before all, after all). Keys never end in 0, so there is room before each. */
export function between(before: string | null, after: string | null): string {
  const low = before ?? '';
  let key = '';
  for (let i = 0; ; i += 1) {
    const from = i < low.length ? digits.indexOf(low[i]) : 0;
    const to = after !== null && after.startsWith(key) && i < after.length ? digits.indexOf(after[i]) : digits.length;
    if (to - from > 1) return key + digits[Math.floor((from + to) / 2)];
    key += digits[from];
  }
}

/** Keys for n entries after a given one. */
export function following(last: string | null, n: number): string[] {
  const keys: string[] = [];
  for (let i = 0; i < n; i += 1) keys.push(between(keys.at(-1) ?? last, null));
  return keys;
}
