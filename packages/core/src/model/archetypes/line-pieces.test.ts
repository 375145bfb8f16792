import { describe, expect, test } from '@jest/globals';
import { check, contextOf } from '../../check/engine.ts';
import { rules } from '../../check/rules/index.ts';
import { midiReach } from '../../program/compile.ts';
import { catalogue, findTypes } from '../../catalogue/types.ts';
import { ShowBuilder } from '../../testing/build-show.ts';
import type { Show } from '../documents.ts';
import { checkAnatomy } from './check-anatomy.ts';
import { anatomyOf } from './registry.ts';

/** By sound what the signal passes; what is silent says so. */
function linesOf(show: Show): Readonly<Record<string, string>> {
  const { tracer, wiring } = contextOf(show);
  return Object.fromEntries(
    Object.values(show.rig.sounds).map((sound) => {
      const { sounds, passes } = tracer.trace(sound);
      return [
        sound.id,
        sounds ? passes.map(({ device }) => wiring.device.get(device)!.device.name).join(' > ') : 'silent',
      ];
    }),
  );
}

/** What is found in the line itself; songs and slots are not the question here. */
const foundIn = (show: Show): readonly string[] =>
  check(contextOf(show), rules).findings.flatMap(({ ruleId, follows }) =>
    follows || ruleId.startsWith('show/') ? [] : [ruleId],
  );

const started = () => new ShowBuilder().device('guitar', 'guitar', 'Guitar').device('desk', 'desk', 'Desk');

test('every type of the catalogue holds together, and has a name and words of its own', () => {
  for (const { type } of catalogue)
    expect([type.id, checkAnatomy(JSON.parse(JSON.stringify(anatomyOf(type))), '')]).toEqual([type.id, []]);
  expect(new Set(catalogue.map(({ type }) => type.name)).size).toBe(catalogue.length);
  expect(new Set(catalogue.map(({ type }) => type.id)).size).toBe(catalogue.length);
});

// What people type who have not seen the list.
test.each([
  ['volume pedal', 'volume-pedal'],
  ['direct box', 'direct-box'],
  ['wireless receiver', 'receiver'],
  ['a selector for two guitars', 'selector'],
  ['power amp', 'power-amp'],
  ['load box', 'load-box'],
  ['other device', 'other-device'],
  ['midi merger', 'midi-merger'],
  ['acoustic guitar', 'acoustic'],
  ['octaver', 'octave'],
])('%s is found', (typed, id) => expect(findTypes(typed)[0]?.type.id).toBe(id));

test('a selector lets one of two guitars through; the other waits, and is no dead end', () => {
  const { show } = started()
    .device('second', 'guitar', 'Second guitar')
    .device('selector', 'selector', 'Selector')
    .cables('Guitar > Selector In A', 'Second guitar > Selector In B', 'Selector > Desk')
    .sound('first', { wants: { 'selector/input': 'A' } })
    .sound('second', { wants: { 'selector/input': 'B' } });
  expect(linesOf(show)).toEqual({ first: 'Guitar > Selector > Desk', second: 'Second guitar > Selector > Desk' });
  expect(foundIn(show)).toEqual(['routing/no-mute']);
});

describe('a router', () => {
  const routed = (type: string, wants: Readonly<Record<string, Readonly<Record<string, string | number>>>>) =>
    Object.entries(wants).reduce(
      (builder, [id, each]) => builder.sound(id, { wants: each }),
      started()
        .device('router', type, 'Router')
        .device('amp', 'valve-amp-1', 'Amp')
        .device('cab', 'cabinet', 'Cabinet')
        .cables('Guitar > Router', 'Router Out A > Desk', 'Router Out B > Amp Input', 'Amp Loudspeaker > Cabinet'),
    ).show;
  test('sends to one of its outputs', () => {
    expect(linesOf(routed('router', { a: { 'router/output': 'A' }, b: { 'router/output': 'B' } }))).toEqual({
      a: 'Guitar > Router > Desk',
      b: 'Guitar > Router > Amp > Cabinet',
    });
  });
  test('or to any of them, each by a switch of its own', () => {
    const shown = linesOf(
      routed('router-any', {
        both: { 'router/to-a': 1, 'router/to-b': 1 },
        none: { 'router/to-a': 0, 'router/to-b': 0, 'router/to-c': 0 },
      }),
    );
    expect(shown).toEqual({ both: 'Guitar > Router > Desk > Amp > Cabinet', none: 'silent' });
  });
});

test('a volume pedal with its heel down is silent, and its tuner hears on', () => {
  const { show } = started()
    .device('volume', 'volume-pedal', 'Volume')
    .device('tuner', 'tuner', 'Tuner')
    .cables('Guitar > Volume', 'Volume Tuner out > Tuner', 'Volume Out > Desk')
    .sound('up', { wants: { 'volume/position': 8 } })
    .sound('down', { wants: { 'volume/position': 0 }, silence: true });
  expect(linesOf(show)).toEqual({ up: 'Guitar > Volume > Desk', down: 'silent' });
  expect(foundIn(show)).toEqual([]);
});

