import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { type BankSwitch, type FloorPoint, layoutCost, mostValue, roleMismatches } from './layout-cost.ts';

type Place = { readonly at: FloorPoint } | { readonly pair: readonly [number, number] };
interface LayoutCase {
  readonly id: string;
  readonly inputs: {
    readonly controller: {
      readonly banks: number;
      readonly at: readonly FloorPoint[];
      readonly up?: Place;
      readonly down?: Place;
      readonly wrap?: boolean;
      readonly start?: number;
    };
    readonly sounds: Readonly<Record<string, string>>;
    readonly set: readonly {
      readonly song: string;
      readonly parts: readonly string[];
      readonly segue?: boolean;
      readonly sent?: boolean;
    }[];
    readonly school?: 'free' | 'role' | 'song';
    readonly layouts: readonly (readonly (readonly string[])[])[];
  };
  readonly expected: { readonly layouts: readonly ({ readonly allowed: boolean } & Record<string, unknown>)[] };
}

const { cases } = JSON.parse(readFileSync(new URL('../../fixtures/layout-cases.json', import.meta.url), 'utf8')) as {
  readonly cases: readonly LayoutCase[];
};

// Source: plain enumeration of all layouts, walked press by press, and an answer-set solver over pair costs.
describe('layouts walked by another program', () => {
  test('there are many of them', () => expect(cases.length).toBeGreaterThan(10));

  const laid = cases.flatMap(({ id, inputs, expected }) =>
    inputs.layouts.map((layout, i) => ({
      name: `${id}, layout ${i + 1}`,
      inputs,
      layout,
      expected: expected.layouts[i],
    })),
  );
  test.each(laid.filter(({ expected }) => expected.allowed))('$name', ({ inputs, layout, expected }) => {
    const { controller, set, sounds, school } = inputs;
    const placeOf = new Map(
      layout.flatMap((bank, b) => bank.map((item, position) => [item, { bank: b, position }] as const)),
    );
    const onFloor = (place: Place | undefined): BankSwitch | null =>
      place === undefined
        ? null
        : 'at' in place
          ? place.at
          : ([0, 1].map((i) => (controller.at[place.pair[0]][i] + controller.at[place.pair[1]][i]) / 2) as never);
    const changes = set.flatMap(({ song, parts, segue, sent }, at) =>
      parts.map((sound, i) => ({
        ...placeOf.get(school === 'song' ? `${song}/${sound}` : sound)!,
        hurried: i > 0 || (at > 0 && segue === true),
        sent: i === 0 && sent === true,
      })),
    );
    const cost = layoutCost(
      {
        banks: controller.banks,
        at: controller.at,
        up: onFloor(controller.up),
        down: onFloor(controller.down),
        wrap: controller.wrap ?? false,
        start: controller.start ?? 0,
      },
      changes,
    )!;
    const roles = [...placeOf]
      .filter(([item]) => item !== '')
      .map(([item, place]) => ({ ...place, role: sounds[item.split('/').at(-1)!] }));
    expect({
      presses: cost.presses,
      moves_hurried: cost.hurriedBankMoves,
      moves_between: cost.otherBankMoves,
      travel_mm: cost.travelMm,
      mismatches: roleMismatches(roles, controller.at.length),
    }).toEqual({
      presses: expected.presses,
      moves_hurried: expected.moves_hurried,
      moves_between: expected.moves_between,
      travel_mm: expected.travel_mm,
      mismatches: expected.mismatches,
    });
  });
});

test('a bank that no switch leads to: no cost, since the set cannot be played', () => {
  const unit = { banks: 3, at: [[0, 0]] as const, up: 'unplaced', down: null, wrap: false, start: 1 } as const;
  const change = (bank: number) => [{ bank, position: 0, hurried: false, sent: false }];
  expect(layoutCost(unit, change(0))).toBeNull();
  expect(layoutCost(unit, change(2))).toEqual({ presses: 2, hurriedBankMoves: 0, otherBankMoves: 1, travelMm: 0 });
});

test.each([1, 2, 3])('seed %i: the most that pairs are worth, as trying all of them says', (seed) => {
  const r = new Random(seed);
  for (let round = 0; round < 60; round += 1) {
    const [rows, columns] = [r.below(5), 1 + r.below(5)];
    const values = Array.from({ length: rows }, () => Array.from({ length: columns }, () => r.below(6)));
    const best = (row: number, free: readonly number[]): number =>
      row === rows
        ? 0
        : Math.max(
            best(row + 1, free),
            ...free.map(
              (c) =>
                values[row][c] +
                best(
                  row + 1,
                  free.filter((x) => x !== c),
                ),
            ),
          );
    expect(mostValue(values, columns)).toBe(
      best(
        0,
        Array.from({ length: columns }, (_, i) => i),
      ),
    );
  }
});
