import { controlRef } from '../../../model/documents.ts';
import { ownerOf } from '../../../model/wiring.ts';
import { defineRule } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';
import { isSent, soundsOf } from '../../queries.ts';

export const heldByPedal = defineRule({
  meta: {
    id: 'recall/held-by-pedal',
    severity: 'fix-before-load-in',
    title: 'A programmed value held only by a pedal’s position',
    why: 'The sound counts on a value that nothing sends and no preset stores: it is wherever the foot left the pedal.',
    remedy: 'Store the value in the preset, send it by control change, or declare the control live.',
    source: 'common practice',
    messages: { held: '{sound} wants {control} of {device} at {value}, and only the expression pedal sets it.' },
  },
  check: (context) =>
    context.wiring.devices.flatMap((wired) =>
      wired.anatomy.controls
        .filter((control) => control.expression && ownerOf(wired, control) === 'programmed' && !isSent(wired, control))
        .flatMap((control) =>
          soundsOf(context).flatMap((sound) => {
            const value = sound.wants[controlRef(wired.device.id, control.id)];
            const preset = sound.wants[controlRef(wired.device.id, 'preset')];
            const stored = preset === undefined ? undefined : wired.device.presets[String(preset)]?.values[control.id];
            if (value === undefined || stored === value) return [];
            const { id, name, owners } = wired.device;
            const fix = setFix(
              `Declare ${control.label.toLowerCase()} of ${name} live`,
              ['devices', id, 'owners'],
              { ...owners, [control.id]: 'live' },
              owners,
            );
            return [
              {
                messageId: 'held' as const,
                at: { sound: sound.id, device: id },
                data: { sound: sound.name, device: name, control: control.label.toLowerCase(), value },
                fix,
              },
            ];
          }),
        ),
    ),
});
