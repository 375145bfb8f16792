import { expect, test } from '@jest/globals';
import { packedRig, withPacking } from '../../../testing/pack-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { caseTooSmall } from './case-too-small.ts';

/** The case of the amplifier, 560 by 260 by 480 mm, in a size of its own. */
const outside = (...size: readonly [number, number, number]) =>
  withPacking(packedRig(), {
    cases: packedRig().rig.settings.pack!.cases!.map((each) => (each.id === 'amp' ? { ...each, size } : each)),
  });

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(caseTooSmall, {
      clean: {
        'nothing packed': ordinary().show,
        'of no size that anybody said': packedRig(),
        'large enough': outside(600, 520, 300),
        'large enough when it lies on its back': outside(300, 600, 520),
      },
      faulty: { 'too low': { show: outside(600, 520, 200), messages: ['small'] } },
    }),
  ).toEqual([]);
});
