import { defineRule, type Reported } from '../../define-rule.ts';
import { fedLoads } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const digitalShares = defineRule({
  meta: {
    id: 'power/digital-shares',
    severity: 'worth-knowing',
    title: 'A digital device shares its rail',
    why: 'What a digital device does with its current is heard in what shares its minus: whine, ticks and hum.',
    remedy: 'Give every digital device an isolated output of its own.',
    source: 'common practice',
    messages: { shared: '{device} is digital and shares its rail with {others}.' },
  },
  check: (context) => {
    const fed = fedLoads(context);
    return fed.flatMap(({ load, feed }): readonly Reported<'shared'>[] => {
      const others = fed.filter((each) => each.feed.rail === feed.rail && each.load !== load);
      if (load.needs.digital !== true || others.length === 0) return none;
      // Told once of two digital ones.
      const first = others.find((each) => each.load.needs.digital === true);
      if (first && fed.findIndex((each) => each.load === first.load) < fed.findIndex((each) => each.load === load))
        return none;
      return [
        {
          messageId: 'shared',
          at: { device: load.device.id },
          data: { device: load.device.name, others: others.map((each) => each.load.device.name).join(' and ') },
        },
      ];
    });
  },
});
