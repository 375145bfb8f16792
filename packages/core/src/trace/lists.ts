/** A list of numbers for each of some things, one after the other: that of thing n is from start[n] to start[n + 1]. */
export interface Lists {
  readonly start: Int32Array;
  readonly items: Int32Array;
}

export function listsOf(lists: readonly (readonly number[])[]): Lists {
  const start = new Int32Array(lists.length + 1);
  for (let i = 0; i < lists.length; i += 1) start[i + 1] = start[i] + lists[i].length;
  const items = new Int32Array(start[lists.length]);
  for (let i = 0; i < lists.length; i += 1) items.set(lists[i], start[i]);
  return { start, items };
}

/** For each of `count` keys the places at which it stands, in order. */
export function placesByKey(keys: Int32Array, count: number): Lists {
  const start = new Int32Array(count + 2);
  for (let i = 0; i < keys.length; i += 1) start[keys[i] + 2] += 1;
  for (let key = 0; key < count; key += 1) start[key + 2] += start[key + 1];
  const items = new Int32Array(keys.length);
  for (let i = 0; i < keys.length; i += 1) items[start[keys[i] + 1]++] = i;
  return { start, items };
}
