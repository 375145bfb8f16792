import { expect, test } from '@jest/globals';
import { buildWiring } from '../../model/wiring.ts';
import { compiler } from '../../program/compile.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { ordinaryEvents } from '../deliver/events.ts';
import { buildStateModel } from '../state/build-state-model.ts';
import { NeedVariable, PartialStore, type Store } from '../state/store.ts';
import { NeedPin } from '../state/values.ts';
import { Effect } from './effect.ts';
import { type CompiledEvent, compileEvent } from './event-table.ts';
import { type Row } from './row.ts';
import { Stepper } from './stepper.ts';

test('an effect refuses what the space does not follow, and asks again the next time', () => {
  const effect = new Effect(new PartialStore(PartialStore.places(4, [0, 1, 2]), new Map()), (store) => {
    store.set(1, store.get(0));
    store.set(2, store.get(3));
  });
  const from: Row = [1, 2, 3, 0];
  for (let i = 0; i < 2; i += 1) expect(() => effect.after(from)).toThrow(NeedVariable as unknown as typeof Error);
  expect(from).toEqual([1, 2, 3, 0]);
});

test('presses of random rigs do to each row what their operations do one by one', () => {
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
        if (!press.summary.mayWrite(index)) continue;
        if (press.summary.leaves(index) >= 0) known += 1;
        else open += 1;
      }
    }
  }
  expect(known).toBeGreaterThan(200);
  expect(open).toBeGreaterThan(100);
});

function pressesOf(seed: number) {
  const { rig } = seededShow(seed + 5_000);
  const wiring = buildWiring(rig);
  const model = buildStateModel(wiring, compiler(wiring));
  return {
    model,
    presses: ordinaryEvents(model, [])
      .map((event, i) => compileEvent(model, event, i + 1))
      .filter(({ operations, outcome }) => operations !== null && outcome === 'settled'),
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
    .map((row) => row.slice());
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
    for (const variable of press.summary.written)
      expect(stepper.valueAfter(from, press, variable)).toBe(expected[stepper.place[variable]]);
    rows.push(expected);
    compared += 1;
  }
  return compared;
}
