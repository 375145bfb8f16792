import { expect, test } from '@jest/globals';
import { demoShow } from '../../demo/demo.ts';
import type { Show } from '../../model/documents.ts';
import { seededShow } from '../../testing/compare.ts';
import { defaultLimits, type Limits } from '../explore/state-space.ts';
import { proverOf } from './prover-of.ts';
import type { Judgement, Level } from './verdict.ts';

// Law: a limit only ever turns an answer into *cannot be known*, whoever else asked before; never into *recalls*.

const tight: readonly Partial<Limits>[] = [{ states: 1 }, { states: 2 }, { states: 4 }, { steps: 1 }, { steps: 6 }];

interface Tally {
  same: number;
  unknown: number;
}

/** What is true where there is room enough. */
function truths(show: Show, levels: readonly Level[]): readonly Judgement[] {
  const prover = proverOf(show);
  return levels.flatMap((level) => prover.all(level));
}

function compare(show: Show, limits: Partial<Limits>, known: readonly Judgement[], tally: Tally): void {
  const bound = proverOf(show, { ...defaultLimits, ...limits });
  for (const truth of known) {
    const { slot, sound } = bound
      .pairs()
      .find((pair) => pair.slot.slot.id === truth.slot && pair.sound.id === truth.sound)!;
    const { verdict, gaveUp } = bound.judge(slot, sound, truth.level);
    if (verdict === truth.verdict) tally.same += 1;
    else {
      expect([limits, truth, verdict]).toEqual([limits, truth, 'cannot-be-known']);
      expect(gaveUp).toMatch(/\S/);
      tally.unknown += 1;
    }
  }
}

const rigs = Array.from({ length: 30 }, (_, seed) => seededShow(seed + 1)).map((show) => ({
  show,
  known: truths(show, [1, 2, 3, 4]),
}));

test.each(tight)('%j, on random rigs at every level', (limits) => {
  const tally: Tally = { same: 0, unknown: 0 };
  for (const { show, known } of rigs) compare(show, limits, known, tally);
  expect(tally.same).toBeGreaterThan(50);
  expect(tally.unknown).toBeGreaterThan(0);
});

test.each([{ states: 3 }, { steps: 4 }])('%j, on the demo', (limits) => {
  const tally: Tally = { same: 0, unknown: 0 };
  compare(demoShow(), limits, truths(demoShow(), [2, 4]), tally);
  expect(tally.unknown).toBeGreaterThan(0);
});

test.each([
  [4, 0.4],
  [8, 0.6],
  [16, 0.7],
])(
  'with %d states allowed, at least %d of what goes wrong is told all the same: it is found before all is looked through',
  (states, share) => {
    let found = 0;
    let wrong = 0;
    for (const { show, known } of rigs) {
      const bound = proverOf(show, { ...defaultLimits, states });
      for (const truth of known) {
        if (truth.verdict !== 'does-not' || truth.level === 1) continue;
        const { slot, sound } = bound
          .pairs()
          .find((pair) => pair.slot.slot.id === truth.slot && pair.sound.id === truth.sound)!;
        wrong += 1;
        if (bound.judge(slot, sound, truth.level).verdict === 'does-not') found += 1;
      }
    }
    expect(wrong).toBeGreaterThan(100);
    expect(found / wrong).toBeGreaterThan(share);
  },
);
