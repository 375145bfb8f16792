import { describe, expect, test } from '@jest/globals';
import { check, contextOf } from '../../check/engine.ts';
import { rules } from '../../check/rules/index.ts';
import { midiReach } from '../../program/compile.ts';
import { ShowBuilder } from '../../testing/build-show.ts';
import type { Show } from '../documents.ts';
import { archetypeOf } from './registry.ts';
import { checkParams } from './archetype.ts';

/** By sound the devices that the signal passes, in time. */
const linesOf = (show: Show): Readonly<Record<string, string>> => {
  const { tracer } = contextOf(show);
  return Object.fromEntries(
    Object.values(show.rig.sounds).map((sound) => [
      sound.id,
      tracer
        .trace(sound)
        .passes.map(({ device }) => show.rig.devices[device].name)
        .join(' > '),
    ]),
  );
};
const foundIn = (show: Show): readonly string[] =>
  check(contextOf(show), rules)
    .findings.filter(({ ruleId, follows }) => !follows && !ruleId.startsWith('show/'))
    .map(({ ruleId }) => ruleId);
const typed = (text: string) => new ShowBuilder().text(text);

describe('panels and multi-cores', () => {
  test('lead each line straight through; the tap hears the first', () => {
    const { show } = typed(`guitar > entry box instrument in; entry box instrument out > drive > entry box return in
entry box return out > amp > cabinet; entry box tuner tap > tuner = tuner`).sound('a');
    expect(linesOf(show)).toEqual({ a: 'Guitar > Entry box > Drive > Entry box > Amp > Cabinet' });
  });
  test('carry an amp loop through one loom', () => {
    const { show } = typed(`guitar > drive > core = multi-core
core amp in out > amp input; amp send > core amp send in; core amp send out > delay > core amp return in
core amp return out > amp return; amp > cabinet`).sound('a');
    expect(linesOf(show)).toEqual({
      a: 'Guitar > Drive > Core > Amp > Core > Delay > Core > Amp > Cabinet',
    });
    expect(foundIn(show)).toEqual([]);
  });
});

describe('a band split', () => {
  const bass = (more: string) => typed(`bass > split = band split > desk\n${more}`).sound('a').show;
  test('blends both bands by itself where nothing is plugged into its returns', () => {
    expect(linesOf(bass(''))).toEqual({ a: 'Bass > Split > Desk' });
    expect(foundIn(bass(''))).toEqual([]);
  });
  test('with a drive in the high band passes twice, and the low band goes on beside it', () => {
    const show = bass('split high send > drive > split high return');
    expect(linesOf(show)).toEqual({ a: 'Bass > Split > Drive > Split > Desk' });
    const { passes } = contextOf(show).tracer.trace(show.rig.sounds.a);
    expect(passes[1].next.map((next) => show.rig.devices[passes[next].device].name)).toEqual(['Drive', 'Desk']);
  });
  test('with two outputs is two lines', () => {
    const { show } = typed(
      'bass > split = band split two outputs; split low out > a = desk; split high out > b = desk',
    ).sound('s');
    expect(linesOf(show)).toEqual({ s: 'Bass > Split > A > B' });
  });
});

describe('loudspeaker lines', () => {
  test('a tap with its through open is no load, with a cabinet behind it it is one', () => {
    const tapped = (more: string) =>
      foundIn(
        typed(
          `guitar > amp loudspeaker > tap = loudspeaker tap box\n${more}`.replace(
            'guitar > amp loudspeaker',
            'guitar > amp; amp loudspeaker',
          ),
        ).sound('a').show,
      );
    expect(tapped('tap line out > desk')).toContain('loudspeakers/no-load');
    expect(tapped('tap line out > desk; tap loudspeaker through > cabinet')).not.toContain('loudspeakers/no-load');
  });
  test('a load box alone is a load', () => {
    expect(
      foundIn(typed('guitar > amp; amp loudspeaker > load box; load box line out > desk').sound('a').show),
    ).toEqual([]);
  });
});

describe('expression and tempo', () => {
  test('an expression pedal moves an effect by a cable of its own kind', () => {
    const { show } = typed('guitar > delay = delay midi stereo > desk; pedal = expression pedal > delay expression');
    expect(Object.values(show.rig.cables).map(({ kind, tag }) => `${kind} ${tag}`)).toContain('expression E03');
  });
  test('and does not fit an audio input', () => {
    expect(() => typed('guitar > drive > desk; pedal = expression pedal > drive')).toThrow(/no-jack|no-fit/);
  });
});

describe('outputs that can be set', () => {
  const midi = (midiOut: string) => {
    const { show } = new ShowBuilder()
      .device('floor', 'foot-controller', 'Floor')
      .device('echo', 'midi-delay', 'Echo', { channel: 1 }, { midiOut })
      .device('room', 'midi-reverb', 'Room', { channel: 2 })
      .text('midi: floor > echo > room');
    const { wiring } = contextOf(show);
    return [...midiReach(wiring, 'floor')].sort();
  };
  test('what comes in goes on from a through, and not from an out alone', () => {
    expect([midi('through'), midi('out'), midi('out and through')]).toEqual([
      ['echo', 'room'],
      ['echo'],
      ['echo', 'room'],
    ]);
  });
  const inside = (type: string, params: Readonly<Record<string, unknown>>) =>
    contextOf(new ShowBuilder().device('it', type, 'It', {}, params).show).wiring.device.get('it')!.anatomy;
  test('a polarity switch is heard on its branch, a lift is told', () => {
    const { sections, controls, settings } = inside('splitter', { polarity: true, lift: 'lifted' });
    expect(sections.map(({ id, active, parameters }) => [id, active, parameters])).toEqual([
      ['to-A', false, undefined],
      ['to-B', true, ['polarity']],
    ]);
    expect(controls.map(({ id, owner }) => [id, owner])).toContainEqual(['polarity', 'hand']);
    expect(settings).toEqual([{ label: 'Audio ground of B', value: 'lifted' }]);
  });
  test.each([
    [{}, 0, 127],
    [{ heel: 20, toe: 90 }, 20, 90],
    [{ heel: 90, toe: 20 }, 90, 91],
  ])('an expression pedal of %j goes from %i to %i', (params, min, max) =>
    expect(inside('expression', params).controls[0].domain).toEqual({ kind: 'range', min, max }),
  );
});

describe('an instrument', () => {
  const hands = (params: Readonly<Record<string, unknown>>) => {
    const { show } = new ShowBuilder().device('guitar', 'guitar', 'Guitar', {}, params);
    const { anatomy } = contextOf(show).wiring.device.get('guitar')!;
    return [anatomy.controls.map(({ id, owner }) => `${id} by ${owner}`), anatomy.settings ?? []] as const;
  };
  test('gives the hands what it has, as cues', () => {
    expect(hands({ split: true, detune: 'D', tone: true })).toEqual([
      ['selector by hand', 'split by hand', 'volume by hand', 'tone by hand', 'detune by hand'],
      [{ label: 'Detune lever goes to', value: 'D' }],
    ]);
  });
  test('tells how it is strung and tuned; what is not text is refused', () => {
    expect(hands({ tuning: 'drop D', strings: '10 to 52' })[1]).toEqual([
      { label: 'Tuning', value: 'drop D' },
      { label: 'Strings', value: '10 to 52' },
    ]);
    const problems = checkParams(archetypeOf('instrument')!, { tuning: 7, strings: 'x'.repeat(61) }, '/params');
    expect(problems.map(({ pointer, code }) => `${pointer} ${code}`)).toEqual([
      '/params/tuning wrong-type',
      '/params/strings too-large',
    ]);
  });
});
