import { expect, test } from '@jest/globals';
import type { Show } from '../model/documents.ts';
import { fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
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

test('a cable pulled in front of the amp: one cause, whatever the number of sounds, and what else is found follows', () => {
  const found = told(without(ordinary().show, 'guitar.out'));
  const roots = found.filter(([, , follows]) => follows === null).map(([rule]) => rule);
  expect(roots.filter((rule) => rule === 'routing/no-route')).toHaveLength(1);
  expect(roots).not.toContain('routing/dead-end');
  expect(roots).not.toContain('loudspeakers/no-load');
  const [[, where]] = found.filter(([rule]) => rule === 'routing/no-route');
  expect(new Set(found.flatMap(([, , by]) => by ?? []))).toEqual(new Set([`routing/no-route ${where}`]));
});

test('a pedal’s loop cut in one sound and the line in another: two places, two causes', () => {
  const show = ordinary().show;
  const { lead, clean } = show.rig.sounds;
  // The drive has no cable back: silent where its loop is in. The delay’s has none either: silent where that is in.
  const cut = without(without(show, 'drive.out'), 'delay.out');
  const sounds = {
    lead: { ...lead, pedals: { drive: 'on', combo: 'on', delay: 'off' } },
    clean: { ...clean, pedals: { drive: 'off', combo: 'on', delay: 'on' } },
  } as const;
  const found = told({ ...cut, rig: { ...cut.rig, sounds: { ...show.rig.sounds, ...sounds } } });
  const roots = found.filter(([rule, , follows]) => rule === 'routing/no-route' && follows === null);
  expect(roots.map(([, where]) => where).sort()).toEqual(['clean', 'lead']);
});

test('a MIDI cable pulled: one cause for all the sounds that want a preset there, and what is left over follows', () => {
  const show = fourCable()
    .sound('lead', lead)
    .sound('echo', { ...lead, wants: { ...lead.wants, 'delay/preset': 7 } })
    .laid().show;
  const found = told(without(show, 'switcher.midi-out'));
  expect(found.filter(([rule, , follows]) => rule === 'midi/no-path' && follows === null)).toHaveLength(1);
  const followers = found.filter(([, , follows]) => follows !== null);
  expect(new Set(followers.map(([rule]) => rule))).toEqual(new Set(['midi/no-path', 'recall/left-over']));
});

test('what every sound runs into at one place is one finding: a delay ahead of the stage that distorts', () => {
  const show = new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('delay', 'delay', 'Delay')
    .device('drive', 'drive', 'Drive')
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Delay', 'Delay > Drive', 'Drive > Desk')
    .sound('one', { pedals: { delay: 'on', drive: 'on' } })
    .sound('two', { pedals: { delay: 'on', drive: 'on' } })
    .sound('three', { pedals: { delay: 'on', drive: 'on' } }).show;
  const found = told(show).filter(([rule]) => rule === 'routing/time-before-drive');
  expect(found.map(([, , follows]) => follows)).toEqual([
    null,
    'routing/time-before-drive delay',
    'routing/time-before-drive delay',
  ]);
});

test('no loudspeaker and no desk: that is the cause, and every silence follows', () => {
  const { show } = ordinary();
  const { cabinet: _, ...devices } = show.rig.devices;
  const cables = Object.fromEntries(Object.entries(show.rig.cables).filter(([, { kind }]) => kind !== 'speaker'));
  const found = told({ ...show, rig: { ...show.rig, devices, cables } });
  const silent = found.filter(([rule]) => rule === 'routing/no-route');
  expect(silent.length).toBeGreaterThan(1);
  for (const [, , follows] of silent) expect(follows).toMatch(/^(loudspeakers.no-load|routing.no-destination) /);
});

test('where every sound is heard nothing follows from anything', () => {
  expect(told(ordinary().show)).toEqual([]);
});
