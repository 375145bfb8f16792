import { feedLabel } from '../../../power/wired.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { amount, basis, graded, plannedPower } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const overCurrent = defineRule({
  meta: {
    id: 'power/over-current',
    severity: 'stops-the-show',
    title: 'More current than the supply gives',
    why: 'An output that is asked for more than it gives sags or shuts down, and with it all that hangs on it; so does a group, or a whole supply.',
    remedy: 'Move a load to another output, or solve the outputs anew; in doubt look up what the devices draw.',
    source: 'common practice; the supply’s own papers',
    messages: {
      output: '{output} gives {most} mA at {volts} V; {loads} draw {drawn} mA{basis}.',
      limit: '{supply} gives {most} {unit} over {outputs}; {taken} {unit} are drawn{basis}.',
    },
  },
  check: (context) => {
    const power = plannedPower(context);
    if (!power) return none;
    const outputs = power.feeds
      .filter(({ drawn, ma }) => drawn > ma)
      .map((feed): Reported<'output'> => ({
        messageId: 'output',
        at: { device: feed.outputs[0].supply.id },
        ...graded('stops-the-show', feed.loads, feed.outputs),
        data: {
          output: feedLabel(feed),
          most: amount(feed.ma),
          volts: amount(feed.volts),
          loads: feed.loads.map(({ device }) => device.name).join(' and '),
          drawn: amount(feed.drawn),
          basis: basis(feed.loads, feed.outputs),
        },
      }));
    const limits = power.limits
      .filter(({ taken, most }) => taken > most)
      .map(({ supply, most, unit, taken, outputs: inside }): Reported<'limit'> => {
        const feeds = power.feeds.filter((feed) =>
          feed.outputs.some((each) => each.supply.id === supply.id && inside.includes(each.output.id)),
        );
        const loads = feeds.flatMap((feed) => feed.loads);
        return {
          messageId: 'limit',
          at: { device: supply.id },
          ...graded('stops-the-show', loads, [{ supply }]),
          data: {
            supply: supply.name,
            most: amount(most),
            unit,
            outputs: inside.length === 1 ? 'one output' : `${inside.length} outputs`,
            taken: amount(taken),
            basis: basis(loads, [{ supply }]),
          },
        };
      });
    return [...outputs, ...limits];
  },
});
