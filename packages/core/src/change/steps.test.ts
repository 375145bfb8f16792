import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { typeById } from '../catalogue/types.ts';
import * as commands from './commands.ts';
import { describeCommand } from './command-words.ts';
import { between, following } from './order.ts';
import { applySteps, invertSteps, sameData, type Step } from './steps.ts';

const demo = demoShow();
const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

const every: Record<string, (show: Show) => commands.Command | null> = {
  'add a device': (show) => commands.addDevice(show, 'wah', typeById('drive').type, 'Wah', 'board'),
  'add a device in a place that is not there yet': (show) => commands.addDevice(show, 'wah', typeById('drive').type, 'Wah', 'shelf'),
  'remove a device with all that hangs on it': (show) => commands.removeDevice(show, 'echo'),
  'remove the switcher with its slots and their casting': (show) => commands.removeDevice(show, 'switcher'),
  'set a field': (show) => commands.setDevice(show, 'echo', 'channel', 7),
  'set a parameter that was there': (show) => commands.setParam(show, 'echo', 'loadMs', 80),
  'set a parameter that was not': (show) => commands.setParam(show, 'echo', 'sticky', true),
  connect: (show) => commands.connect(show, 'new', { device: 'switcher', jack: 'send-8' }, { device: 'switcher', jack: 'return-9' }),
  disconnect: (show) => commands.disconnect(show, 'cable-3'),
  'set a cable': (show) => commands.setCable(show, 'cable-3', 'length', 2.5),
  'add a sound': (show) => commands.addSound(show, 'new', 'New', show.rig.sounds['sound-2']),
  'remove a sound': (show) => commands.removeSound(show, 'sound-2'),
  'change a sound': (show) => commands.setSound(show, 'sound-2', 'role', 'solo'),
  want: (show) => commands.want(show, 'sound-1', 'echo/preset', 9),
  'want no more': (show) => commands.want(show, 'sound-2', 'echo/preset', undefined),
  'want a pedal': (show) => commands.wantPedal(show, 'sound-1', 'drive-1', 'on'),
  'lay out': (show) => commands.layOut(applied(show, commands.setSound(show, 'sound-2', 'role', 'solo').steps), 'switcher'),
  'write a slot by hand': (show) => commands.setSlotActions(show, 'slot-sound-1', []),
  'add a song': (show) => commands.addSong(show, 'new', 'New'),
  'remove a song': (show) => commands.removeSong(show, 'song-1'),
  'set a tempo': (show) => commands.setSong(show, 'song-1', 'tempo', 92),
  'add a part': (show) => commands.addPart(show, 'new', 'song-1', 'coda', 'slot-sound-1'),
  'remove a part': (show) => commands.removePart(show, 'part-1'),
  'cast a part': (show) => commands.castPart(show, 'part-1', 'slot-sound-2'),
  'cast it no more': (show) => commands.castPart(show, 'part-1', null),
  rename: (show) => commands.renameRig(show, 'Winter'),
};

describe('commands', () => {
  test.each(Object.entries(every))('%s: applies, has words, and its inverse gives the show back', (name, make) => {
    const on = name === 'lay out' ? applied(demo, commands.setSound(demo, 'sound-2', 'role', 'solo').steps) : demo;
    const command = make(demo)!;
    expect(command.steps.length).toBeGreaterThan(0);
    expect(describeCommand(command.command)).not.toMatch(/undefined|^[a-z-]+$/);
    const after = applied(on, command.steps);
    expect(sameData(after, on)).toBe(false);
    expect(sameData(applied(after, invertSteps(command.steps)), on)).toBe(true);
    expect(applied(on, JSON.parse(JSON.stringify(command.steps)))).toEqual(after);
  });

  test('more sounds than slots: no layout', () => {
    const small = applied(demo, commands.setParam(demo, 'switcher', 'banks', 400).steps);
    expect(commands.layOut(small, 'switcher')).not.toBeNull();
    const crowded: Show = { ...demo, rig: { ...demo.rig, slots: {}, casting: {}, devices: { ...demo.rig.devices, switcher: { ...demo.rig.devices.switcher, type: { ...demo.rig.devices.switcher.type, params: { loops: 10, banks: 2, positions: 5 } } } } } };
    expect(commands.layOut(crowded, 'switcher')).toBeNull();
  });
});

