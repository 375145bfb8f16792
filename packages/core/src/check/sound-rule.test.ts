import { describe, expect, test } from '@jest/globals';
import * as commands from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import type { Context } from './define-rule.ts';
import { check, contextOf } from './engine.ts';
import { rules } from './rules/index.ts';
import { defineSoundRule } from './sound-rule.ts';

/** A rule that reports every sound it looks at, and counts its looks. */
function counting(tellsNumbers = false) {
  const looked: string[] = [];
  const rule = defineSoundRule({
    meta: {
      id: 'made/up',
      severity: 'worth-knowing',
      title: 'Looked at',
      why: '',
      remedy: '',
      source: 'made up',
      messages: { seen: '{sound}' },
    },
    tellsNumbers,
    each: ({ sound, byHand }) => {
      looked.push(sound.id);
      return [
        { messageId: 'seen' as const, at: { sound: sound.id }, data: { sound: sound.name, slots: byHand.length } },
      ];
    },
  });
  return { rule, looked };
}
const drawn = fourCable().sound('lead', lead).sound('clean', clean).show;
const edited = (from: Show, { steps }: { readonly steps: Parameters<typeof applySteps>[1] }): Show => {
  const result = applySteps(from, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const show = edited(drawn, commands.layOut(drawn, 'switcher')!);

test('looks at every sound once, and after an edit of one sound only at that', () => {
  const { rule, looked } = counting();
  const before = contextOf(show);
  expect(rule.check(before)).toHaveLength(2);
  expect(looked.sort()).toEqual(['clean', 'lead']);
  const next = edited(show, commands.setSound(show, 'lead', 'name', 'Loud lead'));
  const found = rule.check(contextOf(next, before));
  expect(looked).toEqual(['clean', 'lead', 'lead']);
  expect(found.map((reported) => reported.data['sound']).sort()).toEqual(['Clean', 'Loud lead']);
});
test('looks again where what a slot of the sound does by hand is another, and at all where a panel counts otherwise and the rule tells numbers', () => {
  const { rule, looked } = counting(true);
  const before = contextOf(show);
  rule.check(before);
  const slot = Object.values(show.rig.slots).find((slot) => slot.sound === 'lead')!;
  const byHand = edited(show, commands.setSlotActions(show, slot.id, [{ kind: 'set', control: 'loop-1', value: 1 }]));
  const between = contextOf(byHand, before);
  rule.check(between);
  expect(looked.slice(2)).toEqual(['lead']);
  const relabelled = edited(byHand, commands.setDevice(byHand, 'delay', 'firstPresetNumber', 0));
  rule.check(contextOf(relabelled, between));
  expect(looked.slice(3).sort()).toEqual(['clean', 'lead']);
});
test('a rule that tells no numbers does not look again where a panel counts otherwise', () => {
  const { rule, looked } = counting();
  const before = contextOf(show);
  rule.check(before);
  const relabelled = edited(show, commands.setDevice(show, 'delay', 'firstPresetNumber', 0));
  expect(rule.check(contextOf(relabelled, before))).toHaveLength(2);
  expect(looked).toHaveLength(2);
});

describe.each([
  ['combo', demoShow()],
  ['fly', flyShow()],
])('on the %s rig of the demo', (_, demo) => {
  const findings = (context: Context) => JSON.stringify(check(context, rules));
  /** A copy in which nothing is the same object, so that nothing is remembered. */
  const afresh = (show: Show) => contextOf(JSON.parse(JSON.stringify(show)) as Show);
  test.each(Object.keys(demo.rig.devices))(
    'all rules say of %s told otherwise what they say with nothing remembered',
    (device) => {
      const before = contextOf(demo);
      check(before, rules);
      const counted = edited(
        demo,
        commands.setDevice(demo, device, 'firstPresetNumber', demo.rig.devices[device].firstPresetNumber === 1 ? 0 : 1),
      );
      expect(findings(contextOf(counted, before))).toBe(findings(afresh(counted)));
      const place = Object.keys(demo.rig.places).find((id) => id !== demo.rig.devices[device].place)!;
      const moved = edited(demo, commands.setDevice(demo, device, 'place', place));
      expect(findings(contextOf(moved, before))).toBe(findings(afresh(moved)));
      const renamed = edited(demo, commands.setDevice(demo, device, 'name', `${demo.rig.devices[device].name} two`));
      expect(findings(contextOf(renamed, before))).toBe(findings(afresh(renamed)));
    },
  );
});
