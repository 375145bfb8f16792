import { defineRule } from '../../define-rule.ts';
import { nameOf } from '../../queries.ts';
import { speakerCables } from '../../speaker-cables.ts';

export const unratedJack = defineRule({
  meta: {
    id: 'loudspeakers/unrated-jack',
    severity: 'stops-the-show',
    title: 'A loudspeaker output into a jack that is not rated for it',
    why: 'A power amp gives tens of volts: they destroy the input of a pedal, an effects return or a desk, and the amp has no load.',
    remedy: 'Take the signal from a line output, or go through a load or tap that is rated for the amp’s power.',
    source: 'common practice; the maker’s papers have the last word',
    messages: { into: '{tag} carries the loudspeaker output of {amp} into {jack} of {device}.' },
  },
  check: (context) =>
    speakerCables(context).flatMap(({ cable, from, ends }) =>
      ends
        .filter(({ jack }) => jack.speaker !== true)
        .map(({ plug, jack }) => ({
          messageId: 'into' as const,
          at: { device: plug.device },
          data: {
            tag: cable.tag,
            amp: nameOf(context, from.device),
            jack: jack.label.toLowerCase(),
            device: nameOf(context, plug.device),
          },
        })),
    ),
});
