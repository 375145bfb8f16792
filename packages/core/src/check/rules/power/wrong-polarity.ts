import { feedLabel } from '../../../power/wired.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';
import { basis, fedLoads, graded } from '../../power-queries.ts';
import { none } from '../../queries.ts';

const signs = { '-': 'minus', '+': 'plus' } as const;

export const wrongPolarity = defineRule({
  meta: {
    id: 'power/wrong-polarity',
    severity: 'stops-the-show',
    title: 'Plus and minus the wrong way round',
    why: 'A device that gets plus where it wants minus does not work, and some do not survive it.',
    remedy: 'A lead that reverses, marked so that nobody swaps it, at the one device that wants it.',
    source: 'the device’s own papers',
    messages: {
      straight: '{device} wants {wanted} at the centre and gets {given} from {output}{basis}.',
      reversed: '{device} gets {given} at the centre from a lead that reverses, and wants {wanted}{basis}.',
      lead: '{device} depends on a lead that reverses: mark the lead at both ends, it would hurt the others.',
    },
  },
  check: (context) =>
    fedLoads(context).flatMap(({ load, feed }): readonly Reported<'straight' | 'reversed' | 'lead'>[] => {
      const { centre, kind } = load.needs;
      const { output } = feed.outputs[0];
      const { cable, isReversed, device } = load;
      if (kind === 'ac' || output.kind === 'ac' || !cable) return none;
      const given = isReversed ? (output.centre === '-' ? '+' : '-') : output.centre;
      const isRight = centre === 'any' || given === centre;
      if (isRight && (!isReversed || centre === 'any')) return none;
      const lead = cable.lead ?? {};
      const others = (lead.reverses ?? []).filter((id) => id !== device.id);
      const { reverses: _, ...rest } = lead;
      const next = isReversed ? others : [...others, device.id];
      const mended = next.length > 0 ? { ...rest, reverses: next } : rest;
      return [
        {
          messageId: isRight ? ('lead' as const) : isReversed ? ('reversed' as const) : ('straight' as const),
          at: { device: device.id },
          ...(isRight
            ? { severity: 'worth-knowing' as const }
            : {
                ...graded('stops-the-show', [load], feed.outputs),
                fix: setFix(
                  isReversed ? 'Use a straight lead' : 'Use a lead that reverses',
                  ['cables', cable.id, 'lead'],
                  Object.keys(mended).length > 0 ? mended : undefined,
                  cable.lead,
                ),
              }),
          data: {
            device: device.name,
            wanted: signs[centre],
            given: signs[given],
            output: feedLabel(feed),
            basis: basis([load], feed.outputs),
          },
        },
      ];
    }),
});
