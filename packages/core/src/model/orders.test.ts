import { describe, expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import type { StoredOrder } from './anatomy.ts';
import { isOrder, listedOrder, orderTyped, orderWords, placesIn, type ValueOf } from './orders.ts';

const loops = (count: number): StoredOrder => ({
  id: 'order',
  label: 'Order',
  of: Array.from({ length: count }, (_, i) => ({ control: `place-${i + 1}`, name: String(i + 1) })),
});
const names = ['Wah', 'Amp model', 'Cabinet', 'Delay'];
const blocks: StoredOrder = {
  id: 'order',
  label: 'Order',
  of: names.map((name) => ({ control: name, name })),
  branch: { sides: names.map((name) => `${name} side`), leaves: 'leaves', joins: 'joins' },
};
const placesTyped = (order: StoredOrder, typed: string) => {
  const values = orderTyped(order, typed);
  return typeof values === 'string' ? values : placesIn(order, (control) => values.get(control));
};
const valuesOf =
  (values: ReturnType<typeof orderTyped>): ValueOf =>
  (control) =>
    typeof values === 'string' ? undefined : values.get(control);

describe('an order as it is typed', () => {
  test('numbers, with or without anything between them, up to nine', () => {
    expect(placesTyped(loops(4), '1 3 2 4')).toEqual([1, 3, 2, 4]);
    expect(placesTyped(loops(4), '4123')).toEqual([2, 3, 4, 1]);
    expect(placesTyped(loops(10), '10, 1 2 3 4 5 6 7 8 9')).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 10, 1]);
  });

  test('what is not named follows as listed', () => {
    expect(placesTyped(loops(4), '3')).toEqual([2, 3, 1, 4]);
    expect(placesTyped(blocks, 'delay > wah')).toEqual([2, 3, 4, 1]);
    expect(placesTyped(loops(3), '')).toEqual([1, 2, 3]);
  });

  test('a branch: who stands on which side, where it leaves and where it comes back', () => {
    const values = orderTyped(blocks, 'wah > [amp model | cabinet] > delay') as ReadonlyMap<string, unknown>;
    expect(values.get('Amp model side')).toBe('line');
    expect(values.get('Cabinet side')).toBe('beside');
    expect([values.get('leaves'), values.get('joins')]).toEqual([2, 3]);
  });

  test('what stands twice or is not there is refused with the reason', () => {
    expect(orderTyped(loops(4), '1 2 2 4')).toBe('2 stands twice: each has one place.');
    expect(orderTyped(loops(4), '1 2 3 7')).toBe('“7” is none of 1, 2, 3, 4.');
    expect(orderTyped(loops(4), '[1 | 2]')).toBe('Here the line does not part.');
    expect(orderTyped(blocks, 'Wah > [Delay')).toBe('Write one branch as [ahead | beside].');
    expect(orderTyped(blocks, 'Wah > [ | ] > Delay')).toBe('A branch needs something in it.');
  });

  test('what it says is read as what it was, whatever the order and the branch', () => {
    const random = new Random(7);
    for (let round = 0; round < 300; round += 1) {
      const order = round % 3 === 0 ? blocks : loops(1 + random.below(14));
      const listed = shuffled(
        order.of.map(({ name }) => name),
        random,
      );
      const cut = [random.below(3), 3].map((place) => place % listed.length);
      const typed =
        order === blocks && random.chance(0.6)
          ? `${listed.slice(0, cut[0]).join(' > ')} [${listed[cut[0]]} | ${listed.slice(cut[0] + 1, 3).join(' > ')}] > ${listed.slice(3).join('>')}`
          : listed.join(order === blocks ? ' > ' : ' ');
      const values = orderTyped(order, typed);
      expect(typeof values).not.toBe('string');
      expect(isOrder(placesIn(order, valuesOf(values))!)).toBe(true);
      expect(orderTyped(order, orderWords(order, valuesOf(values))!)).toEqual(values);
    }
  });
});

const shuffled = <T>(list: readonly T[], random: Random): readonly T[] => {
  const left = [...list];
  for (let i = left.length - 1; i > 0; i -= 1) {
    const k = random.below(i + 1);
    [left[i], left[k]] = [left[k], left[i]];
  }
  return left;
};

test('two at one place are no order, and are told so', () => {
  expect(isOrder([1, 1, 3])).toBe(false);
  expect(isOrder([1, 2, 4])).toBe(false);
  expect(orderWords(loops(3), (control) => (control === 'place-3' ? 3 : 1))).toBe('1+2 3');
});

test('what says nothing of its place stands where the list has it; where none does there is no order', () => {
  expect(placesIn(loops(3), (control) => (control === 'place-1' ? 2 : null))).toEqual([2, 2, 3]);
  expect(orderWords(loops(3), () => undefined)).toBeUndefined();
  expect(orderWords(blocks, valuesOf(listedOrder(blocks)))).toBe('Wah > …');
});
