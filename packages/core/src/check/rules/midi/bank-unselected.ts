import { bankSelectLsb, bankSelectMsb } from '../../../midi/message.ts';
import { presetExists } from '../../../model/anatomy.ts';
import { splitRef } from '../../../model/documents.ts';
import { slotsOf, soundsOf } from '../../ask.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { generateFix } from '../../fix.ts';

export const bankUnselected = defineRule({
  meta: {
    id: 'midi/bank-unselected',
    severity: 'fix-before-load-in',
    title: 'A preset past the first bank without bank select',
    why: 'A program change alone reaches one bank. Without the bank before it, the same number of whatever bank the device is in comes up.',
    remedy: 'Send bank select before the program change: generate the slot, or tell how the device selects its banks.',
    source: 'MIDI 1.0: bank select is control change 0 and 32, before the program change',
    messages: {
      'no-scheme': '{sound} wants preset {panel} of {device}, in its bank {bank}, and the device is said to know no bank select.',
      'not-sent': 'The slot of {sound} sends a program for preset {panel} of {device}, in its bank {bank}, with no bank select before it.',
    },
  },
  check: (context) =>
    soundsOf(context).flatMap((sound) =>
      Object.entries(sound.wants).flatMap(([ref, value]): Reported<'no-scheme' | 'not-sent'>[] => {
        const { device, control } = splitRef(ref);
        const wired = context.wiring.device.get(device);
        const facts = wired?.anatomy.presets;
        if (control !== 'preset' || !wired || !facts || !presetExists(facts, Number(value))) return [];
        const bank = Math.floor(Number(value) / facts.bankSize);
        if (bank === 0) return [];
        const data = { sound: sound.name, device: wired.device.name, panel: Number(value) + wired.device.countsFrom, bank: bank + 1 };
        if (facts.scheme === 'none') return [{ messageId: 'no-scheme', at: { sound: sound.id, device }, data }];
        return slotsOf(context, sound).flatMap((slot): Reported<'not-sent'>[] => {
          const own = slot.actions?.filter((action) => 'channel' in action && action.channel === wired.device.channel) ?? [];
          const program = own.findIndex((action) => action.kind === 'program');
          const selects = own.slice(0, Math.max(0, program)).some((action) => action.kind === 'control' && (action.cc === bankSelectMsb || action.cc === bankSelectLsb));
          if (program < 0 || selects) return [];
          return [{ messageId: 'not-sent', at: { sound: sound.id, slot: slot.id, device }, data, fix: generateFix(slot) }];
        });
      }),
    ),
});
