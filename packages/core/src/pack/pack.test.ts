import { describe, expect, test } from '@jest/globals';
import { applySteps } from '../change/steps.ts';
import type { Show } from '../model/documents.ts';
import { isDate } from '../model/pack.ts';
import { isWiredAlike } from '../model/wiring.ts';
import { validateRig } from '../model/validate.ts';
import { endsIn, onBoard, standsAt } from '../testing/board-rigs.ts';
import { packedRig, withPacking, withShopping } from '../testing/pack-rigs.ts';
import { powered, withPowerCable } from '../testing/power-rigs.ts';
import { ordinary, withDevice } from '../testing/rule-rigs.ts';
import { filledCases, nioshLoad, packed, putInCase, setPacking, tagLines, unpacked } from './cases.ts';
import { billOf, dayBefore, neededParts, partsToBuy, setPart, substitutesFor } from './parts.ts';

const done = (show: Show, steps: Parameters<typeof applySteps>[1]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

describe('cases', () => {
  test('weigh what is in them, and say how many hands that takes', () => {
    // Switcher 1000, drive 400, delay 800, supply 900, case 4000; combo 18000 with its case of 3000.
    expect(filledCases(packedRig().rig).map(({ grams, lift }) => [grams, lift])).toEqual([
      [7_100, 'one hand'],
      [21_000, 'two hands'],
    ]);
    expect(nioshLoad).toBe(23);
  });
  test('what is in none yet is told; items count besides devices', () => {
    const show = withPacking(packedRig(), {
      ...packedRig().rig.settings.pack,
      items: [{ id: 'strings', name: 'Strings', count: 6, grams: 30, case: 'pedals' }],
    });
    expect(unpacked(show.rig).map(({ name }) => name)).toEqual(['Guitar', 'Cabinet']);
    expect(filledCases(show.rig)[0].grams).toBe(7_280);
    expect(packed(show.rig).at(-1)).toMatchObject({ name: 'Strings', grams: 180 });
  });
  test('a case that is gone holds nothing', () => {
    const show = withPacking(packedRig(), { cases: [] });
    expect(unpacked(show.rig)).toHaveLength(packed(show.rig).length);
  });
  test('a tag has three lines', () => {
    const [pedals] = filledCases(
      withPacking(packedRig(), {
        cases: [{ id: 'pedals', name: 'Pedal case', grams: 4_000, travels: 'hold', tape: 'yellow', packer: 'Ines' }],
      }).rig,
    );
    expect(tagLines(packedRig().rig, pedals)).toEqual([
      'Rig: Pedal case',
      'yellow tape, in the hold, packed by Ines',
      '7.1 kg, one hand',
    ]);
  });
  test('packing changes neither signal nor proof', () => {
    const show = packedRig();
    expect(isWiredAlike(show.rig, done(show, putInCase(show, 'drive', 'amp').steps).rig)).toBe(true);
    expect(done(show, setPacking(show, { cases: undefined }).steps).rig.settings.pack).toBeUndefined();
  });
  test.each([
    ['a weight below nothing', { cases: [{ id: 'a', name: 'A', grams: -1 }] }],
    ['not a number', { items: [{ id: 'a', name: 'A', count: 1, grams: Number.NaN }] }],
    ['no name', { items: [{ id: 'a', name: '', count: 1 }] }],
    ['no size', { cases: [{ id: 'a', name: 'A', size: [0, 1, 1] }] }],
  ])('refused: %s', (_, pack) => {
    expect(validateRig(withPacking(packedRig(), pack as never).rig).ok).toBe(false);
  });
});

describe('parts', () => {
  test('are counted from the patch: connectors by kind and angle, leads, metres', () => {
    const parts = new Map(
      neededParts(standsAt(onBoard(), { drive: { x: 300, y: 20 } }).rig).map(({ name, needed }) => [name, needed]),
    );
    expect(parts.get('6.3 mm plug, loudspeaker')).toBe(2);
    expect(parts.get('MIDI cable')).toBe(1);
    expect(parts.get('barrel 2.1 mm')).toBe(6);
    expect([...parts.keys()].some((name) => name.endsWith('angled'))).toBe(true);
    // Eight signal cables of a metre each; contacts and power apart.
    expect(parts.get('Metre of instrument cable')).toBe(8);
  });
  test('to be bought is what is needed and its spares, less what there is', () => {
    const show = withShopping(powered(), {
      firstShow: '2027-03-01',
      rows: [
        { name: 'MIDI cable', have: 1, spares: 1, low: 10, high: 15, days: 7 },
        { name: 'Gaffer tape', wanted: 2, low: 8 },
      ],
    });
    const of = (name: string) => partsToBuy(show.rig).find((part) => part.name === name)!;
    expect(of('MIDI cable')).toMatchObject({ buy: 1, price: [10, 15], orderBy: '2027-02-22' });
    expect(of('Gaffer tape')).toMatchObject({ buy: 2, price: [16, 16], orderBy: null });
    expect(of('barrel 2.1 mm')).toMatchObject({ needed: 6, spares: 2, buy: 8, price: null });
    expect(billOf(show.rig)).toMatchObject({ low: 26, high: 31, overBudget: false });
    expect(billOf(withShopping(show, { ...show.rig.settings.shop, budget: 20 }).rig).overBudget).toBe(true);
  });
  test('spares are counted by the rule of their kind, unless said of one part', () => {
    const of = (show: Show, name: string) => partsToBuy(show.rig).find((part) => part.name === name)!.spares;
    const show = withShopping(powered(), {
      spares: { connector: 5, metre: 3 },
      rows: [{ name: 'barrel 2.1 mm', spares: 1 }],
    });
    expect(
      ['6.3 mm plug', 'barrel 2.1 mm', 'MIDI cable', 'Metre of instrument cable'].map((name) => of(show, name)),
    ).toEqual([5, 1, 1, 3]);
  });
  test('a piece that is not there yet is one of them, with its own price and days', () => {
    const { type } = powered().rig.devices.drive;
    const show = withShopping(
      withDevice(powered(), 'drive', { type: { ...type, buy: { isWanted: true, low: 90, high: 120, days: 14 } } }),
      { firstShow: '2027-03-01' },
    );
    expect(partsToBuy(show.rig)[0]).toMatchObject({
      name: 'Drive',
      spares: 0,
      buy: 1,
      price: [90, 120],
      orderBy: '2027-02-15',
    });
    const there = withDevice(show, 'drive', { type: { ...type, buy: { low: 90 } } });
    expect(partsToBuy(there.rig).some(({ name }) => name === 'Drive')).toBe(false);
  });
  test('what would do in the meantime: a plug that goes in with as little room, a piece that does the same', () => {
    const meanwhile = (show: Show, name: string) => {
      const parts = partsToBuy(show.rig);
      return substitutesFor(
        show.rig,
        parts.find((part) => part.name === name)!,
        parts,
      );
    };
    const rows = ['6.3 mm plug, three poles', '6.3 mm plug, angled', 'XLR, male'].map((name) => ({ name, have: 5 }));
    const show = withShopping(
      endsIn(
        endsIn(standsAt(onBoard(), { drive: { x: 300, y: 20 } }), { plug: '6.3 mm plug, three poles' }),
        { plug: 'XLR, male' },
        'out',
      ),
      { rows },
    );
    expect(meanwhile(show, '6.3 mm plug')).toEqual(['6.3 mm plug, three poles', '6.3 mm plug, angled']);
    // Neither is bent, and a straight one has no room.
    const bent = withShopping(endsIn(onBoard(), { plug: '6.3 mm plug', bent: true }), { rows: rows.slice(0, 1) });
    expect(meanwhile(bent, '6.3 mm plug, angled')).toEqual([]);
    expect(meanwhile(withShopping(show, { rows: [] }), '6.3 mm plug')).toEqual([]);
    const two = ordinary().device('second', 'drive', 'Second drive').show;
    const { type } = two.rig.devices.drive;
    const wanted = withDevice(two, 'drive', { type: { ...type, buy: { isWanted: true } } });
    expect(meanwhile(wanted, 'Drive')).toEqual(['Second drive']);
  });
  test('a reversing lead is asked for where the patch has one', () => {
    const show = withPowerCable(powered(), 'drive', { lead: { reverses: ['drive'] } });
    expect(neededParts(show.rig)).toContainEqual({
      name: 'Reversing power lead',
      kind: 'whole',
      needed: 1,
      by: ['Drive'],
    });
  });
  test('what is known of a part, and forgotten again', () => {
    const show = ordinary().show;
    const known = done(show, setPart(show, 'MIDI cable', { have: 3 }).steps);
    expect(known.rig.settings.shop).toEqual({ rows: [{ name: 'MIDI cable', have: 3 }] });
    expect(done(known, setPart(known, 'MIDI cable', { have: undefined }).steps)).toEqual(show);
  });
  test.each([
    ['2027-03-01', 1, '2027-02-28'],
    ['2028-03-01', 1, '2028-02-29'],
    ['2027-01-01', 7, '2026-12-25'],
    ['2027-02-30', 1, null],
    ['soon', 1, null],
  ] as const)('%s less %i days: %s', (iso, days, expected) => {
    expect(dayBefore(iso, days)).toBe(expected);
  });
  test('a date is written year first', () => {
    expect(['2027-03-01', '2027-13-01', '01.03.2027'].map(isDate)).toEqual([true, false, false]);
  });
});
