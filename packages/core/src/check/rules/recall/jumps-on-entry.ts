import { controlRef } from '../../../model/documents.ts';
import { jackFacts } from '../../../model/jack-kinds.ts';
import { valueLabel } from '../../../model/labels.ts';
import { numberIn } from '../../../model/wiring.ts';
import { isUnknown } from '../../../trace/planned-state.ts';
import { type Context, defineRule } from '../../define-rule.ts';
import { nameOf, playedSounds } from '../../queries.ts';

export const jumpsOnEntry = defineRule({
  meta: {
    id: 'recall/jumps-on-entry',
    severity: 'worth-knowing',
    title: 'An expression pedal that jumps when it is touched',
    why: 'A recall loads a stored value, and the pedal stays where the foot left it. At its first move the value leaps from the one to the other.',
    remedy: 'Say in the sound where the pedal should stand, store the value that it stands at, or know it.',
    source: 'common practice',
    messages: {
      jumps:
        '{control} of {device} comes up at {value} in {sound} after {before}, where {pedal} left it at {then}: touched, it jumps.',
    },
  },
  check: (context) => {
    const { wiring, tracer } = context;
    const played = playedSounds(context);
    return wiring.devices.flatMap((wired) =>
      wired.anatomy.controls.flatMap((control) => {
        if (!control.expression || control.scope !== 'preset') return [];
        const pedal = pedalOf(context, wired.device.id);
        if (pedal === undefined) return [];
        const number = numberIn(wired, control.id);
        const ref = controlRef(wired.device.id, control.id);
        const isHeard = (sound: (typeof played)[number]): boolean =>
          tracer.trace(sound).passes.some((pass) => pass.device === wired.device.id && pass.activeSections.length > 0);
        // A sound that says where the pedal should be is a cue: the foot is there before it plays.
        const says = (sound: (typeof played)[number]): boolean =>
          Object.keys(sound.wants).some((want) => want.startsWith(`${pedal}/`));
        const first = played.findIndex((sound, i) => {
          if (i === 0 || says(sound) || !isHeard(sound)) return false;
          const [now, then] = [tracer.stateOf(sound)[number], tracer.stateOf(played[i - 1])[number]];
          return !isUnknown(now) && !isUnknown(then) && now !== then;
        });
        if (first < 0) return [];
        const value = (sound: (typeof played)[number]) =>
          valueLabel(wiring, ref, tracer.stateOf(sound)[number] as string | number);
        return [
          {
            messageId: 'jumps' as const,
            at: { device: wired.device.id, sound: played[first].id },
            data: {
              device: wired.device.name,
              control: control.label,
              sound: played[first].name,
              before: played[first - 1].name,
              pedal: nameOf(context, pedal),
              value: value(played[first]),
              then: value(played[first - 1]),
            },
          },
        ];
      }),
    );
  },
});

/** What is plugged into the expression input of a device. */
function pedalOf({ show, wiring }: Context, device: string): string | undefined {
  const isInput = (jack: string): boolean => {
    const kind = wiring.device.get(device)?.jack.get(jack)?.kind;
    return kind !== undefined && jackFacts(kind).carries === 'expression' && jackFacts(kind).direction === 'in';
  };
  const cable = Object.values(show.rig.cables).find(
    (each) => each.kind === 'expression' && each.plugs.some((plug) => plug.device === device && isInput(plug.jack)),
  );
  return cable?.plugs.find((plug) => plug.device !== device)?.device;
}
