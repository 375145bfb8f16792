import { bankSelectLsb, bankSelectMsb } from '../../../midi/message.ts';
import { presetExists } from '../../../model/anatomy.ts';
import type { Reported } from '../../define-rule.ts';
import { generateFix } from '../../fix.ts';
import { none, type WantedPreset, wantedPresets } from '../../queries.ts';
import { defineSoundRule, type SoundCase } from '../../sound-rule.ts';

export const bankUnselected = defineSoundRule({
  meta: {
    id: 'midi/bank-unselected',
    severity: 'fix-before-load-in',
    title: 'A preset past the first bank without bank select',
    why: 'A program change alone reaches one bank. Without the bank before it, the same number of whatever bank the device is in comes up.',
    remedy: 'Send bank select before the program change: generate the slot, or tell how the device selects its banks.',
    source: 'MIDI 1.0: bank select is control change 0 and 32, before the program change',
    messages: {
      'no-scheme':
        '{sound} wants preset {panel} of {device}, in its bank {bank}, and the device is said to know no bank select.',
      'not-sent':
        'The slot of {sound} sends a program for preset {panel} of {device}, in its bank {bank}, with no bank select before it.',
    },
  },
  tellsNumbers: true,
  each: (soundCase) =>
    wantedPresets(soundCase, soundCase.sound).flatMap((wanted): readonly Reported<'no-scheme' | 'not-sent'>[] =>
      wanted.number < wanted.facts.bankSize || (wanted.facts.scheme !== 'none' && soundCase.byHand.length === 0)
        ? none
        : unselected(soundCase, wanted),
    ),
});

function unselected(
  { sound, byHand }: SoundCase,
  { wired: { device }, facts, number }: WantedPreset,
): Reported<'no-scheme' | 'not-sent'>[] {
  const bank = Math.floor(number / facts.bankSize);
  if (!presetExists(facts, number)) return [];
  const at = { sound: sound.id, device: device.id };
  const data = { sound: sound.name, device: device.name, panel: number + device.firstPresetNumber, bank: bank + 1 };
  if (facts.scheme === 'none') return [{ messageId: 'no-scheme', at, data }];
  return byHand.flatMap((slot): Reported<'not-sent'>[] => {
    const own = slot.actions.filter((action) => 'channel' in action && action.channel === device.channel);
    const program = own.findIndex((action) => action.kind === 'program');
    const selects = own
      .slice(0, Math.max(0, program))
      .some((action) => action.kind === 'control' && (action.cc === bankSelectMsb || action.cc === bankSelectLsb));
    return program < 0 || selects
      ? []
      : [{ messageId: 'not-sent', at: { ...at, slot: slot.id }, data, fix: generateFix(slot) }];
  });
}
