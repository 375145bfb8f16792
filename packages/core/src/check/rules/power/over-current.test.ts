import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { lookedUp, powered, quiet, withNeeds, withSupply } from '../../../testing/power-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { check, contextOf } from '../../engine.ts';
import { overCurrent } from './over-current.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(overCurrent, {
      clean: { ...quiet, 'exactly what it gives': withNeeds(powered(), 'drive', { ma: 100 }) },
      faulty: {
        'one output': { show: withNeeds(powered(), 'drive', { ma: 101 }), messages: ['output'] },
        'the whole supply': {
          show: withSupply(powered(), 'supply', { limits: [{ outputs: ['dc-1', 'dc-6', 'dc-7'], ma: 350 }] }),
          messages: ['limit'],
        },
      },
    }),
  ).toEqual([]);
});

test('typical values do not stop the show; what was looked up does', () => {
  const show = withNeeds(powered(), 'drive', { ma: 101 });
  const severityOf = (of: Show) => check(contextOf(of), [overCurrent]).findings.map(({ severity }) => severity);
  expect(severityOf(show)).toEqual(['worth-knowing']);
  expect(severityOf(lookedUp(show))).toEqual(['stops-the-show']);
});
