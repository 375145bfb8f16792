import { describe, expect, test } from '@jest/globals';
import { cellarBarRig, ferryRig, hallwayRig } from '../../demo/by-feet.ts';
import type { Show } from '../../model/documents.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import { SimulatedRig } from '../deliver/simulated-rig.ts';
import type { Prover } from '../prove/prover.ts';
import { proverOf } from '../prove/prover-of.ts';
import { footPlan } from '../replay/foot-plan.ts';

/** Parts that come up wrong when the set is played on the simulated rig, each with these steps. */
function wrongWhenPlayed(prover: Prover, steps: readonly (readonly SequenceStep[])[]): readonly string[] {
  const choices = new ChoiceSequence();
  choices.begin();
  const rig = new SimulatedRig(prover.model, choices);
  rig.comeUp({ needs: [] });
  return prover.set.parts.flatMap(({ part, sound }, i) => {
    for (const step of steps[i]) rig.happen(step);
    const { is } = prover.comparison.judge((variable) => rig.store.get(variable), prover.targetOf(sound!), {
      obey: false,
      pins: new Map(),
    });
    return is === 'wrong' ? [part.id] : [];
  });
}

describe.each<[string, () => Show]>([
  ['pedals and an amp', cellarBarRig],
  ['no amp', hallwayRig],
  ['a floor unit', ferryRig],
])('%s, played on the simulated rig', (_, make) => {
  const prover = proverOf(make());
  const { parts, mistakes } = footPlan(prover)!;
  const steps = parts.map((plan) => plan.steps.map(({ step }) => step));

  test('as planned, every part comes up right', () => expect(wrongWhenPlayed(prover, steps)).toEqual([]));

  test('each mistake ends as it is told: the parts that come up wrong, and where it heals', () => {
    expect(mistakes.length).toBeGreaterThan(10);
    const seen = new Map<string, number>();
    for (const { kind, press, at, wrong, heals } of mistakes) {
      if ('slot' in press) throw new Error('no slot is pressed here');
      const is = (step: SequenceStep) =>
        step.kind === 'foot' && step.device === press.device && step.switch === press.switch;
      const index = parts.findIndex(({ part }) => part === at);
      // The same switch may be pressed twice for a part: its presses are missed in turn.
      const key = `${kind} ${at} ${press.device} ${press.switch}`;
      const nth = seen.get(key) ?? 0;
      seen.set(key, nth + 1);
      const changed = steps.map((list, i) => {
        if (i !== index) return list;
        if (kind === 'extra') return [...list, { kind: 'foot' as const, ...press, stray: true }];
        const places = list.flatMap((step, k) => (is(step) ? [k] : []));
        return list.filter((_, k) => k !== places[nth]);
      });
      expect(wrongWhenPlayed(prover, changed)).toEqual(wrong);
      const next = parts.findIndex(({ part }) => part === wrong.at(-1)) + 1;
      expect(heals).toBe(parts[next]?.part ?? null);
    }
  });

  test('a switch pressed too often that no part minds is not told: the planned tuner', () => {
    expect(mistakes.some(({ press }) => 'device' in press && press.device === 'tuner')).toBe(false);
  });
});
