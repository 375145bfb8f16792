import { expect, test } from '@jest/globals';
import { packedRig, withShopping } from '../testing/pack-rigs.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import { packingList, shoppingList, tagSheet } from './packing.ts';

test('the packing list has every case with what is in it, and what is in none', () => {
  const { groups } = packingList(packedRig());
  expect(groups.map(({ heading, lines }) => [heading, lines.length])).toEqual([
    ['Pedal case, 7.1 kg, one hand, on the ground', 4],
    ['Amp case, 21.0 kg, two hands, on the ground', 1],
    ['In no case yet', 2],
  ]);
  expect(packingList(ordinary().show).groups).toEqual([]);
});

test('tags: three lines a case, one for each end of a cable', () => {
  const { groups } = tagSheet(packedRig());
  expect(groups[0].lines[0].cells).toEqual(['Rig: Pedal case', 'on the ground', '7.1 kg, one hand']);
  const ends = Object.values(packedRig().rig.cables).reduce((sum, { plugs }) => sum + plugs.length, 0);
  expect(groups[1].lines).toHaveLength(ends);
});

test('the shopping list counts spares, and says by when to order', () => {
  const [group] = shoppingList(
    withShopping(packedRig(), {
      firstShow: '2027-03-01',
      rows: [{ name: 'MIDI cable', low: 10, high: 12, days: 14, substitute: 'a longer one' }],
    }),
  ).groups;
  expect(group.lines.find(({ id }) => id === 'buy/MIDI cable')!.cells).toEqual([
    '2',
    'MIDI cable',
    '1 + 1',
    '20–24',
    '2027-02-15',
    'a longer one',
  ]);
  expect(group.heading).toContain('without a price');
});
