import { splitRef } from '../../../model/documents.ts';
import { type Context, defineRule } from '../../define-rule.ts';
import { isSent, nameOf, soundsOf } from '../../queries.ts';

export const sharedLoop = defineRule({
  meta: {
    id: 'routing/shared-loop',
    severity: 'fix-before-load-in',
    title: 'Two pieces share a loop that a sound needs apart',
    why: 'The loop brings both in together. The one that is not wanted has no other means by which a slot could switch it off.',
    remedy: 'Give one of them a loop of its own, or switch it by MIDI.',
    source: 'common practice',
    messages: { apart: '{sound} wants {on} without {off}, and both are in {loop} of {controller}.' },
  },
  check: (context) =>
    context.tracer.loops.flatMap((loop) => {
      if (loop.holds.length < 2) return [];
      const label = context.wiring.device.get(loop.controller)!.control.get(loop.control)!.label;
      return soundsOf(context).flatMap((sound) => {
        const on = loop.holds.find((device) => sound.pedals[device] === 'on');
        const off = loop.holds.find((device) => sound.pedals[device] === 'off' && !switchable(context, device));
        if (on === undefined || off === undefined) return [];
        return [
          {
            messageId: 'apart' as const,
            at: { sound: sound.id, device: off },
            data: {
              sound: sound.name,
              on: nameOf(context, on),
              off: nameOf(context, off),
              loop: label,
              controller: nameOf(context, loop.controller),
            },
          },
        ];
      });
    }),
});

/** Whether a slot can switch a piece by its own switch. */
function switchable({ wiring }: Context, device: string): boolean {
  const wired = wiring.device.get(device)!;
  const own = wired.device.switching?.own ? splitRef(wired.device.switching.own).control : wired.anatomy.ownSwitch;
  const control = own === undefined ? undefined : wired.control.get(own);
  return control !== undefined && isSent(wired, control);
}