test('a direct box gives the desk a line and passes on to the amp; nothing open is a fault', () => {
  const both = started()
    .device('box', 'direct-box', 'Direct box')
    .device('amp', 'valve-amp-1', 'Amp')
    .device('cab', 'cabinet', 'Cabinet')
    .cables(
      'Guitar > Direct box',
      'Direct box Line out > Desk',
      'Direct box Through > Amp Input',
      'Amp Loudspeaker > Cabinet',
    )
    .sound('a', {}).show;
  expect(linesOf(both)).toEqual({ a: 'Guitar > Direct box > Desk > Amp > Cabinet' });
  expect(foundIn(both)).toEqual([]);
  const alone = started()
    .device('box', 'direct-box', 'Direct box')
    .cables('Guitar > Direct box', 'Direct box Line out > Desk')
    .sound('a', {}).show;
  expect(foundIn(alone)).toEqual([]);
});

test('a wireless receiver carries the guitar in, and its mute is a mute', () => {
  const { show } = started()
    .device('radio', 'receiver', 'Receiver')
    .cables('Guitar > Receiver', 'Receiver Out > Desk')
    .sound('on', { wants: { 'radio/mute': 0 } })
    .sound('off', { wants: { 'radio/mute': 1 }, silence: true });
  expect(linesOf(show)).toEqual({ on: 'Guitar > Receiver > Desk', off: 'silent' });
});

test('a mixer sums two instruments without a word', () => {
  const { show } = started()
    .device('keys', 'keyboard', 'Keys')
    .device('mixer', 'mixer-2', 'Mixer')
    .cables('Guitar > Mixer In 1', 'Keys > Mixer In 2', 'Mixer > Desk')
    .sound('a', {});
  expect(linesOf(show)).toEqual({ a: 'Guitar > Keys > Mixer > Desk' });
  expect(foundIn(show)).toEqual(['routing/no-mute']);
});

describe('power', () => {
  const stage = () =>
    started()
      .device('preamp', 'preamp', 'Preamp')
      .device('power', 'power-amp', 'Power amp')
      .device('cab', 'cabinet', 'Cabinet');
  test('a power amp drives a cabinet; without it, it lacks its load', () => {
    const cables = ['Guitar > Preamp Input', 'Preamp Line out > Power amp'];
    const driven = stage()
      .cables(...cables, 'Power amp Loudspeaker > Cabinet')
      .sound('a', {}).show;
    expect(linesOf(driven)).toEqual({ a: 'Guitar > Preamp > Power amp > Cabinet' });
    expect(foundIn(driven)).toEqual([]);
    expect(
      foundIn(
        stage()
          .cables(...cables)
          .sound('a', {}).show,
      ),
    ).toContain('loudspeakers/no-load');
  });
  test('a load box is a load, and gives the desk a line', () => {
    const { show } = started()
      .device('amp', 'valve-amp-1', 'Amp')
      .device('load', 'load-box', 'Load box')
      .cables('Guitar > Amp Input', 'Amp Loudspeaker > Load box', 'Load box Line out > Desk')
      .sound('a', {});
    expect(linesOf(show)).toEqual({ a: 'Guitar > Amp > Load box > Desk' });
    expect(foundIn(show)).toEqual([]);
  });
  test('with a loudspeaker behind it, both are heard', () => {
    const { show } = started()
      .device('amp', 'valve-amp-1', 'Amp')
      .device('load', 'load-box-through', 'Load box')
      .device('cab', 'cabinet', 'Cabinet')
      .cables(
        'Guitar > Amp Input',
        'Amp Loudspeaker > Load box',
        'Load box Loudspeaker through > Cabinet',
        'Load box Line out > Desk',
      )
      .sound('a', {});
    expect(linesOf(show)).toEqual({ a: 'Guitar > Amp > Load box > Desk > Cabinet' });
    expect(foundIn(show)).toEqual([]);
  });
});

test('MIDI boxes pass on what they get: through to each output, and merged from each input', () => {
  const { show } = started()
    .device('one', 'foot-controller', 'First')
    .device('two', 'foot-controller', 'Second')
    .device('merger', 'midi-merger', 'Merger')
    .device('box', 'midi-through-box', 'Box')
    .device('echo', 'midi-delay', 'Echo', { channel: 2 })
    .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
    .cables(
      'First MIDI out > Merger MIDI in 1',
      'Second MIDI out > Merger MIDI in 2',
      'Merger MIDI out > Box',
      'Box MIDI through 1 > Echo',
      'Box MIDI through 2 > Hall',
    );
  const { wiring } = contextOf(show);
  for (const controller of ['one', 'two'])
    expect([...midiReach(wiring, controller)]).toEqual(expect.arrayContaining(['echo', 'hall']));
});
