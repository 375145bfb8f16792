import { describe, expect, test } from '@jest/globals';
import { applySteps } from '../change/steps.ts';
import { connect } from '../change/commands.ts';
import { check, contextOf } from '../check/engine.ts';
import { rules } from '../check/rules/index.ts';
import type { Show } from '../model/documents.ts';
import { patchList } from '../paper/patch-list.ts';
import { emptyShow } from '../starters/empty.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { Random } from '../testing/random.ts';
import { addRigText, leftOver } from './add-rig-text.ts';
import { completeRigText } from './complete.ts';
import { readRigText } from './read-rig-text.ts';
import type { Choices } from './rig-text.ts';

const nothing = emptyShow('rig', 'Rig');

/** What a text adds, in short: `Guitar: Guitar`, `guitar/out > volume/in 6`; an assumed jack has a question mark. */
function told(show: Show, text: string, choices?: Choices): readonly string[] {
  return readRigText(show, text, { choices }).rows.flatMap((row) => [
    ...row.adds.map(({ name, entry }) => `${name}: ${entry.type.name}`),
    ...row.cables.map(
      ({ plugs, length }) =>
        plugs.map(({ device, jack, assumed }) => `${device}/${jack}${assumed ? '?' : ''}`).join(' > ') +
        (length === null ? '' : ` ${length}`),
    ),
    ...(row.wrong ? [row.wrong.code] : []),
  ]);
}

