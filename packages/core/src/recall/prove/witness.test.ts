import { describe, expect, test } from '@jest/globals';
import { demoShow, flyShow } from '../../demo/demo.ts';
import type { Show } from '../../model/documents.ts';
import { seededShow } from '../../testing/compare.ts';
import { play } from '../replay/play.ts';
import { proverOf } from './prover-of.ts';
import type { Judgement, Level } from './verdict.ts';

// What the proof tells is a way that can be gone: played on the simulated rig, every variable of it, it ends as told.
const levels: readonly Level[] = [1, 2, 3, 4];

interface PlayedSequence {
  readonly judgement: Judgement;
  readonly steps: number;
  /** Does not settles, or is not right. */
  readonly endsWrong: boolean;
  readonly heard: string;
}

function played(show: Show, at: readonly Level[] = levels): readonly PlayedSequence[] {
  const prover = proverOf(show);
  return at.flatMap((level) =>
    prover.pairs().flatMap(({ slot, sound }): PlayedSequence[] => {
      const judgement = prover.judge(slot, sound, level);
      if (!judgement.sequence) return [];
      const { steps, heard } = play(prover, judgement.sequence, sound, level);
      return [
        {
          judgement,
          steps: judgement.sequence.steps.length,
          endsWrong: heard !== 'right' || steps.some((step) => !step.quiet),
          heard,
        },
      ];
    }),
  );
}
/** A loss is tried before a restart, so that few shortest sequences hold one: in some rigs nothing else happens. */
const restartsOnly = (show: Show): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, faults: ['restart'] } },
});
const seeds = Array.from({ length: 60 }, (_, i) => i + 31);
const sample = [
  ...seeds.flatMap((seed) => played(seededShow(seed))),
  ...seeds.flatMap((seed) => played(restartsOnly(seededShow(seed)), [4])),
];
const of = (verdict: Judgement['verdict']) => sample.filter(({ judgement }) => judgement.verdict === verdict);

describe('sequences of random rigs, played on the simulated rig', () => {
  test('there are many of them, with what must be told: losses, restarts, feet, holds, choices of power-up', () => {
    expect(of('does-not').length).toBeGreaterThan(200);
    const steps = sample.flatMap(({ judgement }) => judgement.sequence!.steps);
    for (const kind of ['press', 'bank', 'hold', 'foot', 'restart'])
      expect([kind, steps.some((step) => step.kind === kind)]).toEqual([kind, true]);
    expect(steps.some((step) => step.lost)).toBe(true);
    expect(sample.some(({ judgement }) => judgement.sequence!.needs.length > 0)).toBe(true);
  });
  test('each has as many steps as its length says', () => {
    expect(
      sample.filter(({ judgement, steps }) => judgement.length !== steps).map(({ judgement }) => judgement),
    ).toEqual([]);
  });
  test('each of a sound that does not recall ends wrong', () => {
    expect(
      of('does-not')
        .filter(({ endsWrong }) => !endsWrong)
        .map(({ judgement }) => judgement),
    ).toEqual([]);
  });
  test('each of a sound of which it cannot be known ends in what is not surely right', () => {
    expect(
      of('cannot-be-known')
        .filter(({ endsWrong, judgement }) => !endsWrong && judgement.gaveUp === undefined)
        .map(({ judgement }) => judgement),
    ).toEqual([]);
  });
});

test.each([
  ['combo', demoShow()],
  ['fly', flyShow()],
])('every sequence told of the demo’s %s rig ends wrong when it is played', (_, show) => {
  const told = played(show);
  expect(told.length).toBeGreaterThan(0);
  expect(told.filter(({ endsWrong }) => !endsWrong)).toEqual([]);
});
