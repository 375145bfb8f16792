import { slotPlaceTyped } from '../model/slots.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { demoShow } from '../demo/demo.ts';
import { isByFeet, slotOfCast, soundOfCast } from '../model/casting.ts';
import type { Show } from '../model/documents.ts';
import { typeById } from '../catalogue/types.ts';
import { tolerate, wantBefore, wantPlace, wantSwitchedBy } from './intent.ts';
import * as commands from './commands.ts';
import { describeCommand } from './command-words.ts';
import { between, following } from './order.ts';
import { sameData } from '../units/same-data.ts';
import { applySteps, invertSteps, type Step } from './steps.ts';

const demo = demoShow();
const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

const wanted: Record<string, (show: Show) => commands.Command | null> = {
  'want a piece in a loop': (show) => wantPlace(show, 'echo', 3),
  'want a piece to be switched by some things alone': (show) => wantSwitchedBy(show, 'echo', ['loop', 'message']),
  'want a piece earlier': (show) => wantBefore(show, ['drive-1', 'echo'], 'echo', 'drive-1'),
  'let a piece be heard that is wanted off': (show) => tolerate(show, 'sound-1', 'echo', true),
};

const every: Record<string, (show: Show) => commands.Command | null> = {
  ...wanted,
  'add a device': (show) => commands.addDevice(show, 'wah', typeById('drive').type, 'Wah', 'board'),
  'add a device in a place that is not there yet': (show) =>
    commands.addDevice(show, 'wah', typeById('drive').type, 'Wah', 'shelf'),
  'remove a device with all that hangs on it': (show) => commands.removeDevice(show, 'echo'),
  'remove the switcher with its slots and their casting': (show) => commands.removeDevice(show, 'switcher'),
  'set a field': (show) => commands.setDevice(show, 'echo', 'channel', 7),
  'set a parameter that was there': (show) => commands.setParam(show, 'echo', 'loadMs', 80),
  'set a parameter that was not': (show) => commands.setParam(show, 'echo', 'sticky', true),
  connect: (show) =>
    commands.connect(show, 'new', [
      { device: 'switcher', jack: 'send-8' },
      { device: 'switcher', jack: 'return-9' },
    ]),
  disconnect: (show) => commands.disconnect(show, 'cable-3'),
  'set a cable': (show) => commands.setCable(show, 'cable-3', 'length', 2.5),
  'add a sound': (show) => commands.addSound(show, 'new', 'New', show.rig.sounds['sound-2']),
  'remove a sound': (show) => commands.removeSound(show, 'sound-2'),
  'change a sound': (show) => commands.setSound(show, 'sound-2', 'role', 'solo'),
  want: (show) => commands.want(show, 'sound-1', 'echo/preset', 9),
  'want no more': (show) => commands.want(show, 'sound-2', 'echo/preset', undefined),
  'want a pedal': (show) => commands.wantPedal(show, 'sound-1', 'drive-1', 'on'),
  'lay out': (show) =>
    commands.layOut(applied(show, commands.setSound(show, 'sound-2', 'role', 'solo').steps), 'switcher'),
  'fire a slot at power-up': (show) => commands.setDevice(show, 'switcher', 'powerUpSlot', 'slot-sound-2'),
  'be called by a program change': (show) =>
    commands.setDevice(show, 'switcher', 'calls', { channel: 1, programs: { '4': 'slot-sound-1' } }),
  'write a slot by hand': (show) => commands.setSlotActions(show, 'slot-sound-1', []),
  'add a song': (show) => commands.addSong(show, 'new', 'New'),
  'remove a song': (show) => commands.removeSong(show, 'song-1'),
  'set a tempo': (show) => commands.setSong(show, 'song-1', 'tempo', 92),
  'add a part': (show) => commands.addPart(show, 'new', 'song-1', 'coda', { slot: 'slot-sound-1' }),
  'remove a part': (show) => commands.removePart(show, 'part-1'),
  'cast a part': (show) => commands.castPart(show, 'part-1', { slot: 'slot-sound-2' }),
  'cast it no more': (show) => commands.castPart(show, 'part-1', null),
  'set an optional field that was not there': (show) =>
    commands.setSong(show, 'song-1', 'meter', { beats: 3, unit: 4 }),
  'take an optional field away': (show) => commands.setSong(show, 'song-1', 'instrument', undefined),
  'change a part': (show) => commands.setPart(show, 'part-1', 'bars', 12),
  'move a part': (show) => commands.movePart(show, 'part-1', null),
  'move a sound': (show) => commands.moveSound(show, 'sound-3', 'sound-1'),
  'add a set list': (show) => commands.addSetList(show, 'third', 'Third', ['song-2']),
  'change a set list': (show) => commands.setSetList(show, 'set', 'songs', ['song-2', 'song-1']),
  'remove a set list': (show) => commands.removeSetList(show, 'short'),
  'choose a set list': (show) => commands.chooseSetList(show, 'short'),
  'choose a convention': (show) => commands.setConvention(show, 'tempo', 'tapped'),
  waive: (show) => commands.waive(show, 'w', 'recall/left-over', { sound: 'sound-7' }, 'mended on Friday', 'Left over'),
  'want by hand, cues of the parts with it': (show) => commands.want(show, 'sound-1', 'guitar/selector', 'bridge'),
  'want in several': (show) => commands.wantInAll(show, ['sound-1', 'sound-2', 'sound-3'], 'hall/preset', 9),
  'want a pedal in several': (show) => commands.wantPedalInAll(show, ['sound-1', 'sound-2'], 'chorus', 'on'),
  'store a preset': (show) => commands.setPreset(show, 'hall', 7, { name: 'Hold', values: {} }),
  'forget a preset': (show) => commands.setPreset(show, 'echo', 5, null),
  'add a place': (show) => commands.addPlace(show, 'side', 'Side stage'),
  'change a place': (show) => commands.setPlace(show, 'combo', 'name', 'Amp corner'),
  'remove a place': (show) =>
    commands.removePlace(applied(show, commands.addPlace(show, 'side', 'Side').steps), 'side'),
  'change a setting': (show) => commands.setSetting(show, 'faults', ['sent']),
  'add a slot': (show) =>
    commands.addSlot(show, { id: 'spare', controller: 'switcher', bank: 15, position: 4, sound: null, actions: [] }),
  'give a slot another sound': (show) => commands.setSlotSound(show, 'slot-sound-1', null),
  'let a program change in': (show) => commands.addOutside(show, { id: 'o', device: 'echo', channel: 2, program: 4 }),
  'rename the songbook': (show) => commands.renameSongbook(show, 'Spring book'),
  'plan a foot': (show) =>
    commands.setCast(show, 'part-1', 'before', [{ kind: 'foot', device: 'tuner', switch: 'switch' }]),
  rename: (show) => commands.renameRig(show, 'Winter'),
};

