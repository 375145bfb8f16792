import { beforeEach, describe, expect, test } from '@jest/globals';
import { buildStateModel } from './state-model.ts';
import { type CompiledEvent, compileEvent } from './compiled.ts';
import { ordinaryEvents } from './events.ts';
import { compiler } from '../program/compile.ts';
import { wire } from '../model/wiring.ts';
import { seededShow } from '../testing/compare.ts';
import { Random } from '../testing/random.ts';
import { Effect, Reader } from './effect.ts';
import { type Row, Stepper } from './stepper.ts';
import { NeedVariable, PartialStore, type Store } from './store.ts';
import { NeedPin } from './values.ts';

const place = PartialStore.places(4, [0, 1, 2]);
const row = (...values: number[]): Row => values;
/** The row that an effect leads to; null where it led to the very same one before. */
const ledTo = (effect: Effect, from: Row): Row | null => {
  const into: Row = [];
  return effect.leadsTo(from, into) ? into : null;
};

describe('an effect', () => {
  let runs = 0;
  /** Where variable 0 is 1, variable 1 goes to what variable 2 is; else to 9. */
  const copies = (store: Store) => {
    runs += 1;
    store.set(1, store.get(0) === 1 ? store.get(2) : 9);
  };
  const effectOf = (act: (store: Store) => void) => new Effect(new Reader(place, new Map(), 4), act);
  beforeEach(() => {
    runs = 0;
  });

  test('is worked out once for rows that agree in what it reads', () => {
    const effect = effectOf(copies);
    for (const [before, after] of [
      [row(0, 4, 5, 0), [0, 9, 5, 0]],
      [row(0, 7, 6, 1), [0, 9, 6, 1]],
      [row(1, 4, 5, 0), [1, 5, 5, 0]],
      [row(1, 8, 5, 0), [1, 5, 5, 0]],
      [row(1, 8, 6, 0), [1, 6, 6, 0]],
    ] as const) {
      expect(effect.valueAfter(before, 1)).toBe(after[1]);
      expect(effect.valueAfter(before, 2)).toBe(before[2]);
      effect.apply(before);
      expect([...before]).toEqual(after);
    }
    expect(runs).toBe(3);
  });

  test('does not count as read what it wrote itself', () => {
    const effect = effectOf((store) => {
      runs += 1;
      store.set(0, 3);
      store.set(1, store.get(0));
    });
    for (const value of [1, 2, 3]) expect(effect.valueAfter(row(value, value, 0, 0), 1)).toBe(3);
    expect(runs).toBe(1);
  });

  test('leads to a row once, for each last column, where it writes or reads every other', () => {
    const all = effectOf((store) => {
      for (const variable of [0, 1, 2]) store.set(variable, 7);
    });
    expect(ledTo(all, row(1, 2, 3, 0))).toEqual([7, 7, 7, 0]);
    expect(ledTo(all, row(4, 5, 6, 0))).toBeNull();
    expect(ledTo(all, row(4, 5, 6, 1))).toEqual([7, 7, 7, 1]);
    const some = effectOf(copies);
    expect(ledTo(some, row(0, 1, 2, 0))).toEqual([0, 9, 2, 0]);
    expect(ledTo(some, row(0, 5, 6, 0))).toEqual([0, 9, 6, 0]);
    // It reads 0 and 2 where 0 is 1: what 1 was before makes no difference.
    expect(ledTo(some, row(1, 5, 6, 0))).toEqual([1, 6, 6, 0]);
    expect(ledTo(some, row(1, 7, 6, 0))).toBeNull();
    expect(ledTo(some, row(1, 7, 6, 1))).toEqual([1, 6, 6, 1]);
    expect(ledTo(some, row(1, 7, 8, 0))).toEqual([1, 8, 8, 0]);
  });

  test('refuses what the machine does not follow, and asks again the next time', () => {
    const effect = effectOf((store) => void store.get(3));
    for (let i = 0; i < 2; i += 1)
      expect(() => effect.valueAfter(row(0, 0, 0, 0), 0)).toThrow(NeedVariable as unknown as typeof Error);
  });
});

test('presses of random rigs do to each row, by what was learnt of other rows, what their operations do one by one', () => {
  let compared = 0;
  for (let seed = 1; seed <= 40; seed += 1) compared += comparePresses(seed);
  expect(compared).toBeGreaterThan(1_000);
});

test('a press does to one variable alone, by what it leaves, what its operations do', () => {
  let known = 0;
  let open = 0;
  for (let seed = 1; seed <= 40; seed += 1) {
    const { model, presses } = pressesOf(seed);
    for (const { index } of model.variables) {
      const stepper = new Stepper(model, [index], new Map());
      // What comes up as another variable says is not followed alone.
      if (!isDone(() => stepper.comesUp())) continue;
      for (const press of presses) {
        for (const from of stepper.comesUp()) {
          const expected = from.slice();
          if (!isDone(() => perform(press, new PartialStore(stepper.place, new Map()).open(expected)))) continue;
          expect(stepper.after(from, press)).toEqual(expected);
        }
        if (!press.leaves.has(index)) continue;
        if (press.leaves.on(index) >= 0) known += 1;
        else open += 1;
      }
    }
  }
  expect(known).toBeGreaterThan(200);
  expect(open).toBeGreaterThan(100);
});

function pressesOf(seed: number) {
  const { rig } = seededShow(seed + 5_000);
  const wiring = wire(rig);
  const model = buildStateModel(wiring, compiler(wiring));
  return {
    model,
    presses: ordinaryEvents(model)
      .map((event, i) => compileEvent(model, event, i + 1))
      .filter(({ operations, outcome }) => operations !== null && outcome === 'quiet'),
  };
}

function perform(press: CompiledEvent, store: Store): void {
  const running = { busyUntil: new Map<number, number>() };
  for (const { update, time } of press.operations!().operations()) update.apply(store, running, time);
}

/** Whether it can be done with the variables that are followed and the contents that are assumed. */
function isDone(act: () => void): boolean {
  try {
    act();
    return true;
  } catch (reason) {
    if (!(reason instanceof NeedPin) && !(reason instanceof NeedVariable)) throw reason;
    return false;
  }
}

function comparePresses(seed: number): number {
  const r = new Random(seed);
  const { model, presses } = pressesOf(seed);
  const stepper = new Stepper(
    model,
    model.variables.map((variable) => variable.index),
    new Map(),
  );
  const rows = stepper
    .comesUp()
    .slice(0, 20)
    .map((one) => one.slice());
  let compared = 0;
  for (let i = 0; i < 60 && presses.length > 0; i += 1) {
    const from = r.pick(rows);
    const press = r.pick(presses);
    const expected = from.slice();
    if (!isDone(() => perform(press, new PartialStore(stepper.place, new Map()).open(expected)))) {
      expect(() => stepper.after(from, press)).toThrow();
      continue;
    }
    expect([...stepper.after(from, press)!]).toEqual([...expected]);
    for (const variable of press.leaves.touched)
      expect(stepper.valueAfter(from, press, variable)).toBe(expected[stepper.place[variable]]);
    rows.push(expected);
    compared += 1;
  }
  return compared;
}