describe('steps', () => {
  const set = (at: readonly string[], old: unknown, value: unknown): Step => ({ doc: 'rig', op: 'set', at, old, value });

  test('a step whose old value no longer matches is refused, with what is there now', () => {
    const result = applySteps(demo, [set(['devices', 'echo', 'channel'], 9, 4)]);
    expect(result).toMatchObject({ ok: false, problems: [{ code: 'old-value-differs', pointer: '/rig/devices/echo/channel', facts: { now: '2' } }] });
  });
  test('an insert where something is, a remove of what is gone', () => {
    expect(applySteps(demo, [{ doc: 'rig', op: 'insert', at: ['places', 'board'], value: {} }])).toMatchObject({ ok: false, problems: [{ code: 'already-there' }] });
    expect(applySteps(demo, [{ doc: 'rig', op: 'remove', at: ['places', 'nowhere'], old: {} }])).toMatchObject({ ok: false, problems: [{ code: 'old-value-differs' }] });
  });
  test('one refused step refuses the batch, and the show stays the very same object', () => {
    const before = JSON.stringify(demo);
    const result = applySteps(demo, [set(['devices', 'echo', 'channel'], 2, 4), set(['devices', 'nobody', 'channel'], 1, 2)]);
    expect(result.ok).toBe(false);
    expect(JSON.stringify(demo)).toBe(before);
  });
  test('a result that is not a rig is refused: a jack used twice, a jack that is not there, a value outside its domain', () => {
    const codes = (steps: readonly Step[]) => {
      const result = applySteps(demo, steps);
      return result.ok ? [] : result.problems.map((problem) => problem.code);
    };
    expect(codes(commands.connect(demo, 'x', { device: 'guitar', jack: 'out' }, { device: 'switcher', jack: 'return-9' }).steps)).toEqual(['jack-taken']);
    expect(codes([{ doc: 'rig', op: 'insert', at: ['cables', 'x'], value: { ...demo.rig.cables['cable-1'], id: 'x', plugs: [{ device: 'guitar', jack: 'usb' }, { device: 'switcher', jack: 'return-9' }] } }])).toEqual(['jack-missing']);
    expect(codes(commands.want(demo, 'sound-1', 'combo/channel', 'crunch').steps)).toEqual(['out-of-domain']);
    expect(codes([set(['devices', 'echo', 'channel'], 2, 17)])).toContain('out-of-domain');
  });
  test.each(['__proto__', 'constructor', 'prototype'])('%s is no place to write to', (key) => {
    expect(applySteps(demo, [{ doc: 'rig', op: 'insert', at: ['devices', key], value: {} }])).toMatchObject({ ok: false, problems: [{ code: 'forbidden-key' }] });
    expect(({} as { polluted?: unknown }).polluted).toBeUndefined();
  });
});

describe('order', () => {
  test('there is always a key between two, and it sorts between them', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { minLength: 1, maxLength: 40 }), (picks) => {
        const keys: string[] = [];
        for (const pick of picks) {
          const at = pick % (keys.length + 1);
          const key = between(keys[at - 1] ?? null, keys[at] ?? null);
          if (at > 0) expect(key > keys[at - 1]).toBe(true);
          if (at < keys.length) expect(key < keys[at]).toBe(true);
          keys.splice(at, 0, key);
        }
      }),
    );
  });
  test('keys that follow one another are in order', () => {
    const keys = following('h', 50);
    expect([...keys].sort()).toEqual(keys);
    expect(new Set(keys).size).toBe(50);
  });
});
