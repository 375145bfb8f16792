import { expect, test } from '@jest/globals';
import { placeAfterMove } from './place-after-move.ts';

test('what was moved stands before the row that it is told by, wherever it came from', () => {
  const ids = ['a', 'b', 'c', 'd'];
  for (const id of ids)
    for (let to = 0; to < ids.length; to += 1) {
      const next = placeAfterMove(ids, id, to);
      const others = ids.filter((other) => other !== id);
      others.splice(next === null ? others.length : others.indexOf(next), 0, id);
      expect(others.indexOf(id)).toBe(to);
    }
});
