import { mainsChain, wallAmps } from '../../../power/mains.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { amount, basis, graded } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const mainsOverload = defineRule({
  meta: {
    id: 'power/mains-overload',
    severity: 'stops-the-show',
    title: 'More than an outlet gives',
    why: 'What is drawn beyond the rating of a strip, a courtesy outlet or a venue’s fuse heats it, and trips the fuse in the middle of a song.',
    remedy: 'Spread the load over more outlets; ask the electrician of the house which are on fuses of their own.',
    source: 'the ratings as entered, added up; a licensed electrician and the local code have the last word',
    messages: {
      outlets: 'The outlets of {device} pass on {most} VA; {taken} VA hang on them{basis}.',
      venue: '{venue} gives {most} A; {amps} A hang on it where all stands on one fuse.',
    },
  },
  check: ({ show: { rig } }) => {
    const chain = mainsChain(rig);
    const outlets = chain.flatMap(({ device, outlets: has }): readonly Reported<'outlets'>[] => {
      if (!has || has.taken <= has.most) return none;
      const hang = chain.filter(({ into }) => into?.id === device.id);
      return [
        {
          messageId: 'outlets',
          at: { device: device.id },
          ...graded('stops-the-show', [{ device }, ...hang]),
          data: {
            device: device.name,
            most: amount(has.most),
            taken: amount(has.taken),
            basis: basis([{ device }, ...hang]),
          },
        },
      ];
    });
    const venues = (rig.settings.power?.venues ?? []).flatMap((venue): readonly Reported<'venue'>[] => {
      const amps = wallAmps(chain, venue);
      if (venue.amps === undefined || amps <= venue.amps) return none;
      return [
        {
          messageId: 'venue',
          at: {},
          severity: 'fix-before-load-in',
          data: { venue: venue.name, most: venue.amps, amps: amount(amps) },
        },
      ];
    });
    return [...outlets, ...venues];
  },
});
