import { partsToBuy, shoppingOf } from '../../../pack/parts.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const partMissing = defineRule({
  meta: {
    id: 'build/part-missing',
    severity: 'worth-knowing',
    title: 'A part that nobody has seen to',
    why: 'The classic delay is one missing connector that takes a week to arrive.',
    remedy: 'Say on Build, under Buy, how many there are, or what it costs and how long it takes.',
    source: 'common practice: two spares of every connector',
    messages: {
      part: '{count} of “{name}” are needed, spares counted, and nobody has said how many there are.',
      piece: '{name} is still to be bought, and nobody has said what it costs or how long it takes.',
    },
  },
  check: ({ show: { rig } }): readonly Reported<'part' | 'piece'>[] => {
    const parts = partsToBuy(rig).filter(({ buy }) => buy > 0);
    // While no list has been begun, no part is missing from it.
    const isBegun = (shoppingOf(rig).rows ?? []).length > 0;
    return parts.flatMap(({ name, buy, row, device, each, days }): readonly Reported<'part' | 'piece'>[] => {
      if (device)
        return each === null && days === undefined
          ? [{ messageId: 'piece', at: { device: device.id }, data: { name } }]
          : none;
      return isBegun && row === undefined ? [{ messageId: 'part', at: {}, data: { name, count: buy } }] : none;
    });
  },
});
