import { inOrder } from '../../../model/documents.ts';
import { defineRule } from '../../define-rule.ts';
import { isBetweenEnds } from '../../queries.ts';

export const noDestination = defineRule({
  meta: {
    id: 'routing/no-destination',
    severity: 'stops-the-show',
    title: 'Nothing to hear it by, or nothing to play',
    why: 'A line needs both ends: an instrument that the signal comes from, and a loudspeaker or a line to the desk that it goes to.',
    remedy: 'Enter the missing end on Gear and plug it in on Routing.',
    source: 'common practice',
    messages: {
      destination: 'There is no cabinet and no line to the desk: nothing that is played is heard.',
      instrument: 'There is no instrument: nothing is played into this rig.',
    },
  },
  check: ({ show, wiring }) => {
    const { devices } = wiring;
    if (inOrder(show.rig.sounds).every(({ silence }) => silence) || !devices.some(isBetweenEnds)) return [];
    return [
      ...(devices.some(({ anatomy }) => anatomy.destination !== undefined)
        ? []
        : [{ messageId: 'destination' as const, at: {}, data: {} }]),
      ...(devices.some(({ anatomy }) => anatomy.source !== undefined)
        ? []
        : [{ messageId: 'instrument' as const, at: {}, data: {} }]),
    ];
  },
});
