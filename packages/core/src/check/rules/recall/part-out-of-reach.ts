import { defineRule } from '../../define-rule.ts';

export const partOutOfReach = defineRule({
  meta: {
    id: 'recall/part-out-of-reach',
    severity: 'stops-the-show',
    title: 'A part whose switch cannot be reached',
    why: 'Moving the bank fires a slot there, and what that sends leads to another bank again: the switch of the part never comes under the foot.',
    remedy: 'Lay the sound into a bank that can be reached, or take out the message that calls back.',
    source: 'the set list, played from power-up',
    messages: { lost: 'In set order no bank move leads to the slot of {part} in {song}.' },
  },
  check: ({ show: { songbook }, prover }) =>
    prover.partsOutOfReach.map((id) => {
      const part = songbook.parts[id];
      return {
        messageId: 'lost' as const,
        at: { part: id },
        data: { part: part.name, song: songbook.songs[part.song].name },
      };
    }),
});
