import { expect, test } from '@jest/globals';
import { partsToBuy } from '../../../pack/parts.ts';
import { withShopping } from '../../../testing/pack-rigs.ts';
import { powered } from '../../../testing/power-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { partMissing } from './part-missing.ts';

const all = partsToBuy(powered().rig).map(({ name }) => ({ name, have: 100 }));

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(partMissing, {
      clean: {
        'no list begun': ordinary().show,
        'all there': withShopping(powered(), { rows: all }),
        'to be bought, and known': withShopping(powered(), { rows: all.map(({ name }) => ({ name, low: 5 })) }),
      },
      faulty: { 'one forgotten': { show: withShopping(powered(), { rows: all.slice(1) }), messages: ['part'] } },
    }),
  ).toEqual([]);
});
