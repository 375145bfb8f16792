import { expect, test } from '@jest/globals';
import { demoShow, emptyShow, type Finding, starterById } from '@yunta/core';
import { verdictOf } from './verdict.ts';

test('the worst is said first, and an empty rig is not called good', () => {
  const of = (...severities: Finding['severity'][]) =>
    verdictOf(
      demoShow(),
      severities.map((severity) => ({ severity, ruleId: 'x/y' })),
      [],
    ).words;
  expect(of('stops-the-show', 'fix-before-load-in', 'fix-before-load-in')).toBe(
    'Not tonight: 1 thing stops the show, 2 more to fix before load-in.',
  );
  expect(of('stops-the-show', 'stops-the-show')).toBe('Not tonight: 2 things stop the show.');
  expect(of('fix-before-load-in', 'worth-knowing')).toBe('Not yet: 1 to fix before load-in.');
  expect(of('worth-knowing')).toMatch(/^Yes/);
  expect(verdictOf(emptyShow('a', 'A'), [], []).mark).toBe('none');
  const noSounds = starterById('four-cable').make('a', 'A');
  expect(verdictOf({ ...noSounds, rig: { ...noSounds.rig, sounds: {} } }, [], []).words).toMatch(/sounds/);
});

test('where anything is left unjudged it never says yes, but what to do next', () => {
  const of = (...severities: Finding['severity'][]) =>
    verdictOf(
      demoShow(),
      [
        { severity: 'fix-before-load-in', ruleId: 'show/not-judged' },
        ...severities.map((severity) => ({ severity, ruleId: 'x/y' })),
      ],
      [{ kind: 'no-songs' }, { kind: 'no-parts' }],
    );
  expect(of()).toEqual({
    words:
      'Nothing found stands in the way, but not all is judged: there are no songs yet; enter them on Set (and 1 more).',
    mark: 'none',
  });
  expect(of('fix-before-load-in').words).toMatch(/^Not yet: 1 to fix before load-in, and not all is judged/);
  expect(of('stops-the-show').words).toBe('Not tonight: 1 thing stops the show.');
});
