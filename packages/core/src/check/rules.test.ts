import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { demoShow } from '../demo/demo.ts';
import { ordinary, wanting, without } from '../testing/rule-rigs.ts';
import { defineRule } from './define-rule.ts';
import { check, contextOf } from './engine.ts';
import { formatFinding } from './format-finding.ts';
import { rulesPage } from './rules-page.ts';
import { rules } from './rules/index.ts';

describe('rules', () => {
  test('the list holds every rule of the folder, sorted, each under its own path, each with its cases beside it', () => {
    const folder = new URL('./rules', import.meta.url);
    const files = readdirSync(folder, { recursive: true })
      .map(String)
      .filter((name) => name.includes('/') && name.endsWith('.ts'));
    const [tests, sources] = [true, false].map((isTest) =>
      files
        .filter((name) => name.endsWith('.test.ts') === isTest)
        .map((name) => name.replace(/(\.test)?\.ts$/, ''))
        .sort(),
    );
    expect(rules.map((rule) => rule.meta.id)).toEqual(sources);
    expect(tests).toEqual(sources);
  });

  test.each(rules.map((rule) => [rule.meta.id, rule] as const))(
    '%s says what, why, what to do and whence',
    (_, { meta }) => {
      for (const text of [meta.title, meta.why, meta.remedy, meta.source, ...Object.values(meta.messages)])
        expect(text).toMatch(/^\S.{8,}/);
      expect(meta.remedy).toMatch(/\.$/);
    },
  );

  test('the page of rules in the documentation is what the rules say (node scripts/rules-page.mjs)', () => {
    expect(readFileSync(new URL('../../../../docs/rules.md', import.meta.url), 'utf8')).toBe(rulesPage(rules));
  });

  test('a rule that throws is named and never stops the rest', () => {
    const broken = defineRule({
      meta: { ...rules[0].meta, id: 'x/broken' },
      check: () => {
        throw new Error('oh');
      },
    });
    const { findings, broken: told } = check(contextOf(wanting('lead', 'delay/preset', 128)), [broken, ...rules]);
    expect(told).toEqual([{ ruleId: 'x/broken', reason: 'oh' }]);
    expect(findings.some((finding) => finding.ruleId === 'midi/program-out-of-range')).toBe(true);
  });

  test('an unknown message, or a fact that is missing, is a bug and says so', () => {
    const [rule] = rules;
    const finding = {
      ruleId: rule.meta.id,
      messageId: Object.keys(rule.meta.messages)[0],
      severity: rule.meta.severity,
      at: {},
      data: {},
    };
    expect(() => formatFinding(finding, rules)).toThrow(/nothing for/);
    expect(() => formatFinding({ ...finding, messageId: 'nonsense' }, rules)).toThrow(/no message/);
  });

  test('a waived finding is told apart with its reason, and only where it was waived', () => {
    const show = without(ordinary().show, 'combo.send');
    const waived = {
      ...show,
      rig: {
        ...show.rig,
        waivers: {
          w: { id: 'w', rule: 'routing/dead-end', at: { sound: 'lead', device: 'combo' }, reason: 'mended on Friday' },
        },
      },
    };
    const { findings, waived: told } = check(contextOf(waived), rules);
    expect(told.map(({ finding, waiver }) => [finding.at.sound, waiver.reason])).toEqual([
      ['lead', 'mended on Friday'],
    ]);
    expect(
      findings.filter((finding) => finding.ruleId === 'routing/dead-end').map((finding) => finding.at.sound),
    ).toEqual(['clean']);
  });

  test('the demo says a handful of things and no more', () => {
    const { findings, broken } = check(contextOf(demoShow()), rules);
    expect(broken).toEqual([]);
    const count = (severity: string) => findings.filter((finding) => finding.severity === severity).length;
    expect([count('stops-the-show'), count('fix-before-load-in'), count('worth-knowing')]).toEqual([2, 7, 2]);
  });

  test('an amp channel, a mute or a level left over stops the show; the rest is to be fixed before load-in', () => {
    const { findings } = check(contextOf(demoShow()), rules);
    const left = findings.filter((finding) => finding.ruleId === 'recall/left-over');
    expect(left.map((finding) => [finding.data.what, finding.severity]).sort()).toEqual([
      ['Combo channel', 'stops-the-show'],
      ['Echo preset', 'fix-before-load-in'],
      ['Hall preset', 'fix-before-load-in'],
    ]);
  });
});
