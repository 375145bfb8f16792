import { describe, expect, test } from '@jest/globals';
import { fourCable } from '../testing/build-show.ts';
import { buildWiring } from '../model/wiring.ts';
import { readActionLine } from './action-line.ts';

const { show } = fourCable();
const switcher = buildWiring(show.rig).device.get('switcher')!;

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
