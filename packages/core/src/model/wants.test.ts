import { expect, test } from '@jest/globals';
import { demoShow, flyShow } from '../demo/demo.ts';
import { seededShow } from '../testing/compare.ts';
import { retraceRig } from '../testing/large-rigs.ts';
import type { ControlValue } from './anatomy.ts';
import type { Sound } from './rig.ts';
import { switchingOf } from './switching.ts';
import { wantsOf } from './wants.ts';
import { buildWiring, type Wiring } from './wiring.ts';

/**
 * The same as a player reads a sound: each pedal by its loop and switch, then what is wanted by name, the last word
 * counting.
 */
function read(wiring: Wiring, sound: Sound): Record<string, ControlValue> {
  const switching = switchingOf(wiring);
  const wants: Record<string, ControlValue> = {};
  for (const [device, state] of Object.entries(sound.pedals)) {
    const { loop, own } = switching.get(device) ?? {};
    if (state === 'on') for (const ref of [loop, own]) if (ref !== undefined) wants[ref] = 1;
    if (state === 'off' && (own ?? loop) !== undefined) wants[(own ?? loop)!] = 0;
  }
  Object.assign(wants, sound.wants);
  return Object.fromEntries(Object.entries(wants).filter(([ref]) => wiring.controls.numberOf.has(ref)));
}

const shows = [
  demoShow(),
  flyShow(),
  retraceRig().show,
  ...Array.from({ length: 30 }, (_, seed) => seededShow(seed + 1)),
];

test('a sound wants by number what it wants by name, each control once', () => {
  let compared = 0;
  for (const show of shows) {
    const wiring = buildWiring(show.rig);
    for (const sound of Object.values(show.rig.sounds)) {
      const wants = wantsOf(wiring, sound);
      const expected = read(wiring, sound);
      expect(new Set(wants.controls).size).toBe(wants.controls.length);
      expect(
        Object.fromEntries(wants.controls.map((control, i) => [wiring.controls.refs[control], wants.controlValues[i]])),
      ).toEqual(expected);
      for (const [control, ref] of wiring.controls.refs.entries()) expect(wants.of(control)).toBe(expected[ref]);
      compared += wants.controls.length;
    }
  }
  expect(compared).toBeGreaterThan(1000);
});

test('controls are numbered device by device, presets last, and found again by their names', () => {
  for (const show of shows) {
    const { devices, controls } = buildWiring(show.rig);
    const refs = devices.flatMap(({ device, anatomy }) => [
      ...anatomy.controls.map(({ id }) => `${device.id}/${id}`),
      ...(anatomy.presets ? [`${device.id}/preset`] : []),
    ]);
    expect(controls.refs).toEqual(refs);
    expect(refs.map((ref) => controls.numberOf.get(ref))).toEqual([...refs.keys()]);
    for (const { device, firstControl, anatomy } of devices)
      if (anatomy.controls.length > 0)
        expect(controls.refs[firstControl]).toBe(`${device.id}/${anatomy.controls[0].id}`);
  }
});

test('devices that say the same share their anatomy; one that differs in a parameter has its own', () => {
  const { rig } = demoShow();
  const copy = JSON.parse(JSON.stringify(rig)) as typeof rig;
  const wiring = buildWiring(copy);
  const again = buildWiring({
    ...copy,
    devices: Object.fromEntries(
      Object.entries(copy.devices).flatMap(([id, device]) => [
        [id, device],
        [`${id}-2`, { ...device, id: `${id}-2`, type: { ...device.type } }],
      ]),
    ),
  });
  for (const { device, anatomy } of wiring.devices) {
    expect(again.device.get(`${device.id}-2`)!.anatomy).toBe(again.device.get(device.id)!.anatomy);
    expect(again.device.get(`${device.id}-2`)!.anatomy).toEqual(anatomy);
  }
  const types = wiring.devices.map(
    ({ device, anatomy }) => [JSON.stringify([device.type.archetype, device.type.params]), anatomy] as const,
  );
  for (const [one, first] of types) for (const [other, second] of types) expect(first === second).toBe(one === other);
});
