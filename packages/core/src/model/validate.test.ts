import { describe, expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import type { Show } from './documents.ts';
import { presetIsThere, showProblems, validateRig, validateSongbook } from './validate.ts';

type Path = readonly (string | number)[];
type Tree = { [key: string]: Tree };
/** The demo with one place changed by hand, as a file from elsewhere may have it. */
function changed(...changes: readonly (readonly [Path, unknown])[]): Show {
  const show = JSON.parse(JSON.stringify(demoShow())) as Show;
  for (const [path, value] of changes) {
    const holder = path.slice(0, -1).reduce<Tree>((here, key) => here[key], show as unknown as Tree);
    holder[path[path.length - 1]] = value as Tree;
  }
  return show;
}
const problemsOf = (show: Show): readonly string[] => {
  const rig = validateRig(show.rig, '/rig');
  const songbook = validateSongbook(show.songbook, '/songbook');
  return [...(rig.ok ? [] : rig.problems), ...(songbook.ok ? [] : songbook.problems)].map(
    (problem) => `${problem.pointer} ${problem.code}`,
  );
};
test('the demo is in order', () => {
  expect(problemsOf(demoShow())).toEqual([]);
  expect(showProblems(demoShow())).toEqual([]);
});

describe('what a rig refers to must be there', () => {
  const cables = demoShow().rig.cables;
  const [cable, other] = Object.values(cables).filter((cable) => cable.kind === 'signal');
  const midi = Object.values(cables).find((cable) => cable.kind === 'midi')!;
  const slot = Object.values(demoShow().rig.slots)[0];
  const cast = Object.values(demoShow().rig.casting)[0];
  const part = Object.values(demoShow().songbook.parts)[0];
  const list = Object.values(demoShow().songbook.setLists)[0];
  const cases: readonly (readonly [string, Path, unknown, string])[] = [
    [
      'a device in a place that is not there',
      ['rig', 'devices', 'echo', 'place'],
      'moon',
      '/rig/devices/echo/place not-found',
    ],
    [
      'a device filed under another id',
      ['rig', 'devices', 'echo', 'id'],
      'other',
      '/rig/devices/echo/id out-of-domain',
    ],
    [
      'an archetype that nobody knows',
      ['rig', 'devices', 'echo', 'type', 'archetype'],
      'theremin',
      '/rig/devices/echo/type/archetype out-of-domain',
    ],
    [
      'a parameter outside its domain',
      ['rig', 'devices', 'echo', 'type', 'params', 'presets'],
      0,
      '/rig/devices/echo/type/params/presets out-of-domain',
    ],
    [
      'a foot switch that it does not have',
      ['rig', 'devices', 'echo', 'plannedSwitches'],
      ['left-toe'],
      '/rig/devices/echo/plannedSwitches not-found',
    ],
    [
      'an owner of a control that it does not have',
      ['rig', 'devices', 'echo', 'owners'],
      { sparkle: 'foot' },
      '/rig/devices/echo/owners not-found',
    ],
    [
      'a jack used alone that it does not have',
      ['rig', 'devices', 'echo', 'oneWay'],
      ['send-77'],
      '/rig/devices/echo/oneWay not-found',
    ],
    [
      'a preset that stores a control that it does not have',
      ['rig', 'devices', 'echo', 'presets', '3'],
      { values: { sparkle: 1 } },
      '/rig/devices/echo/presets/3/values/sparkle not-found',
    ],
    [
      'a preset that stores a value outside its domain',
      ['rig', 'devices', 'echo', 'presets', '3'],
      { values: { mix: 400 } },
      '/rig/devices/echo/presets/3/values/mix out-of-domain',
    ],
    [
      'a call of a slot that is not there',
      ['rig', 'devices', 'switcher', 'calls'],
      { channel: 1, programs: { '5': 'gone' } },
      '/rig/devices/switcher/calls not-found',
    ],
    [
      'a slot that fires at power-up and is not there',
      ['rig', 'devices', 'switcher', 'powerUpSlot'],
      'gone',
      '/rig/devices/switcher/calls not-found',
    ],
    [
      'a plug in a device that is not there',
      ['rig', 'cables', cable.id, 'plugs', 0, 'device'],
      'gone',
      `/rig/cables/${cable.id}/plugs/0 not-found`,
    ],
    [
      'a plug in a jack that is not there',
      ['rig', 'cables', cable.id, 'plugs', 0, 'jack'],
      'send-77',
      `/rig/cables/${cable.id}/plugs/0 jack-missing`,
    ],
    [
      'two plugs in one jack',
      ['rig', 'cables', other.id, 'plugs', 0],
      cable.plugs[0],
      `/rig/cables/${other.id}/plugs/0 jack-taken`,
    ],
    [
      'a MIDI cable in a signal jack',
      ['rig', 'cables', cable.id, 'kind'],
      'midi',
      `/rig/cables/${cable.id}/plugs/0 jack-kind`,
    ],
    [
      'a signal cable in a MIDI jack',
      ['rig', 'cables', midi.id, 'kind'],
      'signal',
      `/rig/cables/${midi.id}/plugs/0 jack-kind`,
    ],
    [
      'a sound that wants a pedal that is not there',
      ['rig', 'sounds', 'sound-1', 'pedals', 'gone'],
      'on',
      '/rig/sounds/sound-1/pedals/gone not-found',
    ],
    [
      'a sound that wants a control that is not there',
      ['rig', 'sounds', 'sound-1', 'wants', 'echo/sparkle'],
      1,
      '/rig/sounds/sound-1/wants/echo~1sparkle not-found',
    ],
    [
      'a sound that wants a control of a device that is not there',
      ['rig', 'sounds', 'sound-1', 'wants', 'gone/mix'],
      1,
      '/rig/sounds/sound-1/wants/gone~1mix not-found',
    ],
    [
      'a sound that wants a value outside its domain',
      ['rig', 'sounds', 'sound-1', 'wants', 'echo/mix'],
      400,
      '/rig/sounds/sound-1/wants/echo~1mix out-of-domain',
    ],
    [
      'a sound that wants a preset by name',
      ['rig', 'sounds', 'sound-1', 'wants', 'echo/preset'],
      'wide',
      '/rig/sounds/sound-1/wants/echo~1preset wrong-type',
    ],
    [
      'a preset of a device without presets',
      ['rig', 'sounds', 'sound-1', 'wants', 'guitar/preset'],
      1,
      '/rig/sounds/sound-1/wants/guitar~1preset not-found',
    ],
    [
      'a slot on a device that is no controller',
      ['rig', 'slots', slot.id, 'controller'],
      'echo',
      `/rig/slots/${slot.id}/controller not-found`,
    ],
    [
      'a slot in a bank past the last',
      ['rig', 'slots', slot.id, 'bank'],
      9999,
      `/rig/slots/${slot.id}/bank out-of-domain`,
    ],
    [
      'a slot on a switch past the last',
      ['rig', 'slots', slot.id, 'position'],
      99,
      `/rig/slots/${slot.id}/position out-of-domain`,
    ],
    [
      'a slot of a sound that is not there',
      ['rig', 'slots', slot.id, 'sound'],
      'gone',
      `/rig/slots/${slot.id}/sound not-found`,
    ],
    [
      'a part played by a slot that is not there',
      ['rig', 'casting', cast.id, 'slot'],
      'gone',
      `/rig/casting/${cast.id}/slot not-found`,
    ],
    [
      'a part of a song that is not there',
      ['songbook', 'parts', part.id, 'song'],
      'gone',
      `/songbook/parts/${part.id}/song not-found`,
    ],
    [
      'a list with a song that is not there',
      ['songbook', 'setLists', list.id, 'songs'],
      ['gone'],
      `/songbook/setLists/${list.id}/songs/0 not-found`,
    ],
  ];
  test.each(cases)('%s', (_, path, value, expected) => expect(problemsOf(changed([path, value]))).toContain(expected));

  test('two slots under one switch: the second is told', () => {
    const [one, two] = Object.values(demoShow().rig.slots);
    expect(
      problemsOf(
        changed([['rig', 'slots', two.id, 'bank'], one.bank], [['rig', 'slots', two.id, 'position'], one.position]),
      ),
    ).toEqual([`/rig/slots/${two.id} duplicate`]);
  });
  test('a part cast to a slot and a sound at once, to neither, to a sound that is gone', () => {
    expect(problemsOf(changed([['rig', 'casting', cast.id, 'sound'], 'sound-1']))).toEqual([
      `/rig/casting/${cast.id}/sound wrong-type`,
    ]);
    expect(problemsOf(changed([['rig', 'casting', cast.id, 'slot'], null]))).toEqual([
      `/rig/casting/${cast.id}/sound wrong-type`,
    ]);
    const both = [
      [['rig', 'casting', cast.id, 'slot'], null],
      [['rig', 'casting', cast.id, 'sound'], 'gone'],
    ] as const;
    expect(problemsOf(changed(...both))).toEqual([`/rig/casting/${cast.id}/sound not-found`]);
  });
  test('one part cast twice', () => {
    const [one, two] = Object.values(demoShow().rig.casting);
    expect(problemsOf(changed([['rig', 'casting', two.id, 'part'], one.part]))).toEqual([
      `/rig/casting/${two.id}/part duplicate`,
    ]);
  });
  test('a part that the songbook beside it does not have', () => {
    expect(showProblems(changed([['rig', 'casting', cast.id, 'part'], 'gone']))).toEqual([
      { pointer: `/rig/casting/${cast.id}/part`, code: 'not-found', facts: { what: 'part', id: 'gone' } },
    ]);
  });
});

describe('what was found in order is not looked at again', () => {
  test('but is, once what it refers to has changed', () => {
    const { rig } = demoShow();
    expect(validateRig(rig).ok).toBe(true);
    const { echo: _, ...rest } = rig.devices;
    const result = validateRig({ ...rig, devices: rest });
    expect(result.ok).toBe(false);
    expect(validateRig(rig).ok).toBe(true);
    const { [Object.keys(rig.slots)[0]]: gone, ...slots } = rig.slots;
    const called = { ...rig, devices: { ...rig.devices, switcher: { ...rig.devices.switcher, powerUpSlot: gone.id } } };
    expect(validateRig(called).ok).toBe(true);
    expect(validateRig({ ...called, slots })).toMatchObject({
      ok: false,
      problems: expect.arrayContaining([
        expect.objectContaining({ pointer: '/devices/switcher/calls', code: 'not-found' }),
      ]),
    });
  });
  test('at most fifty problems are told', () => {
    const wants = Object.fromEntries(Array.from({ length: 60 }, (_, i) => [`gone/${i}`, 1]));
    const show = changed([['rig', 'sounds', 'sound-1', 'wants'], wants]);
    expect(problemsOf(show)).toHaveLength(50);
  });
});

test('whether a preset can be recalled at all', () => {
  const { echo, guitar } = demoShow().rig.devices;
  expect([presetIsThere(echo, 0), presetIsThere(echo, 100_000), presetIsThere(guitar, 0)]).toEqual([
    true,
    false,
    false,
  ]);
});