/** What some of them begin with. */
const before: Readonly<Record<string, (show: Show) => Show>> = {
  'lay out': (show) => applied(show, commands.setSound(show, 'sound-2', 'role', 'solo').steps),
  'remove a place': (show) => applied(show, commands.addPlace(show, 'side', 'Side').steps),
};

describe('commands', () => {
  test.each(Object.entries(every))('%s: applies, has words, and its inverse gives the show back', (name, make) => {
    const on = before[name]?.(demo) ?? demo;
    const command = make(demo)!;
    expect(command.steps.length).toBeGreaterThan(0);
    expect(describeCommand(command.command)).not.toMatch(/undefined|^[a-z-]+$/);
    const after = applied(on, command.steps);
    expect(sameData(after, on)).toBe(false);
    expect(sameData(applied(after, invertSteps(command.steps)), on)).toBe(true);
    expect(applied(on, JSON.parse(JSON.stringify(command.steps)))).toEqual(after);
  });

  test('a momentary switch does what it is given, and is forgotten once it does nothing', () => {
    const show = applied(demo, commands.setParam(demo, 'switcher', 'momentaries', 1).steps);
    const set = (on: Show, when: 'press' | 'release', actions: Parameters<typeof commands.setMomentary>[4]) =>
      applied(on, commands.setMomentary(on, 'switcher', 'momentary-1', when, actions).steps);
    const pressed = set(show, 'press', [
      { kind: 'save', control: 'loop-2' },
      { kind: 'set', control: 'loop-2', value: 1 },
    ]);
    const both = set(pressed, 'release', [{ kind: 'restore', control: 'loop-2' }]);
    expect(both.rig.devices['switcher'].momentaries).toEqual({
      'momentary-1': {
        press: [
          { kind: 'save', control: 'loop-2' },
          { kind: 'set', control: 'loop-2', value: 1 },
        ],
        release: [{ kind: 'restore', control: 'loop-2' }],
      },
    });
    expect(sameData(set(both, 'release', []), pressed)).toBe(true);
    expect(set(set(both, 'release', []), 'press', []).rig.devices['switcher'].momentaries).toEqual({});
    const { steps } = commands.setMomentary(both, 'switcher', 'momentary-1', 'press', []);
    expect(sameData(applied(applied(both, steps), invertSteps(steps)), both)).toBe(true);
  });

  describe('a slot on another switch', () => {
    const at = (show: Show, bank: number, position: number) =>
      Object.values(show.rig.slots).find((slot) => slot.bank === bank && slot.position === position);
    const place = (bank: number, position: number) => ({ controller: 'switcher', bank, position });

    test('moves there with its castings, swaps with what lies there, and back', () => {
      const [one, other] = [at(demo, 0, 0)!, at(demo, 0, 1)!];
      const swap = commands.moveSlot(demo, one.id, place(0, 1))!;
      const swapped = applied(demo, swap.steps);
      expect([at(swapped, 0, 1)?.id, at(swapped, 0, 0)?.id]).toEqual([one.id, other.id]);
      expect(swapped.rig.casting).toBe(demo.rig.casting);
      expect(sameData(applied(swapped, invertSteps(swap.steps)), demo)).toBe(true);
      const away = applied(demo, commands.moveSlot(demo, one.id, place(17, 3))!.steps);
      expect([at(away, 17, 3)?.id, at(away, 0, 0)]).toEqual([one.id, undefined]);
      expect(commands.moveSlot(demo, one.id, place(0, 0))).toBeNull();
    });

    test('a sound without one gets it there; what lay there moves to the next free switch', () => {
      const more = applied(demo, commands.addSound(demo, 'new', 'New').steps);
      const taken = at(more, 0, 2)!;
      const placed = applied(more, commands.placeSound(more, 'new', place(0, 2))!.steps);
      expect(at(placed, 0, 2)).toMatchObject({ sound: 'new', actions: null });
      expect(placed.rig.slots[taken.id]).toMatchObject({ sound: taken.sound });
      expect(Object.keys(placed.rig.slots)).toHaveLength(Object.keys(more.rig.slots).length + 1);
      expect(commands.placeSound(placed, 'new', place(0, 2))).toBeNull();
      const again = applied(placed, commands.placeSound(placed, 'new', place(0, 3))!.steps);
      expect(at(again, 0, 3)?.sound).toBe('new');
      expect(Object.keys(again.rig.slots)).toHaveLength(Object.keys(placed.rig.slots).length);
    });

    test('no free switch left: nothing is displaced', () => {
      const free = commands.nextFree(demo.rig, place(0, 0))!;
      expect(at(demo, free.bank, free.position)).toBeUndefined();
      const { switcher } = demo.rig.devices;
      const banks = 1 + Math.max(...Object.values(demo.rig.slots).map((slot) => slot.bank));
      const full = new Array(banks * 5).fill(0).flatMap((_, i) => {
        const [bank, position] = [Math.floor(i / 5), i % 5];
        return at(demo, bank, position)
          ? []
          : [{ id: `full-${i}`, ...place(bank, position), sound: null, actions: [] }];
      });
      const type = { ...switcher.type, params: { ...switcher.type.params, banks } };
      const crowded = applied(demo, commands.addSound(demo, 'new', 'New').steps);
      const rig = {
        ...crowded.rig,
        devices: { ...crowded.rig.devices, switcher: { ...switcher, type } },
        slots: { ...crowded.rig.slots, ...Object.fromEntries(full.map((slot) => [slot.id, slot])) },
      } as Show['rig'];
      expect(commands.nextFree(rig, place(0, 0))).toBeNull();
      expect(commands.placeSound({ ...crowded, rig }, 'new', place(0, 0))).toBeNull();
    });

    test('cleared, it takes with it what pressed it, and undo brings all of it back', () => {
      const slot = at(demo, 0, 0)!;
      const fired = applied(demo, commands.setDevice(demo, 'switcher', 'powerUpSlot', slot.id).steps);
      const called = applied(
        fired,
        commands.setDevice(fired, 'switcher', 'calls', { channel: 3, programs: { '1': slot.id } } as never).steps,
      );
      const clear = commands.removeSlot(called, slot.id);
      const cleared = applied(called, clear.steps);
      expect(cleared.rig.devices['switcher']).not.toHaveProperty('powerUpSlot');
      expect(cleared.rig.devices['switcher']).not.toHaveProperty('calls');
      expect(Object.values(cleared.rig.casting).some((cast) => cast.slot === slot.id)).toBe(false);
      expect(sameData(applied(cleared, invertSteps(clear.steps)), called)).toBe(true);
    });

    test.each([
      ['2·3', 1, 2],
      ['2.3', 1, 2],
      ['12-10', 11, 9],
      ['bank 2, switch 3', 1, 2],
      [' 2 3 ', 1, 2],
    ])('“%s” is a place', (text, bank, position) => expect(slotPlaceTyped(text)).toEqual({ bank, position }));
    test.each(['', '23', '0·1', '1·0', 'x·1', '1·2·3', '-1·2'])('“%s” is none', (text) =>
      expect(slotPlaceTyped(text)).toBeNull(),
    );
  });

  test('of a sound with two slots the layout keeps one: what used the other uses that', () => {
    const extra = { id: 'extra', controller: 'switcher', bank: 19, position: 4, sound: 'sound-2', actions: null };
    const more = applied(demo, [{ doc: 'rig', op: 'insert', at: ['slots', 'extra'], value: extra }]);
    const fired = applied(more, commands.setDevice(more, 'switcher', 'powerUpSlot', 'slot-sound-2').steps);
    const called = applied(
      fired,
      commands.setDevice(fired, 'switcher', 'calls', {
        channel: 3,
        programs: { '1': 'slot-sound-2', '2': 'slot-sound-1' },
      }).steps,
    );
    const { steps } = commands.layOut(called, 'switcher')!;
    const { rig } = applied(called, steps);
    const own = Object.values(rig.slots).filter(({ sound }) => sound === 'sound-2');
    expect(own).toHaveLength(1);
    expect(rig.devices['switcher'].powerUpSlot).toBe(own[0].id);
    expect(rig.devices['switcher'].calls).toEqual({ channel: 3, programs: { '1': own[0].id, '2': 'slot-sound-1' } });
    const castOn = (of: Show['rig'], sound: string) =>
      Object.values(of.casting)
        .filter((cast) => soundOfCast(of, cast)?.id === sound)
        .map(({ part }) => part);
    expect(castOn(called.rig, 'sound-2').length).toBeGreaterThan(0);
    for (const sound of Object.keys(demo.rig.sounds)) expect(castOn(rig, sound)).toEqual(castOn(called.rig, sound));
    expect(sameData(applied(applied(called, steps), invertSteps(steps)), called)).toBe(true);
  });

  test('a cue of the hands follows what the sound wants of them, and the part that plays it', () => {
    const after = applied(demo, commands.want(demo, 'sound-1', 'guitar/selector', 'bridge').steps);
    expect(after.rig.casting['part-1'].before).toEqual(
      expect.arrayContaining([{ kind: 'cue', control: 'guitar/selector', value: 'bridge' }]),
    );
    const cast = applied(after, commands.castPart(after, 'part-1', { slot: 'slot-sound-4' }).steps);
    expect(cast.rig.casting['part-1'].before).toEqual([{ kind: 'cue', control: 'guitar/selector', value: 'middle' }]);
  });

  describe('a part cast to a sound', () => {
    const sound = 'sound-4';
    const cast = (show: Show) => show.rig.casting['part-1'];
    const bySound = applied(demo, commands.castPart(demo, 'part-1', { sound }).steps);

    test('plays the first slot that the sound has, with the cues of the hands', () => {
      expect(cast(bySound)).toMatchObject({ slot: null, sound });
      expect(slotOfCast(bySound.rig, cast(bySound))?.id).toBe('slot-sound-4');
      expect(cast(bySound).before).toContainEqual({ kind: 'cue', control: 'guitar/selector', value: 'middle' });
    });
    test('is played by feet once the slot goes, also where it was cast to the slot; and by a slot again', () => {
      const bySlot = applied(demo, commands.castPart(demo, 'part-1', { slot: 'slot-sound-4' }).steps);
      for (const show of [bySound, bySlot]) {
        const without = applied(show, commands.removeSlot(show, 'slot-sound-4').steps);
        expect(cast(without)).toMatchObject({ slot: null, sound });
        expect(isByFeet(without.rig, cast(without))).toBe(true);
        const place = { controller: 'switcher', bank: 15, position: 0 };
        const again = applied(without, commands.placeSound(without, sound, place)!.steps);
        expect(slotOfCast(again.rig, cast(again))).toMatchObject(place);
      }
    });
    test('keeps what feet do for it when its switcher goes, and nothing of the switcher itself', () => {
      const foot = { kind: 'foot', device: 'tuner', switch: 'switch' } as const;
      const planned = applied(demo, commands.setCast(demo, 'part-1', 'before', [foot]).steps);
      const without = applied(planned, commands.removeDevice(planned, 'switcher').steps);
      expect(cast(without)).toMatchObject({ slot: null, sound: 'sound-1', before: [foot] });
    });
    test('is cast to nothing once the sound goes', () => {
      const gone = applied(bySound, commands.removeSound(bySound, sound).steps);
      expect(cast(gone)).toBeUndefined();
    });
    test('the hands’ cues come with a slot that is laid out for it', () => {
      const bare = Object.keys(demo.rig.slots).reduce(
        (show, slot) => applied(show, commands.removeSlot(show, slot).steps),
        applied(demo, commands.setCast(demo, 'part-4', 'before', []).steps),
      );
      expect(bare.rig.casting['part-4'].before).toEqual([]);
      for (const by of ['role', 'song'] as const) {
        const laid = applied(bare, commands.layOut(bare, 'switcher', by)!.steps);
        expect(laid.rig.casting['part-4'].before).toHaveLength(
          Object.keys(demo.rig.sounds['sound-4'].wants).filter((ref) => ref.startsWith('guitar/')).length,
        );
        expect(Object.values(laid.rig.casting).every((each) => slotOfCast(laid.rig, each))).toBe(true);
      }
    });
  });

  test('a new song goes to the end of the list that is played', () => {
    const short = applied(demo, commands.chooseSetList(demo, 'short').steps);
    const { songbook } = applied(short, commands.addSong(short, 'new', 'New').steps);
    expect(songbook.setLists.short.songs.at(-1)).toBe('new');
    expect(songbook.setLists.set).toEqual(demo.songbook.setLists.set);
  });

  test('a waiver can be taken back', () => {
    const waived = applied(demo, commands.waive(demo, 'w', 'recall/left-over', {}, 'known', 'Left over').steps);
    expect(applied(waived, commands.unwaive(waived, 'w', 'Left over').steps).rig.waivers).toEqual({});
  });

  test('more sounds than slots: no layout', () => {
    const small = applied(demo, commands.setParam(demo, 'switcher', 'banks', 400).steps);
    expect(commands.layOut(small, 'switcher')).not.toBeNull();
    const crowded: Show = {
      ...demo,
      rig: {
        ...demo.rig,
        slots: {},
        casting: {},
        devices: {
          ...demo.rig.devices,
          switcher: {
            ...demo.rig.devices.switcher,
            type: { ...demo.rig.devices.switcher.type, params: { loops: 10, banks: 2, positions: 5 } },
          },
        },
      },
    };
    expect(commands.layOut(crowded, 'switcher')).toBeNull();
  });
});

