import { filledCases, nioshLoad, packingOf, usualLimits } from '../../../pack/cases.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const heavyCase = defineRule({
  meta: {
    id: 'build/heavy-case',
    severity: 'worth-knowing',
    title: 'A case that is too heavy',
    why: `Above about ${nioshLoad} kg two people lift, and that is a best case: the limit falls with reach, height and twist. A carrier charges for more than it allows, or leaves the case behind.`,
    remedy: 'Two people, a trolley, or another case for a part of it. Rules for work where you are have the last word.',
    source: 'load constant of the revised NIOSH lifting equation, 23 kg for two hands; limits as entered',
    messages: {
      lift: '{case} weighs {kg} kg{more}: {lift}, as far as the limit of {most} kg for one person goes.',
      carrier: '{case} weighs {kg} kg{more}; its carrier allows {most} kg.',
    },
  },
  check: ({ show: { rig } }) =>
    filledCases(rig).flatMap(({ case: each, grams, unweighed, lift }): readonly Reported<'lift' | 'carrier'>[] => {
      const kg = (grams / 1000).toFixed(1);
      const more = unweighed > 0 ? ' at least' : '';
      return [
        ...(lift === 'two people' || lift === 'more than two people'
          ? [
              {
                messageId: 'lift' as const,
                at: {},
                data: { case: each.name, kg, more, lift, most: packingOf(rig).twoHands ?? usualLimits.twoHands },
              },
            ]
          : none),
        ...(each.mostKg !== undefined && grams / 1000 > each.mostKg
          ? [
              {
                messageId: 'carrier' as const,
                at: {},
                severity: 'fix-before-load-in' as const,
                data: { case: each.name, kg, more, most: each.mostKg },
              },
            ]
          : none),
      ];
    }),
});
