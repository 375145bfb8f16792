import { describe, expect, test } from '@jest/globals';
import type { CableEnd } from '@yunta/core';
import { poleChoiceOf, poleChoices } from './pole-choices.ts';

const end = (index: number, poles?: readonly string[]): CableEnd => ({
  index,
  plug: { device: `d${index}` as CableEnd['plug']['device'], jack: 'in' },
  jack: { id: 'in', label: 'In', kind: 'signal-in', ...(poles ? { poles } : {}) },
});
const stereo = (index: number) => end(index, ['tip', 'ring']);
const offered = (...ends: readonly CableEnd[]) => poleChoices({}, ends).map(({ id }) => id);

describe('the ways a cable may join poles', () => {
  test('follow from its plugs: nothing to choose between mono jacks', () => {
    expect(offered(end(0), end(1))).toEqual(['straight']);
    expect(offered(stereo(0), end(1), end(2))).toEqual(['straight', 'pair']);
    expect(offered(stereo(0), end(1))).toEqual(['straight', 'right', 'both']);
    expect(offered(stereo(0), stereo(1))).toEqual(['straight', 'crossed']);
  });
  test('a wiring is known again in whichever order it is written, and one of its own is kept', () => {
    const choices = poleChoices({}, [stereo(0), end(1), end(2)]);
    const pair = choices[1].poles!;
    const reversed = [...pair].reverse().map((wire) => [...wire].reverse());
    expect(poleChoiceOf({ poles: reversed }, choices).id).toBe('pair');
    expect(poleChoiceOf({}, choices).id).toBe('straight');
    const own = {
      poles: [
        [
          { plug: 0, pole: 'ring' },
          { plug: 1, pole: 'tip' },
        ],
      ],
    };
    expect(poleChoices(own, [stereo(0), end(1), end(2)]).map(({ id }) => id)).toEqual(['straight', 'pair', 'own']);
  });
});
