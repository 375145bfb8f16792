import { describe, expect, test } from '@jest/globals';
import { checkShow } from '../../change/steps.ts';
import { documentRig, kernelRig, retraceRig } from '../../testing/large-rigs.ts';
import { play } from '../replay/play.ts';
import { proverOf } from './prover-of.ts';

const count = (verdicts: readonly string[]) =>
  verdicts.reduce<Record<string, number>>((sum, verdict) => ({ ...sum, [verdict]: (sum[verdict] ?? 0) + 1 }), {});

describe('rigs of the size that people carry', () => {
  test.each([
    ['80 devices, 60 sounds', retraceRig, { recalls: 55, 'does-not': 5 }],
    ['1,000 slots over 200 loops', kernelRig, { recalls: 980, 'does-not': 20 }],
  ] as const)('%s: every slot that forgets something fails, every other recalls', (_, make, expected) => {
    const { show } = make();
    expect(checkShow(show).ok).toBe(true);
    expect(
      count(
        proverOf(show)
          .all(2)
          .map((judgement) => judgement.verdict),
      ),
    ).toEqual(expected);
  });

  test('1,000 slots over devices with sticky banks: each failure, played on the simulated rig, comes up wrong', () => {
    const prover = proverOf(documentRig().show);
    const failing = prover.all(2).filter((judgement) => judgement.verdict === 'does-not');
    expect(failing.length).toBeGreaterThan(20);
    for (const judgement of failing.slice(0, 25)) {
      const played = play(
        prover,
        judgement.sequence!,
        prover.model.wiring.rig.sounds[judgement.sound],
        judgement.level,
      );
      expect([judgement.slot, played.wants.some((want) => !want.right)]).toEqual([judgement.slot, true]);
      expect(judgement.sequence!.steps).toHaveLength(judgement.length!);
    }
  });
});
