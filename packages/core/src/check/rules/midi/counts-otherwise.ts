import { presetExists } from '../../../model/anatomy.ts';
import type { Action } from '../../../model/rig.ts';
import type { Reported } from '../../define-rule.ts';
import { actionsFix, setFix } from '../../fix.ts';
import { none, type WantedPreset, wantedPresets } from '../../queries.ts';
import { defineSoundRule, type SoundCase } from '../../sound-rule.ts';

export const countsOtherwise = defineSoundRule({
  meta: {
    id: 'midi/counts-otherwise',
    severity: 'fix-before-load-in',
    title: 'Preset number off by one',
    why: 'Some panels count presets from 0, some from 1. One off by one is the usual sign that a number was copied from the other kind.',
    remedy: 'Set the number as this device counts; both the panel’s number and the wire’s are shown.',
    source: 'MIDI 1.0 sends programs 0 to 127 whatever the panel shows; common practice',
    messages: {
      edge: '{sound} wants preset {panel} of {device}, which does not exist; {other} does.',
      slot: 'The slot of {sound} sends program {sent}, one off from preset {panel} of {device} (sent as {wire}).',
    },
  },
  tellsNumbers: true,
  each: (soundCase) =>
    wantedPresets(soundCase, soundCase.sound).flatMap((wanted): readonly Reported<'edge' | 'slot'>[] =>
      presetExists(wanted.facts, wanted.number)
        ? soundCase.byHand.length === 0
          ? none
          : sentOtherwise(soundCase, wanted)
        : wantedOtherwise(soundCase, wanted),
    ),
});

function wantedOtherwise({ sound }: SoundCase, { ref, wired, facts, number }: WantedPreset): Reported<'edge'>[] {
  const { id: device, firstPresetNumber, name } = wired.device;
  const other = number + (firstPresetNumber === 1 ? -1 : 1);
  if (!presetExists(facts, other)) return [];
  return [
    {
      messageId: 'edge',
      at: { sound: sound.id, device },
      data: { sound: sound.name, device: name, panel: number + firstPresetNumber, other: other + firstPresetNumber },
      fix: setFix(`Want preset ${other + firstPresetNumber}`, ['sounds', sound.id, 'wants', ref], other, number),
    },
  ];
}

function sentOtherwise({ sound, byHand }: SoundCase, { wired, facts, number }: WantedPreset): Reported<'slot'>[] {
  const { id: device, firstPresetNumber, channel, name } = wired.device;
  const program = number % facts.bankSize;
  const isOff = (action: Action) =>
    action.kind === 'program' && action.channel === channel && Math.abs(action.program - program) === 1;
  return byHand.flatMap((slot): Reported<'slot'>[] => {
    const sends = slot.actions.find(isOff);
    if (
      sends?.kind !== 'program' ||
      slot.actions.some(
        (action) => action.kind === 'program' && action.channel === channel && action.program === program,
      )
    )
      return [];
    const actions = slot.actions.map((action) => (isOff(action) ? { ...action, program } : action));
    return [
      {
        messageId: 'slot',
        at: { sound: sound.id, slot: slot.id, device },
        data: { sound: sound.name, device: name, panel: number + firstPresetNumber, wire: number, sent: sends.program },
        fix: actionsFix(`Send program ${program}`, slot, actions),
      },
    ];
  });
}
