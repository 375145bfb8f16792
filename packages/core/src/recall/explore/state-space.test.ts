import { describe, expect, test } from '@jest/globals';
import { fourCable, lead } from '../../testing/build-show.ts';
import { proverOf } from '../prove/prover-of.ts';
import { NeedVariable } from '../state/store.ts';
import { TooManyStates } from './row.ts';
import { defaultLimits, type Question, StateSpace } from './state-space.ts';

/** Two sounds; the second slot is written by hand and leaves everything but the first loop alone. */
const show = () => {
  const built = fourCable()
    .sound('lead', lead)
    .sound('other', { name: 'Other', pedals: { drive: 'on' } })
    .laid().show;
  const other = {
    ...built.rig.slots['slot-other'],
    actions: [{ kind: 'set' as const, control: 'loop-1', value: 1 as const }],
  };
  return { ...built, rig: { ...built.rig, slots: { ...built.rig.slots, 'slot-other': other } } };
};
const { model, table } = proverOf(show());
const variable = (ref: `${string}/${string}`) => model.variableOf.get(ref)!;
const question: Question = { level: 2, pins: new Map(), limits: defaultLimits };
/** The amp's channel follows the bit of its contact input. */
const bit = model.variables.find((variable) => variable.kind === 'bit' && variable.device === 'combo')!.index;
const channel = variable('combo/channel');
const controlValues = (space: StateSpace) =>
  space.complete().reached.map(({ row, depth }) => [model.values.controlValue(row[0]), depth]);

describe('a space of a few variables', () => {
  test('begins with what power-up leaves, and each row is reached the shortest way', () => {
    expect(controlValues(new StateSpace(table, [variable('switcher/loop-1')], question))).toEqual([
      [0, 0],
      [1, 1],
    ]);
    const amp = new StateSpace(table, [bit, channel], question).complete();
    expect(
      amp.reached.map(({ row, depth }) => [
        model.values.controlValue(row[0]),
        model.values.controlValue(row[1]),
        depth,
      ]),
    ).toEqual([
      [0, 'clean', 0],
      [1, 'lead', 1],
    ]);
  });
  test('a switch that no slot moves and no foot is planned for stays as it comes up; a stray foot moves it, once', () => {
    const own = [variable('drive/on')];
    expect(controlValues(new StateSpace(table, own, question))).toEqual([[1, 0]]);
    const stray = new StateSpace(table, own, { ...question, level: 3 }).complete();
    expect(stray.reached.map(({ row }) => [model.values.controlValue(row[0]), row[1]])).toEqual([
      [1, 0],
      [0, 1],
    ]);
  });
  test('presses that do the same to its variables are one event, and it knows which they are', () => {
    const space = new StateSpace(table, [variable('switcher/loop-1')], question).complete();
    const [first] = space.reached.flatMap(({ move }) => move ?? []);
    expect(
      space.equivalents(first.compiled).map(({ event }) => (event.kind === 'press' ? event.slot.slot.id : event.kind)),
    ).toEqual(['slot-lead', 'slot-other']);
  });
  test('the same rows come out however far one asks at a time', () => {
    const variables = [variable('switcher/loop-1'), bit, channel];
    const whole = new StateSpace(table, variables, question).complete();
    const piece = new StateSpace(table, variables, question);
    expect(whole.reached.length).toBeGreaterThan(2);
    for (let i = 0; i < whole.reached.length; i += 1) expect([...piece.at(i)!.row]).toEqual([...whole.reached[i].row]);
    expect(piece.at(whole.reached.length)).toBeUndefined();
  });
  test('limits end an exploration, and say so by their own error', () => {
    const limited = (limits: Partial<typeof defaultLimits>) => () =>
      new StateSpace(table, [bit, channel], { ...question, limits: { ...defaultLimits, ...limits } }).complete();
    expect(limited({ states: 1 })).toThrow(TooManyStates);
    expect(limited({ steps: 0 })).toThrow(TooManyStates);
    expect(limited({ states: 2 })).not.toThrow();
  });
  test('one that was too large is too large for whoever asks again: the row that was one too many is never taken for none', () => {
    const space = new StateSpace(table, [bit, channel], { ...question, limits: { ...defaultLimits, states: 1 } });
    for (let i = 0; i < 3; i += 1) expect(() => space.complete()).toThrow(TooManyStates);
    expect(() => space.at(1)).toThrow(TooManyStates);
    expect(space.at(0)).toBeDefined();
  });
  test('what an event turns out to read is asked for by its number', () => {
    let asked: unknown;
    try {
      new StateSpace(table, [channel], question).complete();
    } catch (reason) {
      asked = reason;
    }
    expect(asked).toEqual(new NeedVariable(bit));
  });
});
