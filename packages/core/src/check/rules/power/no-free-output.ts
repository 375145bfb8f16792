import { defineRule } from '../../define-rule.ts';
import { plannedPower } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const noFreeOutput = defineRule({
  meta: {
    id: 'power/no-free-output',
    severity: 'worth-knowing',
    title: 'No output is left',
    why: 'When an output dies, or a piece is added, there is nowhere to go.',
    remedy: 'Keep one output free, or carry a mains adapter that powers the neediest piece.',
    source: 'common practice',
    messages: { full: 'All {count} outputs of the supplies feed something.' },
  },
  check: (context) => {
    const feeds = plannedPower(context)?.feeds ?? [];
    // One output that feeds one piece is that piece's own adapter.
    if (feeds.length < 2 || feeds.some(({ loads }) => loads.length === 0)) return none;
    const outputs = feeds.flatMap((feed) => feed.outputs);
    return [{ messageId: 'full', at: { device: outputs[0].supply.id }, data: { count: outputs.length } }];
  },
});
