import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { commands, demoShow, emptyShow, exportShow, type Show, starterById } from '@yunta/core';
import { cellarBarRig, clean, fourCable, lead } from '@yunta/core/testing';
import { main } from './main.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-cli-'));
const file = (name: string, text: string): string => {
  const where = path.join(folder, name);
  writeFileSync(where, text);
  return where;
};
const demo = file('demo.json', exportShow(demoShow()));
const good = file('good.json', exportShow(fourCable().sound('lead', lead).sound('clean', clean).laid().show));
const unknown = fourCable()
  .sound('lead', { ...lead, wants: { 'delay/preset': 5, 'delay/mix': 9 } })
  .laid().show;
const undecided = file(
  'undecided.json',
  exportShow({
    ...unknown,
    rig: {
      ...unknown.rig,
      slots: {
        'slot-lead': {
          ...unknown.rig.slots['slot-lead'],
          actions: [
            { kind: 'set', control: 'loop-1', value: 1 },
            { kind: 'set', control: 'loop-2', value: 1 },
            { kind: 'set', control: 'loop-3', value: 1 },
            { kind: 'program', channel: 2, program: 5 },
          ],
        },
      },
    },
  }),
);

async function call(...args: string[]) {
  let out = '';
  let err = '';
  const code = await main(
    args,
    (text) => (out += text),
    (text) => (err += text),
  );
  return { code, out, err };
}

describe('exit codes', () => {
  test.each([
    ['check, nothing found', ['check', good], 0],
    ['check, something stops the show', ['check', demo], 1],
    ['trace', ['trace', good], 0],
    ['prove, all recall', ['prove', good], 0],
    ['prove, one does not', ['prove', demo], 1],
    ['prove, that one sound recalls', ['prove', demo, '--sound', 'Slow Lock, verse'], 0],
    ['prove, set order', ['prove', good, '--level', '1'], 0],
    ['prove, a stray foot', ['prove', good, '--level', '3'], 1],
    ['prove, the worst cannot be known', ['prove', undecided], 3],
    ['no such file', ['check', path.join(folder, 'nowhere.json')], 2],
    ['not our file', ['check', file('bad.json', '{"format": "song-sheet"}')], 2],
    ['no file', ['check'], 2],
    ['no such command', ['sing', good], 2],
    ['no such sound', ['trace', good, '--sound', 'Nobody'], 2],
    ['no such level', ['prove', good, '--level', '9'], 2],
    ['no such option', ['prove', good, '--loud'], 2],
    ['help', ['--help'], 0],
  ] as const)('%s: %j', async (_, args, code) => {
    expect((await call(...args)).code).toBe(code);
  });
});

describe('a variant', () => {
  const base = fourCable().sound('lead', lead).sound('clean', clean).laid().show;
  const steps = commands.removeDevice(base, 'delay').steps.map(({ doc: _, ...step }) => step);
  const tonight = { id: 'tonight', name: 'Without the delay', order: 'a', steps };
  const withVariant = file(
    'variant.json',
    exportShow({ ...base, rig: { ...base.rig, variants: { tonight } } } as Show),
  );
  test('is judged as the rig is, and its moves are told', async () => {
    expect((await call('prove', withVariant, '--variant', 'Without the delay')).code).toBe(0);
    const { code, out } = await call('moves', withVariant, '--variant', 'tonight');
    expect(code).toBe(0);
    expect(out.split('\n')[0]).toBe('pull: C06: pull Switcher, Send 3');
    expect(out).toContain('leave out: Delay (Board)');
    expect(JSON.parse((await call('moves', withVariant, '--variant', 'tonight', '--json')).out).moves[0].kind).toBe(
      'unplug',
    );
  });
  test('that is not there, or is not said, is a bad call', async () => {
    expect((await call('prove', withVariant, '--variant', 'Other')).code).toBe(2);
    expect((await call('moves', withVariant)).code).toBe(2);
  });
});

test('a bad file is refused with place and reason on the error stream, and nothing on the other', async () => {
  const broken = file('broken.json', exportShow(demoShow()).replace('"send-1"', '"send-99"'));
  const { out, err } = await call('check', broken);
  expect(out).toBe('');
  expect(err).toMatch(/\/rig\/cables\/cable-3\/plugs\/0: .*no jack "send-99"/);
});

