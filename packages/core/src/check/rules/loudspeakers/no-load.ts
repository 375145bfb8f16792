import { defineRule } from '../../define-rule.ts';
import type { Jack } from '../../../model/anatomy.ts';
import { hasLoad, isPowered, speakerCables } from '../../speaker-cables.ts';

export const noLoad = defineRule({
  meta: {
    id: 'loudspeakers/no-load',
    severity: 'stops-the-show',
    title: 'A power amp without its load',
    why: 'A valve power amp that is switched on without a loudspeaker or a rated load can destroy its output transformer, whether anything is played or not.',
    remedy:
      'Plug in a cabinet or a load that is rated for it before it is switched on; in doubt leave it off and ask a technician.',
    source: 'common practice; the maker’s papers and a technician have the last word',
    messages: {
      open: 'Nothing is plugged into {jack} of {device}: it must not be switched on like that.',
      loose: '{tag} at {jack} of {device} leads to no loudspeaker: it must not be switched on like that.',
    },
  },
  check: (context) => {
    const cables = speakerCables(context);
    const loaded = new Map(cables.map(({ from, ...cable }) => [`${from.device}:${from.jack}`, cable]));
    return context.wiring.devices.flatMap(({ device, anatomy, plugged }) =>
      plugged.size === 0
        ? []
        : anatomy.jacks
            .filter((jack) => isPowered(jack) && !passedOn(anatomy.jacks, jack))
            .flatMap((jack) => {
              const cable = loaded.get(`${device.id}:${jack.id}`);
              if (cable && hasLoad(cables, cable.ends)) return [];
              return [
                {
                  messageId: cable ? ('loose' as const) : ('open' as const),
                  at: { device: device.id },
                  data: { jack: jack.label.toLowerCase(), device: device.name, tag: cable?.cable.tag ?? '' },
                },
              ];
            }),
    );
  },
});

/** What a tap box passes on is judged where the power comes from. */
const passedOn = (jacks: readonly Jack[], { id }: Jack): boolean => jacks.some((jack) => jack.passesPowerTo === id);
