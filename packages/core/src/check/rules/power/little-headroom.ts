import { headroomOf, feedLabel } from '../../../power/wired.ts';
import { defineRule } from '../../define-rule.ts';
import { amount, plannedPower } from '../../power-queries.ts';
import { lacksHeadroom } from '../../../supply/judge.ts';

export const littleHeadroom = defineRule({
  meta: {
    id: 'power/little-headroom',
    severity: 'worth-knowing',
    title: 'An output without headroom',
    why: 'Devices draw more when they are switched on and while they work hard, and supplies give less when they are warm: a fifth to a quarter of the current is left unused.',
    remedy: 'Solve the outputs anew, or move a load to an output that gives more.',
    source: 'common practice',
    messages: {
      output: '{output} is loaded to {percent} % by {loads}: {drawn} of {most} mA.',
      limit: '{supply} is loaded to {percent} %: {taken} of {most} {unit}.',
    },
  },
  check: (context) => {
    const power = plannedPower(context);
    const percent = headroomOf(context.show.rig);
    return [
      ...(power?.feeds ?? [])
        .filter(({ drawn, ma }) => lacksHeadroom(drawn, ma, percent) && drawn <= ma)
        .map((feed) => ({
          messageId: 'output' as const,
          at: { device: feed.outputs[0].supply.id },
          data: {
            output: feedLabel(feed),
            percent: Math.round((feed.drawn / feed.ma) * 100),
            loads: feed.loads.map(({ device }) => device.name).join(' and '),
            drawn: amount(feed.drawn),
            most: amount(feed.ma),
          },
        })),
      ...(power?.limits ?? [])
        .filter(({ taken, most }) => lacksHeadroom(taken, most, percent) && taken <= most)
        .map(({ supply, taken, most, unit }) => ({
          messageId: 'limit' as const,
          at: { device: supply.id },
          data: {
            supply: supply.name,
            percent: Math.round((taken / most) * 100),
            taken: amount(taken),
            most: amount(most),
            unit,
          },
        })),
    ];
  },
});
