import { describe, expect, test } from '@jest/globals';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import { enabled } from '../deliver/events.ts';
import { SimulatedRig } from '../deliver/simulated-rig.ts';
import { stepOf } from '../prove/counterexample.ts';
import { proverOf } from '../prove/prover-of.ts';
import { NeedPin } from '../state/values.ts';
import { DependencyTracker } from './dependency-tracker.ts';
import { Exploration } from './exploration.ts';
import { defaultLimits } from './state-space.ts';

/** What each variable of a rig was before and after every event of a random play. */
function played(seed: number, events: number) {
  const { model, table } = proverOf(seededShow(seed));
  const consulted = new DependencyTracker();
  const exploration = new Exploration(table, { level: 2, pins: new Map(), limits: defaultLimits }, consulted);
  const r = new Random(seed);
  const choices = new ChoiceSequence();
  choices.begin();
  const rig = new SimulatedRig(model, choices);
  const steps: { readonly press: (typeof table.ordinary)[number] | null; readonly state: Int32Array }[] = [];
  try {
    if (!model.mayFeedBack && rig.comeUp({ needs: [] })) steps.push({ press: null, state: rig.store.state.slice() });
    for (let i = 0; i < events && steps.length > 0; i += 1) {
      const compiled = r.pick(table.ordinary);
      if (!enabled(model, compiled.event, rig.store) || !rig.happen(stepOf(model, compiled.event))) continue;
      steps.push({
        press: compiled.event.kind === 'press' && !model.mayHold ? compiled : null,
        state: rig.store.state.slice(),
      });
    }
  } catch (reason) {
    // What happens next turns on contents that nobody entered: up to there it was played.
    if (!(reason instanceof NeedPin)) throw reason;
  }
  return { model, exploration, consulted, steps };
}

describe('what is explored for a question', () => {
  test('holds every value that a random play comes to, and every value that a press then leaves', () => {
    let compared = 0;
    let presses = 0;
    for (let seed = 1; seed <= 40; seed += 1) {
      const { model, exploration, steps } = played(seed, 25);
      for (const { press, state } of steps)
        for (const { index } of model.variables) {
          try {
            expect(exploration.reachable(index)).toContain(state[index]);
            if (press?.summary.mayWrite(index)) {
              expect(exploration.after(index, press)).toContain(state[index]);
              presses += 1;
            }
            compared += 1;
          } catch (reason) {
            if (!(reason instanceof NeedPin)) throw reason;
          }
        }
    }
    expect(compared).toBeGreaterThan(2000);
    expect(presses).toBeGreaterThan(500);
  });

  test('one value that is enough is found among those, and no other is', () => {
    let found = 0;
    for (let seed = 1; seed <= 20; seed += 1) {
      const { model, exploration } = played(seed, 0);
      const again = played(seed, 0).exploration;
      for (const { index } of model.variables) {
        try {
          const values = exploration.reachable(index);
          for (const value of values) expect(again.someReachable(index, (valueId) => valueId === value)).toBe(true);
          expect(again.someReachable(index, (valueId) => !values.includes(valueId))).toBe(false);
          expect(again.reachableIfKnown(index)).toEqual(expect.arrayContaining([...values]));
          found += values.length;
        } catch (reason) {
          if (!(reason instanceof NeedPin)) throw reason;
        }
      }
    }
    expect(found).toBeGreaterThan(200);
  });

  test('a value looked up turns on the same variables as when it was found out', () => {
    let several = 0;
    for (let seed = 1; seed <= 40; seed += 1) {
      const { model, exploration, consulted } = played(seed, 0);
      for (const { index } of model.variables) {
        try {
          const first = consulted.track(() => exploration.reachable(index));
          const second = consulted.track(() => exploration.reachable(index));
          expect([...second.dependsOn].sort()).toEqual([...first.dependsOn].sort());
          expect(first.dependsOn).toContain(index);
          if (first.dependsOn.length > 1) several += 1;
        } catch (reason) {
          if (!(reason instanceof NeedPin)) throw reason;
        }
      }
    }
    expect(several).toBeGreaterThan(20);
  });
});
