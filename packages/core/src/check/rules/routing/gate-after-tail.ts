import { conventionOf } from '../../../model/rig.ts';
import { inOrderOf, nameOf } from '../../queries.ts';
import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const gateAfterTail = defineSoundRule({
  meta: {
    id: 'routing/gate-after-tail',
    severity: 'worth-knowing',
    title: 'A gate after a tail that should ring',
    why: 'The gate closes on the repeats or the room as they fade. A mild threshold at the end of the line is one convention; a gate before the tails is the other.',
    remedy: 'Put the gate before the delay and reverb; or set the rig’s convention for the gate to last of the line.',
    source: 'common practice; conventions differ',
    messages: { cuts: 'In {sound}, {gate} comes after {tail} and may cut it.' },
  },
  applies: ({ show }) => conventionOf(show.rig, 'gate') !== 'last of the line',
  each: (soundCase) =>
    isHeard(soundCase)
      ? inOrderOf(soundCase.trace(), ['delay', 'reverb'], 'gate').map(({ first, then }) => ({
          messageId: 'cuts' as const,
          at: { sound: soundCase.sound.id, device: then.device },
          data: {
            sound: soundCase.sound.name,
            gate: nameOf(soundCase, then.device),
            tail: nameOf(soundCase, first.device),
          },
        }))
      : [],
});
