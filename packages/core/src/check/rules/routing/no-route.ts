import { inOrder } from '../../../model/documents.ts';
import { defineRule } from '../../define-rule.ts';

export const noRoute = defineRule({
  meta: {
    id: 'routing/no-route',
    severity: 'stops-the-show',
    title: 'No route to any destination',
    why: 'Nothing is heard in this sound: the line from the instrument stops before a loudspeaker or the desk.',
    remedy: 'Follow the run from the left, plug in or switch on what stops it; or declare the sound silent.',
    source: 'common practice',
    messages: { silent: '{sound} is silent: no route from an instrument to a loudspeaker or the desk.' },
  },
  check: ({ show, wiring, tracer }) => {
    if (!wiring.devices.some((wired) => wired.anatomy.source !== undefined)) return [];
    return inOrder(show.rig.sounds).flatMap((sound) =>
      sound.silence || tracer.trace(sound).sounds ? [] : [{ messageId: 'silent' as const, at: { sound: sound.id }, data: { sound: sound.name } }],
    );
  },
});
