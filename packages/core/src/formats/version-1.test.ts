import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { applySteps, type Step } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { importShow } from './json.ts';
import { showOfToday, stepOfToday, storedShow } from './version-1.ts';

/** As before there was anything about power or outlines in a rig. */
function withoutPower({ rig, songbook }: Show): Show {
  const { power: _, reels: _reels, pack: _pack, shop: _shop, ...settings } = rig.settings;
  const { stage: _stage, ...places } = rig.places;
  const { board: _board, ...place } = places.board;
  const entries = Object.entries(rig.devices);
  return {
    songbook,
    rig: {
      ...rig,
      settings,
      places: { ...places, board: place },
      devices: Object.fromEntries(
        entries
          .filter(([id]) => !['supply', 'strip'].includes(id))
          .map(([id, device]) => {
            const { power: __, body: ___, ...type } = device.type;
            const { at: ____, case: _____, ...rest } = device;
            return [id, { ...rest, type }];
          }),
      ),
      cables: Object.fromEntries(
        Object.entries(rig.cables).filter(([, { kind }]) => kind !== 'power' && kind !== 'mains'),
      ),
    },
  };
}

const file = readFileSync(new URL('../../fixtures/demo-version-1.json', import.meta.url), 'utf8');
const old = JSON.parse(file);
const step = (op: Step['op'], at: readonly string[], more: object): Step =>
  ({ doc: 'rig', op, at, ...more }) as unknown as Step;

describe('what was stored in version 1', () => {
  test('is read: the demo as it was exported then is the demo of today', () => {
    expect(file).toContain('"kind": "loop"');
    expect(importShow(file)).toEqual({ ok: true, value: withoutPower(demoShow()) });
  });
  test('a small show too', () => {
    const read = importShow(readFileSync(new URL('../../fixtures/show-version-1.json', import.meta.url), 'utf8'));
    expect(read.ok && [read.value.rig.version, read.value.songbook.version]).toEqual([2, 2]);
  });
  test('a rig and a songbook from the database too; what is of today is the very same object', () => {
    expect(storedShow(old.rig, old.songbook).rig.version).toBe(2);
    const now = demoShow();
    expect(showOfToday(now)).toBe(now);
  });
  test.each([
    ['a stored control', { is: 'as-left' }, { is: 'last-state' }],
    ['a value', { is: 'value', value: 1 }, { is: 'value', value: 1 }],
  ])('of what power-up leaves: %s', (_, was, is) => {
    const rig = { version: 1, devices: { amp: { powerUps: { on: was } } } };
    expect(storedShow(rig, { version: 1 }).rig).toEqual({ version: 2, devices: { amp: { powerUps: { on: is } } } });
  });
  test('of what a declared anatomy says', () => {
    const anatomy = {
      controls: [{ id: 'on', powerUp: { is: 'as-left' } }],
      presets: { powerUp: { is: 'as-left' } },
      sections: [{ id: 'wet', governedBy: ['mix'] }],
      switches: [{ id: 'fs', does: [{ toggle: 'on' }] }],
    };
    const rig = { version: 1, devices: { unit: { type: { archetype: 'declared', params: { anatomy } } } } };
    expect(storedShow(rig, { version: 1 }).rig.devices.unit.type.params.anatomy).toEqual({
      controls: [{ id: 'on', powerUp: { is: 'last-state' } }],
      presets: { powerUp: { is: 'last-state' } },
      sections: [{ id: 'wet', parameters: ['mix'] }],
      switches: [{ id: 'fs', actions: [{ toggle: 'on' }] }],
    });
  });
  test('a device that is called as a field is keeps its id', () => {
    const rig = { version: 1, devices: { schools: { countsFrom: 1 }, countsFrom: { plannedFeet: [] } } };
    expect(storedShow(rig, { version: 1 }).rig.devices).toEqual({
      schools: { firstPresetNumber: 1 },
      countsFrom: { plannedSwitches: [] },
    });
  });
});

describe('a step of version 1', () => {
  test.each([
    [step('set', ['devices', 'echo', 'countsFrom'], { value: 1, old: 0 }), ['devices', 'echo', 'firstPresetNumber']],
    [step('set', ['settings', 'schools'], { value: { gate: 'last of the line' } }), ['settings', 'conventions']],
    [step('insert', ['songs', 'x'], { value: {} }), ['songs', 'x']],
  ])('%j is at %j', (sent, at) => expect(stepOfToday(sent).at).toEqual(at));
  test('puts there what it meant', () => {
    const save = { kind: 'save', loop: 'loop-1' };
    const loop = { kind: 'loop', loop: 'loop-2', to: 1 };
    const sent = step('set', ['slots', 'a', 'actions'], { value: [loop, save], old: null });
    expect(stepOfToday(sent)).toEqual(
      step('set', ['slots', 'a', 'actions'], {
        value: [
          { kind: 'set', control: 'loop-2', value: 1 },
          { kind: 'save', control: 'loop-1' },
        ],
        old: null,
      }),
    );
    const device = step('insert', ['devices', 'x'], { value: { countsFrom: 0, plannedFeet: ['a'] } });
    expect(stepOfToday(device)).toMatchObject({ value: { firstPresetNumber: 0, plannedSwitches: ['a'] } });
  });
  test('applies to a rig of today; one of today is left as it is', () => {
    const show = demoShow();
    const [id, device] = Object.entries(show.rig.devices)[0];
    const other = 1 - device.firstPresetNumber;
    const sent = step('set', ['devices', id, 'countsFrom'], { value: other, old: device.firstPresetNumber });
    const applied = applySteps(show, [stepOfToday(sent)]);
    expect(applied.ok && applied.value.rig.devices[id].firstPresetNumber).toBe(other);
    const today = step('set', ['devices', id, 'firstPresetNumber'], { value: 1, old: 0 });
    expect(stepOfToday(today)).toEqual(today);
  });
});
