import { describe, expect, test } from '@jest/globals';
import { fourCable } from '../testing/build-show.ts';
import { buildWiring } from '../model/wiring.ts';
import { readActionLine } from './action-line.ts';
import { readPatchLine } from './patch-line.ts';

const { show } = fourCable();
const switcher = buildWiring(show.rig).device.get('switcher')!;

describe('a cable said in one line', () => {
  const spare = fourCable().device('boost', 'boost', 'Boost').device('boost-2', 'boost', 'Boost 2').show.rig;
  test.each([
    ['Boost > Boost 2', { device: 'boost', jack: 'out' }, { device: 'boost-2', jack: 'in' }],
    ['boost 2 -> boost', { device: 'boost-2', jack: 'out' }, { device: 'boost', jack: 'in' }],
    ['switcher send 4 → boost', { device: 'switcher', jack: 'send-4' }, { device: 'boost', jack: 'in' }],
    ['boost out > switcher return 4', { device: 'boost', jack: 'out' }, { device: 'switcher', jack: 'return-4' }],
    ['delay midi through > switcher', { device: 'delay', jack: 'midi-thru' }, { device: 'switcher', jack: 'midi-in' }],
  ] as const)('%s', (line, from, to) => {
    expect(readPatchLine(spare, line)).toEqual({ ok: true, plugs: [from, to] });
  });
  test.each([
    ['switcher send 4 > boost + boost 2', ['switcher/send-4', 'boost/in', 'boost-2/in']],
    ['boost + boost 2 > switcher return 4', ['boost/out', 'boost-2/out', 'switcher/return-4']],
    ['boost > switcher + boost 2', ['boost/out', 'switcher/return-4', 'boost-2/in']],
  ] as const)('%s: a Y cord', (line, plugs) => {
    expect(readPatchLine(spare, line)).toEqual({
      ok: true,
      plugs: plugs.map((plug) => ({ device: plug.split('/')[0], jack: plug.split('/')[1] })),
    });
  });
  test('a plus in a name is no other end', () => {
    const named = fourCable().device('both', 'boost', 'Dirt + Boost').device('boost', 'boost', 'Boost').show.rig;
    const readLine = (line: string) => readPatchLine(named, line);
    expect(readLine('dirt + boost > switcher')).toEqual({
      ok: true,
      plugs: [
        { device: 'both', jack: 'out' },
        { device: 'switcher', jack: 'return-4' },
      ],
    });
    expect(readLine('switcher send 4 > dirt + boost + boost')).toEqual({
      ok: true,
      plugs: [
        { device: 'switcher', jack: 'send-4' },
        { device: 'both', jack: 'in' },
        { device: 'boost', jack: 'in' },
      ],
    });
  });
  test.each([
    ['boost > boost 2 +', 'no-arrow'],
    ['boost > boost 2 + banjo', 'no-device'],
    ['switcher midi out + boost > boost 2', 'no-jack'],
    ['boost > boost 2 + boost 2', 'no-jack'],
    ['guitar switcher', 'no-arrow'],
    ['guitar >', 'no-arrow'],
    ['banjo > switcher', 'no-device'],
    ['boost > banjo', 'no-device'],
    ['guitar > switcher', 'no-jack'],
    ['boost > cabinet', 'no-jack'],
    ['switcher send 9 > boost', 'no-jack'],
  ] as const)('%s: %s', (line, reason) => {
    expect(readPatchLine(spare, line)).toMatchObject({ ok: false, reason });
  });
});

describe('an action said in one line, numbers as sent', () => {
  test.each([
    ['pc 12 ch 3', { kind: 'program', program: 12, channel: 3 }],
    ['Program 0, channel 16', { kind: 'program', program: 0, channel: 16 }],
    ['cc 102 = 127 ch 2', { kind: 'control', cc: 102, value: 127, channel: 2 }],
    ['loop 4 on', { kind: 'set', control: 'loop-4', value: 1 }],
    ['loop 1 off', { kind: 'set', control: 'loop-1', value: 0 }],
    ['contact 1 closed', { kind: 'contact', contact: 'contact-1', to: 1 }],
    ['wait 20', { kind: 'wait', ms: 20 }],
  ])('%s', (line, action) => {
    expect(readActionLine(switcher, line)).toEqual({ ok: true, action });
  });
  test.each([
    ['', 'not-understood'],
    ['sing', 'not-understood'],
    ['pc 12', 'not-understood'],
    ['loop 4', 'not-understood'],
    ['pc 128 ch 3', 'out-of-range'],
    ['pc 1 ch 17', 'out-of-range'],
    ['cc 1 128 ch 1', 'out-of-range'],
    ['wait 90000', 'out-of-range'],
    ['loop 5 in', 'no-loop'],
    ['contact 7 open', 'no-contact'],
  ])('%s: %s', (line, reason) => {
    expect(readActionLine(switcher, line)).toEqual({ ok: false, reason });
  });
  test('a momentary switch may remember a loop and restore it; a slot may not', () => {
    expect(readActionLine(switcher, 'remember loop 2', 'momentary')).toEqual({
      ok: true,
      action: { kind: 'save', control: 'loop-2' },
    });
    expect(readActionLine(switcher, 'Restore loop 2', 'momentary')).toEqual({
      ok: true,
      action: { kind: 'restore', control: 'loop-2' },
    });
    expect(readActionLine(switcher, 'loop 2 in', 'momentary')).toEqual({
      ok: true,
      action: { kind: 'set', control: 'loop-2', value: 1 },
    });
    expect(readActionLine(switcher, 'remember loop 5', 'momentary')).toEqual({ ok: false, reason: 'no-loop' });
    for (const line of ['remember', 'remember loop', 'restore contact 1', 'remember loop 1 2'])
      expect(readActionLine(switcher, line, 'momentary')).toEqual({ ok: false, reason: 'not-understood' });
    for (const line of ['remember loop 2', 'restore loop 2'])
      expect(readActionLine(switcher, line)).toEqual({ ok: false, reason: 'not-understood' });
  });
});
