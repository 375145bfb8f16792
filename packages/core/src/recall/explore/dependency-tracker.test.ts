import { describe, expect, test } from '@jest/globals';
import { DependencyTracker } from './dependency-tracker.ts';

describe('what an answer turns on', () => {
  test('is told with it, each variable once', () => {
    const consulted = new DependencyTracker();
    const { result, dependsOn } = consulted.track(() => {
      consulted.note(3);
      consulted.noteAll([5, 3]);
      return 'right';
    });
    expect([result, dependsOn]).toEqual(['right', [3, 5]]);
  });

  test('an answer turns on all that the answers within it turn on, and not the other way', () => {
    const consulted = new DependencyTracker();
    let within: readonly number[] = [];
    const { dependsOn } = consulted.track(() => {
      consulted.note(1);
      within = consulted.track(() => consulted.note(2)).dependsOn;
      consulted.note(4);
    });
    expect(within).toEqual([2]);
    expect(dependsOn).toEqual([1, 2, 4]);
  });

  test('what was asked in vain counts for whoever asked', () => {
    const consulted = new DependencyTracker();
    const { dependsOn } = consulted.track(() => {
      expect(() =>
        consulted.track(() => {
          consulted.note(7);
          throw new Error('too many states');
        }),
      ).toThrow('too many states');
    });
    expect(dependsOn).toEqual([7]);
  });

  test('one answer says nothing of the next, nor what nobody listens to', () => {
    const consulted = new DependencyTracker();
    consulted.track(() => consulted.note(1));
    consulted.note(9);
    expect(consulted.track(() => consulted.note(2)).dependsOn).toEqual([2]);
  });
});
