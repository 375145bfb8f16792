import { describe, expect, test } from '@jest/globals';
import { Consulted } from './consulted.ts';

describe('what an answer turns on', () => {
  test('is told with it, each variable once', () => {
    const consulted = new Consulted();
    const { result, turnsOn } = consulted.during(() => {
      consulted.note(3);
      consulted.noteAll([5, 3]);
      return 'right';
    });
    expect([result, turnsOn]).toEqual(['right', [3, 5]]);
  });

  test('an answer turns on all that the answers within it turn on, and not the other way', () => {
    const consulted = new Consulted();
    let within: readonly number[] = [];
    const { turnsOn } = consulted.during(() => {
      consulted.note(1);
      within = consulted.during(() => consulted.note(2)).turnsOn;
      consulted.note(4);
    });
    expect(within).toEqual([2]);
    expect(turnsOn).toEqual([1, 2, 4]);
  });

  test('what was asked in vain counts for whoever asked', () => {
    const consulted = new Consulted();
    const { turnsOn } = consulted.during(() => {
      expect(() =>
        consulted.during(() => {
          consulted.note(7);
          throw new Error('too many states');
        }),
      ).toThrow('too many states');
    });
    expect(turnsOn).toEqual([7]);
  });

  test('one answer says nothing of the next, nor what nobody listens to', () => {
    const consulted = new Consulted();
    consulted.during(() => consulted.note(1));
    consulted.note(9);
    expect(consulted.during(() => consulted.note(2)).turnsOn).toEqual([2]);
  });
});
