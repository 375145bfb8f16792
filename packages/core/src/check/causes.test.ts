import { expect, test } from '@jest/globals';
import type { Show } from '../model/documents.ts';
import { ordinary, without } from '../testing/rule-rigs.ts';
import { check, contextOf } from './engine.ts';
import { rules } from './rules/index.ts';

const told = (show: Show) =>
  check(contextOf(show), rules).findings.map(({ ruleId, at, follows }) => [
    ruleId,
    at.sound ?? at.device,
    follows ? `${follows.ruleId} ${follows.at.device ?? follows.at.sound}` : null,
  ]);

test('the loudspeaker pulled: one cause, and all that silence brings follows from it', () => {
  const found = told(without(ordinary().show, 'combo.speaker'));
  const roots = found.filter(([, , follows]) => follows === null).map(([rule, where]) => `${rule} ${where}`);
  expect(roots).toEqual(['loudspeakers/no-load combo', 'show/not-judged cabinet']);
  const followers = found.filter(([, , follows]) => follows !== null);
  expect(followers.length).toBeGreaterThanOrEqual(4);
  expect(new Set(followers.map(([, , follows]) => follows))).toEqual(new Set(['loudspeakers/no-load combo']));
});

test('a cable pulled in front of the amp: each silent sound is a cause, and what else is found of it follows', () => {
  const found = told(without(ordinary().show, 'guitar.out'));
  const roots = new Set(found.filter(([, , follows]) => follows === null).map(([rule]) => rule));
  expect(roots.has('routing/no-route')).toBe(true);
  expect(roots.has('routing/dead-end')).toBe(false);
  expect(roots.has('loudspeakers/no-load')).toBe(false);
  for (const [, where, follows] of found.filter(([, , by]) => by !== null))
    expect(follows).toBe(`routing/no-route ${where}`);
});

test('where every sound is heard nothing follows from anything', () => {
  expect(told(ordinary().show)).toEqual([]);
});
