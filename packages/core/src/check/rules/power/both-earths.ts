import { defineRule, type Reported } from '../../define-rule.ts';
import { basis, fedLoads, graded } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const bothEarths = defineRule({
  meta: {
    id: 'power/both-earths',
    severity: 'stops-the-show',
    title: 'Positive and negative earth on one rail',
    why: 'A device with its earth on plus and one with its earth on minus short the supply through the shields of their signal cables as soon as they share a rail.',
    remedy: 'The device with its earth on plus gets an isolated output of its own, or runs on its battery.',
    source: 'common practice',
    messages: { both: '{device} has its earth on plus and shares a rail with {others}{basis}.' },
  },
  check: (context) => {
    const fed = fedLoads(context).filter(({ load }) => load.needs.kind === 'dc');
    return fed.flatMap(({ load, feed }): readonly Reported<'both'>[] => {
      if (load.needs.earth !== '+') return none;
      const others = fed
        .filter((each) => each.feed.rail === feed.rail && each.load.needs.earth !== '+')
        .map((each) => each.load);
      if (others.length === 0) return none;
      return [
        {
          messageId: 'both',
          at: { device: load.device.id },
          ...graded('stops-the-show', [load, ...others]),
          data: {
            device: load.device.name,
            others: others.map(({ device }) => device.name).join(' and '),
            basis: basis([load, ...others]),
          },
        },
      ];
    });
  },
});
