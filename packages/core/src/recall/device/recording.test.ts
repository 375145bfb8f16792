import { expect, test } from '@jest/globals';
import { fourCable, lead } from '../../testing/build-show.ts';
import { proverOf } from '../prove/prover-of.ts';
import { Recording } from './recording.ts';
import { constant } from './update.ts';

const { model } = proverOf(fourCable().sound('lead', lead).laid().show);
const of = (ref: string, value: string | number) =>
  constant(model, model.variableOf.get(ref as `${string}/${string}`)!, model.values.id(value));

test('a recording keeps what was taken, in order, when it is used again for the next event', () => {
  const [into, on] = [of('switcher/loop-1', 1), of('delay/on', 1)];
  const room = new Recording().begin();
  room.take(into, 0, []);
  room.take(on, 960, []);
  const kept = room.copy();
  expect(room.begin().operations()).toEqual([]);
  room.take(on, 320, []);
  expect(kept.operations()).toEqual([
    { update: into, time: 0, points: [] },
    { update: on, time: 960, points: [] },
  ]);
  expect(kept.on(model.device.get('delay')!.index)).toEqual([{ update: on, time: 960, points: [] }]);
  expect(kept.on(model.device.get('combo')!.index)).toEqual([]);
});

test('the points at which what it does can be lost are kept with it, also beside what cannot be lost', () => {
  const room = new Recording().begin();
  room.take(of('switcher/loop-1', 1), 0, []);
  room.take(of('delay/on', 1), 960, [0, 1]);
  expect(
    room
      .copy()
      .operations()
      .map(({ points }) => points),
  ).toEqual([[], [0, 1]]);
});
