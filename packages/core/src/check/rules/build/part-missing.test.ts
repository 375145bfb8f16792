import { expect, test } from '@jest/globals';
import { partsToBuy } from '../../../pack/parts.ts';
import type { BuyFacts } from '../../../model/body.ts';
import { withShopping } from '../../../testing/pack-rigs.ts';
import { powered } from '../../../testing/power-rigs.ts';
import { ordinary, withDevice } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { partMissing } from './part-missing.ts';

const toBuy = (buy: BuyFacts) =>
  withDevice(ordinary().show, 'drive', { type: { ...ordinary().show.rig.devices.drive.type, buy } });
const all = partsToBuy(powered().rig).map(({ name }) => ({ name, have: 100 }));

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(partMissing, {
      clean: {
        'no list begun': ordinary().show,
        'all there': withShopping(powered(), { rows: all }),
        'a piece of which it is known when it comes': toBuy({ isWanted: true, days: 10 }),
        'to be bought, and known': withShopping(powered(), { rows: all.map(({ name }) => ({ name, low: 5 })) }),
      },
      faulty: {
        'a piece that is not there yet': { show: toBuy({ isWanted: true }), messages: ['piece'] },
        'one forgotten': { show: withShopping(powered(), { rows: all.slice(1) }), messages: ['part'] },
      },
    }),
  ).toEqual([]);
});
