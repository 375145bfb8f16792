import { expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { append, buildCsr, type Csr, identity, listsOf, transpose } from './csr.ts';

const read = ({ start, items }: Csr, count: number): number[][] =>
  Array.from({ length: count }, (_, i) => [...items.subarray(start[i], start[i + 1])]);

test('lists laid out one after the other read as they were, empty ones among them', () => {
  const lists = [[4, 1], [], [7], []];
  expect(read(listsOf(lists), 4)).toEqual(lists);
});

test('transpose, each number has the lists that it stands in, in order', () => {
  const r = new Random(2);
  for (let round = 0; round < 50; round += 1) {
    const count = 1 + r.below(9);
    const lists = Array.from({ length: r.below(8) }, () =>
      Array.from({ length: count }, (_, number) => number).filter(() => r.chance(0.4)),
    );
    const standsIn = Array.from({ length: count }, (_, number) =>
      [...lists.keys()].filter((i) => lists[i].includes(number)),
    );
    expect(read(transpose(listsOf(lists), count), count)).toEqual(standsIn);
    const keys = Int32Array.from({ length: r.below(30) }, () => r.below(count));
    expect(read(transpose(identity(keys), count), count)).toEqual(
      Array.from({ length: count }, (_, key) => [...keys.keys()].filter((i) => keys[i] === key)),
    );
  }
});

test('buildCsr, each number has its items in the order given', () => {
  const r = new Random(3);
  for (let round = 0; round < 50; round += 1) {
    const count = 1 + r.below(9);
    const given = Array.from({ length: r.below(30) }, () => [r.below(count), r.below(100)] as const);
    const lists = buildCsr(count, (give) => given.forEach(([number, item]) => give(number, item)));
    expect(read(lists, count)).toEqual(
      Array.from({ length: count }, (_, number) => given.filter(([of]) => of === number).map(([, item]) => item)),
    );
  }
});

test('a list with one more leaves the list as it was', () => {
  let list: readonly number[] = [];
  for (let i = 0; i < 5; i += 1) {
    const longer = append(list, i);
    expect(list).toHaveLength(i);
    expect(longer).toEqual([...list, i]);
    list = longer;
  }
});
