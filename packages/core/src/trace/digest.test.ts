import { expect, test } from '@jest/globals';
import { contextOf } from '../check/engine.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import { seededShow } from '../testing/compare.ts';

test('sounds that are the same in effect have the same digest, also where their wants are in another order; others have others here', () => {
  let same = 0;
  let others = 0;
  for (const show of [demoShow(), flyShow(), ...Array.from({ length: 40 }, (_, i) => seededShow(900 + i))]) {
    const { tracer } = contextOf(show);
    const sounds = Object.values(show.rig.sounds);
    for (const sound of sounds) {
      const turned = {
        ...sound,
        id: 'turned',
        wants: Object.fromEntries(Object.entries(sound.wants).reverse()),
        pedals: Object.fromEntries(Object.entries(sound.pedals).reverse()),
      };
      expect(tracer.digest(turned)).toBe(tracer.digest(sound));
    }
    for (const [i, one] of sounds.entries())
      for (const other of sounds.slice(i + 1)) {
        const isSame = tracer.heard(one) === tracer.heard(other);
        expect(tracer.digest(one) === tracer.digest(other)).toBe(isSame);
        if (isSame) same += 1;
        else others += 1;
      }
  }
  expect(same).toBeGreaterThan(5);
  expect(others).toBeGreaterThan(300);
});
