import { feedLabel } from '../../../power/wired.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';
import { fedLoads } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const otherPlug = defineRule({
  meta: {
    id: 'power/other-plug',
    severity: 'worth-knowing',
    title: 'A connector that needs an adapter',
    why: 'The lead that comes with the supply does not go into the device: whoever packs has to know that there is an adapter.',
    remedy: 'Say that the lead has the other plug, and pack a spare; or use a lead made for it.',
    source: 'common practice',
    messages: { other: '{device} takes {wanted}; {output} has {given}.' },
  },
  check: (context) =>
    fedLoads(context).flatMap(({ load, feed }): readonly Reported<'other'>[] => {
      const { device, cable, isAdapted, needs } = load;
      const { plug } = feed.outputs[0].output;
      if (plug === needs.plug || isAdapted || !cable) return none;
      return [
        {
          messageId: 'other',
          at: { device: device.id },
          data: { device: device.name, wanted: needs.plug, given: plug, output: feedLabel(feed) },
          fix: setFix(
            'The lead has the other plug',
            ['cables', cable.id, 'lead'],
            { ...cable.lead, adapts: [...(cable.lead?.adapts ?? []), device.id] },
            cable.lead,
          ),
        },
      ];
    }),
});
