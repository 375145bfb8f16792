import { schoolOf } from '../../../model/documents.ts';
import { passesAfter } from '../../../trace/ahead.ts';
import { heardSounds, nameOf } from '../../ask.ts';
import { defineRule } from '../../define-rule.ts';

export const gateAfterTail = defineRule({
  meta: {
    id: 'routing/gate-after-tail',
    severity: 'worth-knowing',
    title: 'A gate after a tail that should ring',
    why: 'The gate closes on the repeats or the room as they fade. A mild threshold at the end of the line is one school; a gate before the tails is the other.',
    remedy: 'Put the gate before the delay and reverb; or set the rig’s school for the gate to last of the line.',
    source: 'common practice; schools differ',
    messages: { cuts: 'In {sound}, {gate} comes after {tail} and may cut it.' },
  },
  check: (context) =>
    schoolOf(context.show.rig, 'gate') === 'last of the line'
      ? []
      : heardSounds(context).flatMap(({ sound, trace }) =>
          trace.passes.flatMap((pass) => {
            if (!pass.effects.includes('delay') && !pass.effects.includes('reverb')) return [];
            const gate = passesAfter(trace, pass).find((after) => after.effects.includes('gate'));
            return gate ? [{ messageId: 'cuts' as const, at: { sound: sound.id, device: gate.device }, data: { sound: sound.name, gate: nameOf(context, gate.device), tail: nameOf(context, pass.device) } }] : [];
          }),
        ),
});
