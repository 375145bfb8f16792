import { readdirSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import type { Action, Show } from '../model/documents.ts';
import { clean, fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
import { type RuleCases, ruleFaults } from '../testing/rule-tester.ts';
import { check, contextOf } from './engine.ts';
import { defineRule } from './define-rule.ts';
import { formatFinding } from './format-finding.ts';
import { rules } from './rules/index.ts';

const ordinary = () => fourCable().sound('lead', lead).sound('clean', clean).laid();
const byHand = (show: Show, slot: string, actions: readonly Action[]): Show => ({ ...show, rig: { ...show.rig, slots: { ...show.rig.slots, [slot]: { ...show.rig.slots[slot], actions } } } });
const without = (show: Show, from: string): Show => ({ ...show, rig: { ...show.rig, cables: Object.fromEntries(Object.entries(show.rig.cables).filter(([, cable]) => `${cable.plugs[0].device}.${cable.plugs[0].jack}` !== from)) } });
const wanting = (sound: string, ref: string, value: string | number): Show => {
  const { show } = ordinary();
  const old = show.rig.sounds[sound];
  return { ...show, rig: { ...show.rig, sounds: { ...show.rig.sounds, [sound]: { ...old, wants: { ...old.wants, [ref]: value } } } } };
};
const silent = without(ordinary().show, 'combo.speaker');

const cases: Record<string, RuleCases> = {
  'routing/no-route': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no instrument yet': new ShowBuilder().device('combo', 'valve-combo', 'Combo').sound('a').show,
      'a sound that is declared silent': { ...silent, rig: { ...silent.rig, sounds: Object.fromEntries(Object.entries(silent.rig.sounds).map(([id, sound]) => [id, { ...sound, silence: true }])) } },
    },
    faulty: {
      'the cabinet not plugged in': { show: silent, messages: ['silent', 'silent'] },
      'a mute wanted in a sound that is not silent': { show: new ShowBuilder().device('guitar', 'guitar', 'Guitar').device('tuner', 'tuner', 'Tuner').device('desk', 'desk', 'Desk').cables('Guitar > Tuner', 'Tuner > Desk').sound('a', { wants: { 'tuner/mute': 1 } }).show, messages: ['silent'] },
    },
  },
  'routing/dead-end': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a direct line beside the amp, not used': fourCable().device('boost', 'boost', 'Boost').sound('lead', lead).show,
    },
    faulty: {
      'a loop that is in and has no return cable': { show: without(ordinary().show, 'drive.out'), messages: ['open'] },
      'the preamp sent nowhere': { show: without(ordinary().show, 'combo.send'), messages: ['open', 'open'] },
    },
  },
  'recall/left-over': {
    clean: { 'slots generated from their sounds': ordinary().show },
    faulty: {
      'a slot by hand that forgets the channel': { show: byHand(ordinary().show, 'slot-lead', [{ kind: 'loop', loop: 'loop-1', to: 1 }, { kind: 'loop', loop: 'loop-2', to: 1 }, { kind: 'loop', loop: 'loop-3', to: 1 }, { kind: 'program', channel: 2, program: 5 }, { kind: 'wait', ms: 30 }, { kind: 'control', channel: 2, cc: 102, value: 127 }]), messages: ['left'], fixable: true },
      'a slot by hand that sends nothing': { show: byHand(ordinary().show, 'slot-clean', []), messages: ['left'], fixable: true },
    },
  },
  'recall/unquiet-slot': {
    clean: { 'a rig in which nobody calls anybody': ordinary().show },
    faulty: { 'two controllers that call each other round, in a slot that no part uses': { show: circle(), messages: ['round', 'round'] } },
  },
  'midi/program-out-of-range': {
    clean: { 'the last preset that there is': wanting('lead', 'delay/preset', 127) },
    faulty: { 'one past it': { show: wanting('lead', 'delay/preset', 128), messages: ['missing'] } },
  },
  'midi/shared-channel': {
    clean: {
      'two devices on two channels': twoEffects(3),
      'two devices on one channel, one of them not in the chain': without(twoEffects(2), 'delay.midi-thru'),
    },
    faulty: { 'two devices on one channel': { show: twoEffects(2), messages: ['shared'], fixable: true } },
  },
};

function twoEffects(channel: number): Show {
  return ordinary().device('hall', 'midi-reverb', 'Hall', { channel }).cables('Delay MIDI through > Hall').show;
}

function circle(): Show {
  const { show } = ordinary().device('app', 'foot-controller', 'Player').cables('Delay MIDI through > Player', 'Player MIDI out > Switcher');
  const call = (channel: number): Action => ({ kind: 'program', channel, program: 0 });
  const slot = { sound: null, bank: 5, position: 0 };
  return {
    ...show,
    rig: {
      ...show.rig,
      slots: { ...show.rig.slots, round: { ...slot, id: 'round', controller: 'switcher', actions: [call(15)] }, back: { ...slot, id: 'back', controller: 'app', actions: [call(14)] } },
      devices: {
        ...show.rig.devices,
        switcher: { ...show.rig.devices.switcher, calls: { channel: 14, programs: { '0': 'round' } } },
        app: { ...show.rig.devices.app, calls: { channel: 15, programs: { '0': 'back' } } },
      },
    },
  } satisfies Show;
}

describe('rules', () => {
  test.each(Object.entries(cases))('%s fires where it must and is quiet on the ordinary rig', (id, given) => {
    const rule = rules.find((one) => one.meta.id === id)!;
    expect(ruleFaults(rule, given)).toEqual([]);
  });

  test('the list holds every rule of the folder, sorted, each under its own path, each with cases here', () => {
    const folder = new URL('./rules/', import.meta.url);
    const files = readdirSync(folder, { recursive: true }).map(String).filter((name) => name.includes('/') && name.endsWith('.ts')).map((name) => name.replace(/\.ts$/, '')).sort();
    expect(rules.map((rule) => rule.meta.id)).toEqual(files);
    expect(Object.keys(cases).sort()).toEqual(files);
  });

  test.each(rules.map((rule) => [rule.meta.id, rule] as const))('%s says what, why, what to do and whence', (_, { meta }) => {
    for (const text of [meta.title, meta.why, meta.remedy, meta.source, ...Object.values(meta.messages)]) expect(text).toMatch(/^\S.{8,}/);
    expect(meta.remedy).toMatch(/\.$/);
  });

  test('a rule that throws is named and never stops the rest', () => {
    const broken = defineRule({ meta: { ...rules[0].meta, id: 'x/broken' }, check: () => { throw new Error('oh'); } });
    const { findings, broken: told } = check(contextOf(wanting('lead', 'delay/preset', 128)), [broken, ...rules]);
    expect(told).toEqual([{ ruleId: 'x/broken', reason: 'oh' }]);
    expect(findings.some((finding) => finding.ruleId === 'midi/program-out-of-range')).toBe(true);
  });

  test('an unknown message, or a fact that is missing, is a bug and says so', () => {
    const [rule] = rules;
    const finding = { ruleId: rule.meta.id, messageId: Object.keys(rule.meta.messages)[0], severity: rule.meta.severity, at: {}, data: {} };
    expect(() => formatFinding(finding, rules)).toThrow(/nothing for/);
    expect(() => formatFinding({ ...finding, messageId: 'nonsense' }, rules)).toThrow(/no message/);
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
