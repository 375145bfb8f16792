import { schoolOf } from '../../../model/documents.ts';
import { inOrderOf, nameOf } from '../../ask.ts';
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
      : inOrderOf(context, ['delay', 'reverb'], 'gate').map(({ sound, first, then }) => ({ messageId: 'cuts' as const, at: { sound: sound.id, device: then.device }, data: { sound: sound.name, gate: nameOf(context, then.device), tail: nameOf(context, first.device) } })),
});
