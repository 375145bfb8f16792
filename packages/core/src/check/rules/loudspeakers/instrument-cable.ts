import { defineRule } from '../../define-rule.ts';
import { nameOf } from '../../queries.ts';
import { speakerCables } from '../../speaker-cables.ts';

export const instrumentCable = defineRule({
  meta: {
    id: 'loudspeakers/instrument-cable',
    severity: 'stops-the-show',
    title: 'An instrument cable carries power',
    why: 'Its thin core gets hot and may fail, and then the amp plays without a load.',
    remedy: 'Use a loudspeaker cable there, and say so in the patch.',
    source: 'common practice',
    messages: { thin: '{tag} from {amp} to {cabinet} is an instrument cable, and carries the amp’s power.' },
  },
  check: (context) =>
    speakerCables(context).flatMap(({ cable, from, ends }) =>
      cable.kind === 'signal'
        ? ends
            .filter(({ jack }) => jack.speaker === true)
            .map(({ plug }) => ({
              messageId: 'thin' as const,
              at: { device: from.device },
              data: { tag: cable.tag, amp: nameOf(context, from.device), cabinet: nameOf(context, plug.device) },
            }))
        : [],
    ),
});
