import type { WiredDevice } from '../../../model/wiring.ts';
import type { Reported } from '../../define-rule.ts';
import { actionsFix } from '../../fix.ts';
import { none } from '../../queries.ts';
import { defineSoundRule, type HandSlot, type SoundCase } from '../../sound-rule.ts';

export const overwrittenControl = defineSoundRule({
  meta: {
    id: 'midi/overwritten-control',
    severity: 'fix-before-load-in',
    title: 'A control change before the preset that overwrites it',
    why: 'The recall that follows loads the stored value over what the control change has just set.',
    remedy: 'Send the program change first, wait for the device to load, then the control change.',
    source: 'common practice',
    messages: {
      lost: 'The slot of {sound} sets {control} of {device} and then recalls a preset, which loads another value over it.',
    },
  },
  each: (soundCase) =>
    soundCase.byHand
      .filter(({ actions }) => actions.some(({ kind }) => kind === 'program'))
      .flatMap((slot) =>
        soundCase.wiring.devices.flatMap((wired): readonly Reported<'lost'>[] =>
          wired.anatomy.presets ? overwritten(soundCase, slot, wired) : none,
        ),
      ),
});

function overwritten({ sound }: SoundCase, slot: HandSlot, { device, anatomy }: WiredDevice): Reported<'lost'>[] {
  const { actions } = slot;
  const last = actions.findLastIndex((action) => action.kind === 'program' && action.channel === device.channel);
  const stored = (cc: number) =>
    anatomy.messages.find(
      (message) =>
        message.cc === cc &&
        anatomy.controls.some((control) => control.id === message.control && control.scope === 'preset'),
    );
  const early = actions
    .slice(0, Math.max(0, last))
    .filter(
      (action) => action.kind === 'control' && action.channel === device.channel && stored(action.cc) !== undefined,
    );
  const first = early[0];
  if (first?.kind !== 'control') return [];
  const control = anatomy.controls.find((own) => own.id === stored(first.cc)!.control)!;
  const wait = anatomy.busy ? [{ kind: 'wait' as const, ms: anatomy.busy.ms }] : [];
  const moved = [
    ...actions.slice(0, last + 1).filter((action) => !early.includes(action)),
    ...wait,
    ...early,
    ...actions.slice(last + 1),
  ];
  return [
    {
      messageId: 'lost',
      at: { sound: sound.id, slot: slot.id, device: device.id },
      data: { sound: sound.name, device: device.name, control: control.label.toLowerCase() },
      fix: actionsFix('Send it after the preset', slot, moved),
    },
  ];
}
