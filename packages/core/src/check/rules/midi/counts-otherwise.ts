import { presetExists } from '../../../model/anatomy.ts';
import type { Action } from '../../../model/documents.ts';
import { wantedPresets } from '../../ask.ts';
import type { Reported } from '../../define-rule.ts';
import { actionsFix, setFix } from '../../fix.ts';
import { defineSoundRule } from '../../sound-rule.ts';

const none: readonly never[] = [];

export const countsOtherwise = defineSoundRule({
  meta: {
    id: 'midi/counts-otherwise',
    severity: 'fix-before-load-in',
    title: 'A number that only makes sense counted the other way',
    why: 'Some panels count presets from 0, some from 1. One off by one is the usual sign that a number was copied from the other kind.',
    remedy: 'Set the number as this device counts; both the panel’s number and the wire’s are shown.',
    source: 'MIDI 1.0 sends programs 0 to 127 whatever the panel shows; common practice',
    messages: {
      edge: '{sound} wants preset {panel} of {device}, which does not exist; {other} does, counted the other way.',
      slot: 'The slot of {sound} sends program {sent}, one off from preset {panel} of {device} ({wire} on the wire).',
    },
  },
  tellsNumbers: true,
  each: ({ sound, byHand, wiring }) =>
    wantedPresets({ wiring }, sound).flatMap(({ ref, wired, facts, number }): readonly Reported<'edge' | 'slot'>[] => {
      const exists = presetExists(facts, number);
      if (exists && byHand.length === 0) return none;
      const { id: device, countsFrom, channel, name } = wired.device;
      const data = { sound: sound.name, device: name, panel: number + countsFrom };
      const other = number + (countsFrom === 1 ? -1 : 1);
      if (!exists)
        return presetExists(facts, other)
          ? [{ messageId: 'edge', at: { sound: sound.id, device }, data: { ...data, other: other + countsFrom }, fix: setFix(`Want preset ${other + countsFrom}`, ['sounds', sound.id, 'wants', ref], other, number) }]
          : [];
      const program = number % facts.bankSize;
      return byHand.flatMap((slot): Reported<'slot'>[] => {
        const isOff = (action: Action) => action.kind === 'program' && action.channel === channel && Math.abs(action.program - program) === 1;
        const sends = slot.actions.find(isOff);
        if (sends?.kind !== 'program' || slot.actions.some((action) => action.kind === 'program' && action.channel === channel && action.program === program)) return [];
        const actions = slot.actions.map((action) => (isOff(action) ? { ...action, program } : action));
        return [{ messageId: 'slot', at: { sound: sound.id, slot: slot.id, device }, data: { ...data, wire: number, sent: sends.program }, fix: actionsFix(`Send program ${program}`, slot, actions) }];
      });
    }),
});
