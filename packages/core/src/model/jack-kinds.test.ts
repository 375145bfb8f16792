import { expect, test } from '@jest/globals';
import { cableCarries, jackFacts, type JackKind, jackKinds, mateOf } from './jack-kinds.ts';

const kinds = Object.keys(jackKinds) as JackKind[];

test('whatever comes out of a jack goes into one that takes in the same; nothing comes out of an input', () => {
  for (const kind of kinds) {
    const { carries, direction, midi } = jackFacts(kind);
    const mate = mateOf(kind);
    if (direction === 'in') expect([mate, midi]).toEqual([undefined, undefined]);
    else expect(jackFacts(mate!)).toEqual({ carries, direction: 'in' });
    expect(midi !== undefined).toBe(carries === 'midi' && direction === 'out');
  }
});

test('every cable carries what some output gives and some input takes', () => {
  for (const carries of Object.values(cableCarries))
    expect(
      new Set(
        kinds
          .map(jackFacts)
          .filter((facts) => facts.carries === carries)
          .map(({ direction }) => direction),
      ),
    ).toEqual(new Set(['in', 'out']));
});
