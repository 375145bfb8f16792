import { expect, test } from '@jest/globals';
import { rules } from '@yunta/core';
import { stations } from '../../ui/stations.ts';
import { byStation } from './by-station.ts';

test('every rule is mended at exactly one station', () => {
  for (const rule of rules)
    expect([rule.meta.id, stations.filter((station) => station.holds(rule.meta.id)).length]).toEqual([rule.meta.id, 1]);
});

test('findings are counted where they are mended, each title once', () => {
  const finding = (ruleId: string, severity: 'fix-before-load-in' | 'worth-knowing') => ({
    ruleId,
    severity,
    title: ruleId,
  });
  expect(
    byStation([
      finding('show/unused-sound', 'worth-knowing'),
      finding('show/unused-sound', 'worth-knowing'),
      finding('midi/counts-otherwise', 'fix-before-load-in'),
    ]).map(({ station, fixes, knows, titles }) => [station.to, fixes, knows, titles]),
  ).toEqual([
    ['sounds', 1, 0, ['midi/counts-otherwise']],
    ['set', 0, 2, ['show/unused-sound']],
  ]);
});
