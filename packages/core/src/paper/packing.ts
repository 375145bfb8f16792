import { filledCases, type Packed, tagLines, unpacked } from '../pack/cases.ts';
import { billOf, partsToBuy, type PartToBuy, shoppingOf, substitutesFor } from '../pack/parts.ts';
import { kilograms } from '../units/shown.ts';
import { rangeText } from '../units/typed.ts';
import type { Show } from '../model/documents.ts';
import type { Sheet, SheetLine } from './sheet.ts';

const packedLine = (one: Packed): SheetLine => ({
  id: `pack/${one.id}`,
  cells: [
    '',
    one.count > 1 ? `${one.count} × ${one.name}` : one.name,
    one.packer ?? '',
    one.grams === null ? '' : kilograms(one.grams),
  ],
});

/** What goes into which case, to be ticked at load-out, and what is in none yet. */
export function packingList({ rig }: Show): Sheet {
  return {
    title: 'Packing list',
    about: rig.name,
    look: 'list',
    columns: ['In', 'What', 'Packer', 'Weight'],
    groups: [
      ...filledCases(rig).map((filled) => ({
        heading: tagLines(rig, filled).slice(1).concat(filled.case.name).reverse().join(', '),
        lines: filled.contents.map(packedLine),
      })),
      { heading: 'In no case yet', lines: filledCases(rig).length > 0 ? unpacked(rig).map(packedLine) : [] },
    ].filter(({ lines }) => lines.length > 0),
    notes: [
      'Two people lift above about 23 kg, less with reach and height. Spare batteries and power banks fly in the cabin only, terminals protected: check the airline.',
    ],
  };
}

/** Three lines a case and one a cable, to be cut out and taped on. */
export function tagSheet({ rig }: Show): Sheet {
  const cables = Object.values(rig.cables).sort((a, b) => (a.tag < b.tag ? -1 : 1));
  return {
    title: 'Tags',
    about: rig.name,
    look: 'list',
    columns: ['Tag', 'Second line', 'Third line'],
    groups: [
      {
        heading: 'Cases',
        lines: filledCases(rig).map((filled) => ({ id: `tag/${filled.case.id}`, cells: [...tagLines(rig, filled)] })),
      },
      {
        heading: 'Cables, one for each end',
        lines: cables.flatMap(({ id, tag, plugs, loom }) =>
          plugs.map(({ device, jack }, i) => ({
            id: `tag/${id}/${i}`,
            cells: [tag, `${rig.devices[device].name} ${jack}`, loom ?? ''],
          })),
        ),
      },
    ].filter(({ lines }) => lines.length > 0),
    notes: [],
  };
}

const partLine = (
  { name, needed, spares, have, buy, price, orderBy, row }: PartToBuy,
  substitutes: readonly string[],
): SheetLine => ({
  id: `buy/${name}`,
  cells: [
    String(buy),
    name,
    `${needed} + ${spares}${have > 0 ? `, ${have} there` : ''}`,
    price === null ? '' : rangeText(...price),
    orderBy ?? '',
    row?.substitute ?? substitutes.join(' or '),
  ],
});

/** What is to be bought, what it costs, and by when it has to be ordered. */
export function shoppingList({ rig }: Show): Sheet {
  const all = partsToBuy(rig);
  const parts = all.filter(({ buy }) => buy > 0);
  const { firstShow, budget } = shoppingOf(rig);
  const bill = billOf(rig);
  return {
    title: 'Shopping list',
    about: [rig.name, ...(firstShow === undefined ? [] : [`first show ${firstShow}`])].join(', '),
    look: 'list',
    columns: ['Buy', 'Part', 'Needed, spares', 'Price', 'Order by', 'Meanwhile'],
    groups: [
      {
        heading: [
          `${bill.low} to ${bill.high} in all`,
          ...(bill.unpriced > 0 ? [`${bill.unpriced} without a price`] : []),
          ...(budget === undefined ? [] : [`budget ${budget}`]),
        ].join(', '),
        lines: parts.map((part) => partLine(part, substitutesFor(rig, part, all))),
      },
    ].filter(({ lines }) => lines.length > 0),
    notes: ['Spares: two of every connector, one of what is whole, unless said otherwise (common practice).'],
  };
}
