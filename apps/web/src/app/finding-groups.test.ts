import { expect, test } from '@jest/globals';
import type { ToldFinding } from '../workers/judge-types.ts';
import { groupsOf } from './finding-groups.ts';

const finding = (ruleId: string, severity: string, text: string) =>
  ({ ruleId, severity, title: `About ${ruleId}`, text }) as ToldFinding;

test('what one rule found is one group, in the order found; another severity is another group', () => {
  const groups = groupsOf([
    finding('a', 'stops-the-show', '1'),
    finding('b', 'stops-the-show', '2'),
    finding('a', 'stops-the-show', '3'),
    finding('a', 'worth-knowing', '4'),
  ]);
  expect(groups.map(({ rule, findings }) => [rule, findings.map(({ text }) => text)])).toEqual([
    ['a', ['1', '3']],
    ['b', ['2']],
    ['a', ['4']],
  ]);
  expect(groupsOf([])).toEqual([]);
});