describe('steps', () => {
  const set = (at: readonly string[], old: unknown, value: unknown): Step => ({
    doc: 'rig',
    op: 'set',
    at,
    old,
    value,
  });

  test('a step whose old value no longer matches is refused, with what is there now', () => {
    const result = applySteps(demo, [set(['devices', 'echo', 'channel'], 9, 4)]);
    expect(result).toMatchObject({
      ok: false,
      problems: [{ code: 'old-value-differs', pointer: '/rig/devices/echo/channel', facts: { now: '2' } }],
    });
  });
  test('an insert where something is, a remove of what is gone', () => {
    expect(applySteps(demo, [{ doc: 'rig', op: 'insert', at: ['places', 'board'], value: {} }])).toMatchObject({
      ok: false,
      problems: [{ code: 'already-there' }],
    });
    expect(applySteps(demo, [{ doc: 'rig', op: 'remove', at: ['places', 'nowhere'], old: {} }])).toMatchObject({
      ok: false,
      problems: [{ code: 'old-value-differs' }],
    });
  });
  test('one refused step refuses the batch, and the show stays the very same object', () => {
    const before = JSON.stringify(demo);
    const result = applySteps(demo, [
      set(['devices', 'echo', 'channel'], 2, 4),
      set(['devices', 'nobody', 'channel'], 1, 2),
    ]);
    expect(result.ok).toBe(false);
    expect(JSON.stringify(demo)).toBe(before);
  });
  test('a result that is not a rig is refused: a jack used twice, a jack that is not there, a value outside its domain', () => {
    const codes = (steps: readonly Step[]) => {
      const result = applySteps(demo, steps);
      return result.ok ? [] : result.problems.map((problem) => problem.code);
    };
    expect(
      codes(
        commands.connect(demo, 'x', [
          { device: 'guitar', jack: 'out' },
          { device: 'switcher', jack: 'return-9' },
        ]).steps,
      ),
    ).toEqual(['jack-taken']);
    expect(
      codes([
        {
          doc: 'rig',
          op: 'insert',
          at: ['cables', 'x'],
          value: {
            ...demo.rig.cables['cable-1'],
            id: 'x',
            plugs: [
              { device: 'guitar', jack: 'usb' },
              { device: 'switcher', jack: 'return-9' },
            ],
          },
        },
      ]),
    ).toEqual(['jack-missing']);
    expect(codes(commands.want(demo, 'sound-1', 'combo/channel', 'crunch').steps)).toEqual(['out-of-domain']);
    expect(codes([set(['devices', 'echo', 'channel'], 2, 17)])).toContain('out-of-domain');
  });
  describe('in a list', () => {
    const roles = ['a', 'b', 'c'];
    const show: Show = { ...demo, rig: { ...demo.rig, settings: { ...demo.rig.settings, roles } } };
    const at = (key: string) => ['settings', 'roles', key];
    const rolesAfter = (steps: readonly Step[]) => applied(show, steps).rig.settings.roles;

    test('an insert goes between, at the end too; a remove closes the gap; a set stays in place; each inverse gives the list back', () => {
      const cases: readonly (readonly [Step, readonly string[]])[] = [
        [{ doc: 'rig', op: 'insert', at: at('0'), value: 'x' }, ['x', 'a', 'b', 'c']],
        [{ doc: 'rig', op: 'insert', at: at('1'), value: 'x' }, ['a', 'x', 'b', 'c']],
        [{ doc: 'rig', op: 'insert', at: at('3'), value: 'x' }, ['a', 'b', 'c', 'x']],
        [{ doc: 'rig', op: 'remove', at: at('1'), old: 'b' }, ['a', 'c']],
        [set(at('2'), 'c', 'x'), ['a', 'b', 'x']],
      ];
      for (const [step, expected] of cases) {
        expect(rolesAfter([step])).toEqual(expected);
        expect(rolesAfter([step, ...invertSteps([step])])).toEqual(roles);
      }
    });

    test.each(['4', '-1', 'foo', '1.0', '01', ' 1', '1e0', 'length', '9999999999'])(
      '%s is no place of three to insert at',
      (key) => {
        expect(applySteps(show, [{ doc: 'rig', op: 'insert', at: at(key), value: 'x' }])).toMatchObject({
          ok: false,
          problems: [{ code: 'out-of-domain', pointer: `/rig/settings/roles/${key}` }],
        });
      },
    );

    test('nothing is removed or set past the last', () => {
      expect(applySteps(show, [{ doc: 'rig', op: 'remove', at: at('3'), old: undefined }])).toMatchObject({
        ok: false,
        problems: [{ code: 'out-of-domain' }],
      });
      expect(applySteps(show, [{ doc: 'rig', op: 'set', at: at('3'), value: 'x' }])).toMatchObject({
        ok: false,
        problems: [{ code: 'out-of-domain' }],
      });
      expect(applySteps(show, [{ doc: 'rig', op: 'set', at: at('1'), value: 'x' }])).toMatchObject({
        ok: false,
        problems: [{ code: 'old-value-differs' }],
      });
    });
  });

  test('a set to the value that is there leaves the show the very same object', () => {
    const result = applySteps(demo, [
      set(['devices', 'echo', 'channel'], 2, 2),
      set(['settings', 'roles'], demo.rig.settings.roles, [...demo.rig.settings.roles]),
    ]);
    expect(result.ok && result.value).toBe(demo);
  });

  test.each([
    ['a control character', 'a\u0007'],
    ['half a character', 'a\ud83c'],
    ['a name that is not in composed form', 'e\u0301'],
    ['a name that is too long', 'x'.repeat(201)],
  ])('%s is refused', (_, name) => {
    expect(applySteps(demo, [set(['name'], demo.rig.name, name)])).toMatchObject({
      ok: false,
      problems: [{ pointer: '/rig/name' }],
    });
  });

  test('of a hundred thousand faults the first fifty are told, quickly', () => {
    const value = {
      ...demo.rig.sounds['sound-1'],
      id: 'x',
      ...Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`k${i}`, i])),
    };
    const result = applySteps(demo, [{ doc: 'rig', op: 'insert', at: ['sounds', 'x'], value }]);
    expect(result.ok ? 0 : result.problems.length).toBe(50);
  });

  test.each(['__proto__', 'constructor', 'prototype'])('%s is no place to write to', (key) => {
    expect(applySteps(demo, [{ doc: 'rig', op: 'insert', at: ['devices', key], value: {} }])).toMatchObject({
      ok: false,
      problems: [{ code: 'forbidden-key' }],
    });
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
