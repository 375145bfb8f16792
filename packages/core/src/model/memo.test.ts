import { expect, test } from '@jest/globals';
import { Memo, memoised } from './memo.ts';

interface Thing {
  readonly notes: Memo;
  readonly size: number;
}
const thing = (size: number, notes = new Memo()): Thing => ({ notes, size });
const keeper = ({ notes }: Thing): Memo => notes;

test('an answer is found once, and is the very same for all that share their notes', () => {
  let asked = 0;
  const list = memoised(keeper, ({ size }) => {
    asked += 1;
    return Array.from({ length: size }, (_, i) => i);
  });
  const item = thing(3);
  expect(list(item)).toEqual([0, 1, 2]);
  expect(list(item)).toBe(list(thing(3, item.notes)));
  expect(asked).toBe(1);
  expect(list(thing(2))).toEqual([0, 1]);
  expect(asked).toBe(2);
});
test('different questions about one thing do not answer each other', () => {
  const room = () => new Map<string, number>();
  const first = memoised(keeper, () => room());
  const second = memoised(keeper, () => room());
  const item = thing(0);
  first(item).set('a', 1);
  expect(second(item).size).toBe(0);
  expect(first(item).get('a')).toBe(1);
});
test('where no answer comes, the next one who asks asks again', () => {
  let asked = 0;
  const failing = memoised(keeper, (): object => {
    asked += 1;
    if (asked === 1) throw new Error('not yet');
    return {};
  });
  const item = thing(0);
  expect(() => failing(item)).toThrow('not yet');
  expect(failing(item)).toEqual({});
  expect(asked).toBe(2);
});
