import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { PackCase } from '../../../model/pack.ts';
import { packedRig, withPacking } from '../../../testing/pack-rigs.ts';
import { withSupply } from '../../../testing/power-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { flyingBattery } from './flying-battery.ts';

const flown = (travels: PackCase['travels'], show: Show = packedRig()): Show =>
  withPacking(show, {
    ...show.rig.settings.pack,
    cases: show.rig.settings.pack!.cases!.map((each) => ({ ...each, travels })),
  });
const battery = (wh: number): Show => withSupply(packedRig(), 'supply', { battery: { wh } });
const bank = (wh: number, count: number): Show =>
  withPacking(packedRig(), {
    ...packedRig().rig.settings.pack,
    items: [{ id: 'bank', name: 'Power bank', count, wh, case: 'pedals' }],
  });

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(flyingBattery, {
      clean: {
        'nothing packed': ordinary().show,
        'on the ground': battery(70),
        'no battery in the hold': flown('hold'),
        'in the cabin': flown('cabin', battery(70)),
      },
      faulty: {
        'a board’s battery in the hold': { show: flown('hold', battery(70)), messages: ['hold'] },
        'a power bank in the hold': { show: flown('hold', bank(40, 3)), messages: ['hold'] },
        'too large for any aircraft': { show: flown('cabin', battery(200)), messages: ['large'] },
        'one that needs approval': { show: flown('cabin', bank(120, 1)), messages: ['approval'] },
        'three that need approval': { show: flown('cabin', bank(120, 3)), messages: ['approval'] },
      },
    }),
  ).toEqual([]);
});
