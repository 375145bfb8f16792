/** A list of numbers for each of some things, one after the other: that of thing n is from start[n] to start[n + 1]. */
export interface Csr {
  readonly start: Int32Array;
  readonly items: Int32Array;
}

export function listsOf(lists: readonly ArrayLike<number>[]): Csr {
  const start = new Int32Array(lists.length + 1);
  for (let i = 0; i < lists.length; i += 1) start[i + 1] = start[i] + lists[i].length;
  const items = new Int32Array(start[lists.length]);
  for (let i = 0; i < lists.length; i += 1) items.set(lists[i], start[i]);
  return { start, items };
}

/** Rows of a single number. */
export function identity(items: Int32Array): Csr {
  const start = new Int32Array(items.length + 1);
  for (let i = 0; i < start.length; i += 1) start[i] = i;
  return { start, items };
}

/** For each number below `count` the lists that it stands in, in order. */
export function transpose({ start, items }: Csr, count: number): Csr {
  const first = new Int32Array(count + 2);
  for (let i = 0; i < items.length; i += 1) first[items[i] + 2] += 1;
  for (let number = 0; number < count; number += 1) first[number + 2] += first[number + 1];
  const lists = new Int32Array(items.length);
  for (let list = 0; list + 1 < start.length; list += 1)
    for (let i = start[list]; i < start[list + 1]; i += 1) lists[first[items[i] + 1]++] = list;
  return { start: first, items: lists };
}

/**
 * For each number below `count` the items that `visit` gives it, in the order given. `visit` is called twice, and gives
 * the same each time.
 */
export function buildCsr(count: number, visit: (give: (number: number, item: number) => void) => void): Csr {
  const start = new Int32Array(count + 2);
  visit((number) => (start[number + 2] += 1));
  for (let number = 0; number < count; number += 1) start[number + 2] += start[number + 1];
  const items = new Int32Array(start[count + 1]);
  visit((number, item) => (items[start[number + 1]++] = item));
  return { start, items };
}

/**
 * A list with an item more. It takes no more room than it needs: a list made by spreading has room for sixteen more,
 * and of these there are thousands.
 */
export function append<T>(list: readonly T[], item: T): readonly T[] {
  const { length } = list;
  if (length === 0) return [item];
  const longer = new Array<T>(length + 1);
  for (let i = 0; i < length; i += 1) longer[i] = list[i];
  longer[length] = item;
  return longer;
}
