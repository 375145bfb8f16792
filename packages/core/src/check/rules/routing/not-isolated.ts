import { endsHeard, endsWithinReach } from '../../../trace/ends.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { heardSounds, nameOf } from '../../queries.ts';

export const notIsolated = defineRule({
  meta: {
    id: 'routing/not-isolated',
    severity: 'fix-before-load-in',
    title: 'Heard where it was not meant to be',
    why: 'It was promised to one listener alone: an ambience for the ears, a level of one’s own. Where the signal goes on from it to another end, that end hears it too.',
    remedy: 'Take it behind the split, on the branch of the listener that it is for; or lift the promise.',
    source: 'the trace of each sound; the wiring with every switch as it likes',
    messages: {
      heard: '{what} is meant for {ends} alone, and in {sound} {elsewhere} hears it too.',
      several: '{what} is meant for {ends} alone, and in {sound} and {more} more {elsewhere} hears it too.',
      may: '{what} is meant for {ends} alone, and no sound takes it to {elsewhere}; but some setting of the switches does.',
    },
  },
  check: (context) => {
    const { tracer, wiring } = context;
    return wiring.devices.flatMap(({ device, control: controls }) =>
      (device.onlyFor ?? []).flatMap(({ to, control }): readonly Reported<'heard' | 'several' | 'may'>[] => {
        const doing = { device: device.id, control };
        const others = (ends: ReadonlySet<string>) => [...ends].filter((end) => !to.some((meant) => meant === end));
        const label = control === undefined ? '' : ` ${controls.get(control)?.label.toLowerCase() ?? control}`;
        const data = {
          what: `${device.name}${label}`,
          ends: to.map((end) => nameOf(context, end)).join(' and '),
        };
        const names = (ends: readonly string[]) => ends.map((end) => nameOf(context, end)).join(' and ');
        const wrong = heardSounds(context).flatMap(({ sound }) => {
          const elsewhere = others(endsHeard(tracer, sound, doing));
          return elsewhere.length > 0 ? [{ sound, elsewhere }] : [];
        });
        if (wrong.length > 0) {
          const [{ sound, elsewhere }] = wrong;
          const facts = { ...data, sound: sound.name, elsewhere: names(elsewhere) };
          const at = { device: device.id, sound: sound.id };
          return wrong.length === 1
            ? [{ messageId: 'heard', at, data: facts }]
            : [{ messageId: 'several', at, data: { ...facts, more: wrong.length - 1 } }];
        }
        const within = others(endsWithinReach(tracer, doing));
        return within.length === 0
          ? []
          : [
              {
                messageId: 'may',
                severity: 'worth-knowing',
                at: { device: device.id },
                data: { ...data, elsewhere: names(within) },
              },
            ];
      }),
    );
  },
});
