import { feedLabel } from '../../../power/wired.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { basis, fedLoads, graded } from '../../power-queries.ts';
import { none } from '../../queries.ts';

const words = { dc: 'direct current', ac: 'alternating current' } as const;

export const wrongCurrent = defineRule({
  meta: {
    id: 'power/wrong-current',
    severity: 'stops-the-show',
    title: 'Alternating where direct current is needed, or the reverse',
    why: 'The plugs fit, the currents do not: alternating current destroys what is made for direct current, and what needs it stays dark on direct current.',
    remedy: 'Give the device an output of its own kind; few supplies have one of alternating current.',
    source: 'the device’s own papers',
    messages: { other: '{device} needs {needed}; {output} gives {given}{basis}.' },
  },
  check: (context) =>
    fedLoads(context).flatMap(({ load, feed }): readonly Reported<'other'>[] => {
      const { kind } = feed.outputs[0].output;
      if (kind === load.needs.kind) return none;
      return [
        {
          messageId: 'other',
          at: { device: load.device.id },
          ...graded('stops-the-show', [load], feed.outputs),
          data: {
            device: load.device.name,
            needed: words[load.needs.kind],
            given: words[kind],
            output: feedLabel(feed),
            basis: basis([load], feed.outputs),
          },
        },
      ];
    }),
});
