import { expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { type Lists, listsOf, placesByKey } from './lists.ts';

const read = ({ start, items }: Lists, count: number): number[][] => Array.from({ length: count }, (_, i) => [...items.subarray(start[i], start[i + 1])]);

test('lists laid out one after the other read as they were, empty ones among them', () => {
  const lists = [[4, 1], [], [7], []];
  expect(read(listsOf(lists), 4)).toEqual(lists);
});

test('the places of each key, in order, whatever the keys', () => {
  const r = new Random(2);
  for (let round = 0; round < 50; round += 1) {
    const count = 1 + r.below(9);
    const keys = Int32Array.from({ length: r.below(30) }, () => r.below(count));
    const places = Array.from({ length: count }, (_, key) => [...keys.keys()].filter((i) => keys[i] === key));
    expect(read(placesByKey(keys, count), count)).toEqual(places);
  }
});