describe('what nobody judged is said, with an exit code of its own', () => {
  const empty = file('empty.json', exportShow(emptyShow('rig', 'Rig')));
  const songless = file('songless.json', exportShow(fourCable().sound('lead', lead).sound('late', clean).show));
  test.each([
    ['check', empty, 'not judged: there is no gear yet; enter it on Gear\n'],
    ['prove', empty, 'not judged: there is no gear yet; enter it on Gear\n'],
    [
      'prove',
      songless,
      'not judged: Lead lies on no switch and no part plays it; give it a switch on Program, or a part on Set\n' +
        'not judged: Clean lies on no switch',
    ],
  ])('%s %s', async (command, which, said) => {
    const { code, out } = await call(command, which);
    expect(code).toBe(4);
    expect(out).toContain(said);
  });
  test('songs are asked for in set order only, and the JSON says what is missing', async () => {
    const starter = file('starter.json', exportShow(starterById('four-cable').make('rig', 'Rig')));
    expect((await call('prove', starter)).code).toBe(0);
    const { code, out } = await call('prove', starter, '--level', '1', '--json');
    expect(code).toBe(4);
    expect(JSON.parse(out).unjudged).toEqual([{ kind: 'no-songs', text: 'there are no songs yet; enter them on Set' }]);
  });
});

describe('a rig without slots', () => {
  const cellar = file('cellar.json', exportShow(cellarBarRig()));
  test('is judged in set order, with what feet and hands do', async () => {
    const { code, out } = await call('prove', cellar, '--level', '1');
    expect(code).toBe(0);
    expect(out.split('\n').slice(0, 2)).toEqual([
      'recalls: Cellar Waltz, verse, Rhythm: before Drive, Boost, Echo',
      'recalls: Cellar Waltz, chorus, Crunch: on Compressor, Drive',
    ]);
    expect((await call('check', cellar)).code).toBe(0);
  });
  test('at the other levels is said to be played by feet, and is no yes', async () => {
    const { code, out } = await call('prove', cellar);
    expect(code).toBe(4);
    expect(out).toMatch(/^played by feet, judged in set order \(--level 1\): Cellar Waltz, verse, Rhythm\n/);
  });
  test('in JSON: steps, mistakes and what to look at', async () => {
    const { byFeet } = JSON.parse((await call('prove', cellar, '--level', '1', '--json', '--sound', 'Solo')).out);
    expect(byFeet.parts).toHaveLength(1);
    expect(byFeet.parts[0]).toMatchObject({ part: 'song-1-part-3', sound: 'solo', verdict: 'recalls', stuck: null });
    expect(byFeet.parts[0].steps[0]).toEqual({
      when: 'on',
      derived: true,
      kind: 'foot',
      device: 'drive',
      switch: 'switch',
      stray: false,
    });
    expect(byFeet.mistakes).toContainEqual({
      kind: 'missed',
      press: { device: 'comp', switch: 'switch' },
      at: 'song-2-part-2',
      wrong: ['song-2-part-2'],
      heals: null,
    });
    expect(byFeet.resets).toEqual([
      {
        sound: 'solo',
        steps: null,
        lookAt: ['comp/on', 'drive/on', 'boost/on', 'combo/channel', 'echo/on'],
        unknown: false,
      },
    ]);
  });
});

test('the JSON is stable: findings by rule, traces by sound, judgements with sequence', async () => {
  const checked = JSON.parse((await call('check', demo, '--json')).out);
  expect(Object.keys(checked)).toEqual(['findings', 'broken', 'unjudged']);
  expect(checked.findings[0]).toMatchObject({
    rule: expect.any(String),
    severity: 'stops-the-show',
    text: expect.any(String),
    at: expect.any(Object),
    data: expect.any(Object),
  });
  const traced = JSON.parse((await call('trace', good, '--sound', 'Lead', '--json')).out);
  expect(traced.traces[0]).toMatchObject({ sound: 'Lead', id: 'lead', trace: { sounds: true } });
  expect(traced.traces[0].trace.passes).toHaveLength(10);
  expect(traced.traces[0].trace.passes[2]).toMatchObject({ device: 'drive', does: ['Effect'] });
  expect(traced.traces[0].trace.circles).toEqual([]);
  const proved = JSON.parse((await call('prove', demo, '--sound', 'Low Water, chorus', '--json')).out);
  expect(proved).toMatchObject({
    level: 2,
    judgements: [
      {
        name: 'Low Water, chorus',
        verdict: 'does-not',
        length: 4,
        sequence: {
          stones: [{ kind: 'bank' }, { kind: 'bank' }, { kind: 'bank' }, { kind: 'press', slot: 'slot-sound-14' }],
        },
      },
    ],
  });
});

test('in plain words', async () => {
  expect((await call('trace', good, '--sound', 'lead')).out).toBe(
    'Lead: 10 passes\n  Guitar > Switcher > Drive > Switcher > Combo > Switcher > Delay > Switcher > Combo > Cabinet\n',
  );
  expect((await call('check', good)).out).toBe('Nothing found.\n');
  expect((await call('prove', demo)).out).toMatch(/does-not \(4\): Low Water, chorus/);
});