function added(show: Show, text: string): Show {
  const command = addRigText(show, readRigText(show, text))!;
  const result = applySteps(show, command.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

/** Twelve pieces and twenty-two cables: pedals in a switcher that wraps the amp's preamp, echoes after it. */
const twelve = `guitar > 6 m > tuner > volume > switcher
1: comp; 2: drive soft; 3: drive hard; 4: boost; 5: amp
send 6 > chorus > return 6
out > delay > reverb > amp > cab
midi: switcher > delay > reverb
contact 1 > amp`;

describe('a whole rig typed', () => {
  const rig = added(nothing, twelve).rig;
  test('has its pieces and cables, none at a wrong jack', () => {
    expect(Object.values(rig.devices).map(({ name, type }) => `${name}: ${type.name}`)).toEqual([
      'Guitar: Guitar',
      'Tuner: Tuner',
      'Volume: Volume pedal',
      'Switcher: Loop switcher, 8 loops',
      'Comp: Compressor',
      'Drive soft: Drive',
      'Drive hard: Drive',
      'Boost: Boost',
      'Amp: Valve amp, two channels',
      'Chorus: Chorus',
      'Delay: Delay, MIDI',
      'Reverb: Reverb, MIDI',
      'Cab: Cabinet',
    ]);
    const cables = Object.values(rig.cables).map(({ plugs }) =>
      plugs.map(({ device, jack }) => `${device}/${jack}`).join(' > '),
    );
    expect(cables).toEqual([
      'guitar/out > tuner/in',
      'tuner/out > volume/in',
      'volume/out > switcher/in',
      'switcher/send-1 > comp/in',
      'comp/out > switcher/return-1',
      'switcher/send-2 > drive-soft/in',
      'drive-soft/out > switcher/return-2',
      'switcher/send-3 > drive-hard/in',
      'drive-hard/out > switcher/return-3',
      'switcher/send-4 > boost/in',
      'boost/out > switcher/return-4',
      'switcher/send-5 > amp/in',
      'amp/send > switcher/return-5',
      'switcher/send-6 > chorus/in',
      'chorus/out > switcher/return-6',
      'switcher/out > delay/in',
      'delay/out > reverb/in',
      'reverb/out > amp/return',
      'amp/speaker > cab/in',
      'switcher/midi-out > delay/midi-in',
      'delay/midi-thru > reverb/midi-in',
      'switcher/contact-1 > amp/remote-1',
    ]);
    expect(rig.cables['cable-1'].length).toBe(6);
    expect([rig.devices.delay.channel, rig.devices.reverb.channel]).toEqual([1, 2]);
  });
  test('typed again it adds nothing: every cable is there already, but pieces alone are pieces more', () => {
    const runs = twelve;
    const again = readRigText({ ...nothing, rig }, runs);
    expect(again.rows.flatMap((row) => [...row.adds, ...row.cables])).toEqual([]);
    expect(again.rows.reduce((sum, row) => sum + row.known, 0)).toBe(22);
    expect(addRigText({ ...nothing, rig }, again)).toBeNull();
    expect(told({ ...nothing, rig }, 'drive')).toEqual(['Drive: Drive']);
  });
});

describe('what is said and what is assumed', () => {
  test.each([
    ['guitar > amp', ['Guitar: Guitar', 'Amp: Valve amp, two channels', 'guitar/out > amp/in?']],
    ['guitar > amp input', ['Guitar: Guitar', 'Amp: Valve amp, two channels', 'guitar/out > amp/in']],
    ['2 guitars', ['Guitar: Guitar', 'Guitar 2: Guitar']],
    ['Grey Heron = drive', ['Grey Heron: Drive']],
    ['grey heron (drive)', ['Grey heron: Drive']],
    ['Grey Heron', ['no-type']],
    ['unheard of', ['no-type']],
    ['blue box', ['no-type']],
    ['6 loop switcher', ['6 loop switcher: Loop switcher, 6 loops']],
    ['switcher, 4 loops', ['Switcher, 4 loops: Loop switcher, 4 loops']],
    [
      '- guitar\n* drive\n3. delay\n4) amp',
      ['Guitar: Guitar', 'Drive: Drive', 'Delay: Delay', 'Amp: Valve amp, two channels'],
    ],
    ['drive\ndrive', ['Drive: Drive', 'Drive 2: Drive']],
    ['guitar > 20 ft > tuner', ['Guitar: Guitar', 'Tuner: Tuner', 'guitar/out > tuner/in 6.096']],
    ['guitar > tuner (6 m)', ['Guitar: Guitar', 'Tuner: Tuner', 'guitar/out > tuner/in 6']],
    ['guitar > tuner 0,3 m', ['Guitar: Guitar', 'Tuner: Tuner', 'guitar/out > tuner/in 0.3']],
    [
      'From\tTo\tLength\nGuitar\tTuner\t6\nTuner\tDrive\t',
      ['Guitar: Guitar', 'Tuner: Tuner', 'guitar/out > tuner/in 6', 'Drive: Drive', 'tuner/out > drive/in'],
    ],
    ['Guitar\tTuner\t6', ['Guitar: Guitar', 'Tuner: Tuner', 'guitar/out > tuner/in 6']],
    ['Guitar\t\nTuner\t', ['Guitar: Guitar', 'Tuner: Tuner']],
  ])('%s', (text, rows) => {
    expect(told(nothing, text)).toEqual(rows);
  });
  const board = added(nothing, 'guitar; drive soft; drive hard; switcher; amp; selector; boost');
  test.each([
    ['guitar > amp', 'guitar/out > amp/in?'],
    ['guitar > amp input', 'guitar/out > amp/in'],
    ['guitar > AMP Return', 'guitar/out > amp/return'],
    ['amp fx send > boost', 'amp/send > boost/in'],
    ['send 2 > boost', 'switcher/send-2 > boost/in'],
    ['switcher 2 > boost', 'switcher/send-2 > boost/in'],
    ['drive soft in > boost', 'no-jack'],
    ['boost > drive soft out', 'no-jack'],
    ['boost > amp return / loudspeaker', 'boost/out > amp/return'],
    ['guitar > selector b', 'guitar/out > selector/in-b'],
    ['guitar > selector', 'guitar/out > selector/in-a?'],
    ['drive s > boost', 'drive-soft/out > boost/in'],
    ['drive > boost', 'ambiguous'],
    ['send 9 > boost', 'no-subject'],
    ['switcher send 9 > boost', 'no-jack'],
    ['guitar > guitar', 'itself'],
    ['guitar >', 'empty-end'],
    ['> guitar', 'empty-end'],
    ['guitar > > amp', 'empty-end'],
    ['guitar > boost midi in', 'no-jack'],
    ['amp loudspeaker > boost', 'no-fit'],
    ['midi: switcher > boost', 'no-jack'],
    ['2:', 'empty-end'],
    ['guitar + boost > amp', 'guitar/out > boost/out > amp/in?'],
    ['switcher out > amp + boost', 'switcher/out > amp/in? > boost/in'],
  ])('%s', (text, row) => expect(told(board, text)).toEqual([row]));
  test('a name that holds signs of ours is kept whole', () => {
    const named = added(nothing, 'guitar; boost; amp').rig;
    const devices = {
      ...named.devices,
      boost: { ...named.devices.boost, name: 'Dirt + boost: 6 m' },
    };
    const show = { ...nothing, rig: { ...named, devices } };
    expect(told(show, 'guitar > dirt + boost: 6 m > amp')).toEqual(['guitar/out > boost/in', 'boost/out > amp/in?']);
  });
  test('a jack that is in use is not taken again, and no other is taken in its place', () => {
    expect(told(board, 'guitar > switcher\nboost > switcher').at(-1)).toBe('taken');
    expect(told(board, 'guitar > amp\nboost > amp').at(-1)).toBe('taken');
    expect(told(board, 'guitar > selector\nboost > selector').at(-1)).toBe('boost/out > selector/in-b?');
  });
  test('what was assumed can be chosen otherwise', () => {
    const { rows } = readRigText(board, 'guitar > selector');
    expect(told(board, 'guitar > selector', { [rows[0].cables[0].plugs[1].key]: 'in-b' })).toEqual([
      'guitar/out > selector/in-b',
    ]);
    const piece = readRigText(board, 'delay').rows[0].adds[0];
    expect(piece.others.map(({ type }) => type.name)).toContain('Delay, MIDI');
    expect(told(board, 'delay', { [piece.key]: 'midi-delay' })).toEqual(['Delay: Delay, MIDI']);
  });
});

describe('bad lines', () => {
  const lines = Array.from({ length: 100 }, (_, i) => `drive number${i}`);
  const wrong = { 7: 'zzz > qqq', 42: 'send 3 > nowhere', 77: 'drive >' };
  test('of a hundred lines of which three are wrong the rest is kept, and the three are left with their reasons', () => {
    const text = lines.map((line, i) => wrong[i as 7] ?? line).join('\n');
    const { rows } = readRigText(nothing, text);
    expect(rows.filter((row) => row.wrong).map((row) => [row.statement.line, row.wrong!.code])).toEqual([
      [7, 'no-type'],
      [42, 'no-subject'],
      [77, 'empty-end'],
    ]);
    expect(leftOver(rows)).toBe(Object.values(wrong).join('\n'));
    expect(Object.keys(added(nothing, text).rig.devices)).toHaveLength(97);
  });
  test('a statement that fails leaves nothing of itself behind', () => {
    expect(told(nothing, 'guitar > zzz\nguitar')).toEqual(['no-type', 'Guitar: Guitar']);
  });
  test('any text is read without falling over, and what is understood of it can be added', () => {
    const random = new Random(16);
    const words = [
      'guitar',
      'amp',
      'switcher',
      'send 1',
      'return 1',
      '>',
      '>',
      '+',
      ';',
      '\n',
      ':',
      '1:',
      'midi',
      '6 m',
      '=',
      '/',
      '(',
      ')',
      '\t',
      'drive',
      'x',
      '',
      '→',
      '=>',
      '|',
      'out',
    ];
    for (let n = 0; n < 400; n += 1) {
      const text = Array.from({ length: 1 + random.below(14) }, () => random.pick(words)).join(' ');
      const read = readRigText(nothing, text);
      const command = addRigText(nothing, read);
      if (command) expect(applySteps(nothing, command.steps)).toMatchObject({ ok: true });
      expect(read.rows.every((row) => !row.wrong || row.adds.length + row.cables.length === 0)).toBe(true);
    }
  });
});

describe('completion', () => {
  const board = added(nothing, 'guitar; drive soft; switcher; amp');
  const options = (text: string) => completeRigText(board, text, text.length).options.map((option) => option.text);
  test('devices by the beginning of a word, then types', () => {
    expect(options('guitar > dr').slice(0, 2)).toEqual(['Drive soft', 'Drive']);
    expect(options('so')).toContain('Drive soft');
    expect(options('rev')).toEqual(expect.arrayContaining(['Reverb', 'Reverb, MIDI']));
  });
  test('jacks of the device named', () => {
    expect(options('guitar > amp re')).toEqual(expect.arrayContaining(['Amp Return', 'Amp Remote 1']));
    expect(options('switcher send')).toContain('Switcher Send 1');
  });
  test('no new piece for a name that is there', () => expect(options('guitar > amp')).toEqual([]));
  test('nothing where nothing is typed, and of what the text adds itself as well', () => {
    expect(options('guitar > ')).toEqual([]);
    expect(options('old grey box = fuzz\nold g')).toContain('Old grey box');
  });
});

describe('an insert in one socket', () => {
  const withAmp = () => {
    const builder = new ShowBuilder().device('amp', 'valve-combo', 'Amp', {}, { loop: 'one socket' });
    return builder.text('guitar > amp > cabinet; delay; chorus; reverb');
  };
  test('both ways through it are one cord, whose tip sends and whose ring returns', () => {
    const { show } = withAmp().text('amp send > 2 m > delay > amp return');
    const cord = Object.values(show.rig.cables).find(({ plugs }) => plugs.length === 4)!;
    expect(cord).toMatchObject({
      length: 2,
      plugs: [
        { device: 'amp', jack: 'send' },
        { device: 'delay', jack: 'in' },
        { device: 'delay', jack: 'out' },
        { device: 'amp', jack: 'return' },
      ],
      poles: [
        [
          { plug: 0, pole: 'tip' },
          { plug: 1, pole: 'tip' },
        ],
        [
          { plug: 2, pole: 'tip' },
          { plug: 3, pole: 'tip' },
        ],
      ],
    });
    const { tracer, wiring } = contextOf(show);
    expect(tracer.trace(null).passes.map(({ device }) => device)).toEqual(['guitar', 'amp', 'delay', 'amp', 'cabinet']);
    expect(check(contextOf(show), rules).findings.map(({ ruleId }) => ruleId)).not.toContain('routing/outputs-joined');
    expect(patchList(show, wiring).notes.join()).toContain('tip of Delay, Out to tip of Amp, Return (ring)');
    expect(addRigText(show, readRigText(show, 'amp send > delay > amp return'))).toBeNull();
  });
  test('no other cable goes into the socket, and a plug in it opens the normal', () => {
    const { show } = withAmp().text('amp send > delay');
    const [row] = readRigText(show, 'chorus > amp return').rows;
    expect(row.wrong).toMatchObject({ code: 'taken', jacks: ['Return (ring)'] });
    const second = connect(show, 'x', [
      { device: 'chorus' as never, jack: 'out' },
      { device: 'amp' as never, jack: 'return' },
    ]);
    const refused = applySteps(show, second.steps);
    expect(refused.ok ? [] : refused.problems.map(({ code }) => code)).toEqual(['jack-taken']);
    expect(contextOf(show).tracer.trace(null).sounds).toBe(false);
  });
  test('two jacks are two cables, as ever', () => {
    const { show } = new ShowBuilder().text('guitar > amp > cabinet; amp send > delay > amp return');
    expect(Object.values(show.rig.cables).map(({ plugs }) => plugs.length)).toEqual([2, 2, 2, 2]);
  });
});

test('a name may begin as a jack is called, where it is said to be one', () =>
  expect(told(nothing, 'amp > left cabinet = cabinet; send box = direct box')).toEqual([
    'Amp: Valve amp, two channels',
    'Left cabinet: Cabinet',
    'amp/speaker > left-cabinet/in',
    'Send box: Direct box',
  ]));
