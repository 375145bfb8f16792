import { filledCases } from '../../../pack/cases.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

/** Watt-hours: up to the first without asking, up to the second with the airline's approval, two at most. */
const cabin = { free: 100, most: 160, count: 2 } as const;

export const flyingBattery = defineRule({
  meta: {
    id: 'safety/flying-battery',
    severity: 'stops-the-show',
    title: 'A battery where it must not fly',
    why: 'Spare lithium batteries and power banks, a board’s battery supply among them, catch fire where nobody sees it: they fly in the cabin only, up to 160 Wh each, terminals protected.',
    remedy:
      'Into the cabin, terminals taped; above 100 Wh ask the airline first. The airline has the last word: check it.',
    source: 'IATA passenger rules for lithium batteries (from memory)',
    messages: {
      hold: '{name} ({wh} Wh) is in {case}, which goes into the hold: batteries that are not built into what they power fly in the cabin only.',
      large: '{name} holds {wh} Wh: above 160 Wh it does not fly with passengers at all.',
      approval: '{count} batteries of more than 100 Wh are in {case}: two at most, with the airline’s approval.',
    },
  },
  check: ({ show: { rig } }) =>
    filledCases(rig).flatMap(({ case: each, contents }): readonly Reported<'hold' | 'large' | 'approval'>[] => {
      if (each.travels !== 'hold' && each.travels !== 'cabin') return none;
      const all = contents.flatMap((one) => one.batteries.map((wh) => ({ one, wh })));
      const at = (one: (typeof all)[number]['one']) => (one.device ? { device: one.device.id } : {});
      const large = all.filter(({ wh }) => wh > cabin.free && wh <= cabin.most);
      const told = new Map(all.map((battery) => [battery.one.id, battery]));
      return [
        ...[...told.values()].flatMap(({ one, wh }): readonly Reported<'hold' | 'large'>[] => {
          const data = { name: one.name, wh, case: each.name };
          if (wh > cabin.most) return [{ messageId: 'large', at: at(one), data }];
          return each.travels === 'hold' ? [{ messageId: 'hold', at: at(one), data }] : none;
        }),
        ...(each.travels === 'cabin' && large.length > 0
          ? [
              {
                messageId: 'approval' as const,
                at: {},
                ...(large.length > cabin.count ? {} : { severity: 'worth-knowing' as const }),
                data: { count: large.length, case: each.name },
              },
            ]
          : none),
      ];
    }),
});
