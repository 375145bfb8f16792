import { feedLabel, joinAllowed } from '../../../power/wired.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { plannedPower } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const joinedOutputs = defineRule({
  meta: {
    id: 'power/joined-outputs',
    severity: 'stops-the-show',
    title: 'Outputs joined that may not be',
    why: 'Two outputs work against each other where their supply is not made for it; in series they short each other where they share a rail.',
    remedy: 'Join only outputs of which the supply’s own papers say so, in the way that they say.',
    source: 'the supply’s own papers',
    messages: {
      forbidden: '{outputs} are joined; nothing in the facts of their supply allows it.',
      otherwise: '{outputs} are joined in {how}; their supply allows it in {allowed} only.',
      shared: '{outputs} are joined in series, and {others} hangs on the same rail.',
    },
  },
  check: (context) => {
    const power = plannedPower(context);
    return (power?.feeds ?? []).flatMap((feed): readonly Reported<'forbidden' | 'otherwise' | 'shared'>[] => {
      if (feed.outputs.length < 2) return none;
      const allowed = joinAllowed(feed.outputs);
      const at = { device: feed.outputs[0].supply.id };
      const outputs = feedLabel(feed);
      if (allowed === undefined) return [{ messageId: 'forbidden', at, data: { outputs } }];
      if (allowed !== feed.how) return [{ messageId: 'otherwise', at, data: { outputs, how: feed.how, allowed } }];
      const others = power!.feeds.filter(
        (other) => other !== feed && other.rail === feed.rail && other.loads.length > 0,
      );
      if (feed.how !== 'series' || others.length === 0) return none;
      return [
        {
          messageId: 'shared',
          at,
          data: {
            outputs,
            others: others.flatMap(({ loads }) => loads.map(({ device }) => device.name)).join(' and '),
          },
        },
      ];
    });
  },
});
