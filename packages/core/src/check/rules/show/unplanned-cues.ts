import { actionLabel } from '../../../model/labels.ts';
import { unplannedCues } from '../../../recall/replay/unplanned-cues.ts';
import { defineRule } from '../../define-rule.ts';

export const unplanned = defineRule({
  meta: {
    id: 'show/unplanned-cues',
    severity: 'fix-before-load-in',
    title: 'A foot or hand that the sound needs and nobody planned',
    why: 'The slot brings up all that is programmed, and the rest belongs to the player: if it is on no cue sheet, the part comes up wrong.',
    remedy: 'Plan it for the part on Set, or let the slot do it.',
    source: 'the set list, played from power-up; the fewest presses and hand moves',
    messages: {
      one: '{part} needs {what} besides its slot, and nobody planned it.',
      several: '{part} needs {what} besides its slot, and nobody planned it; so do {more} more parts.',
    },
  },
  check: ({ show: { rig, songbook }, wiring, prover }) => {
    const found = unplannedCues(prover);
    if (found.length === 0) return [];
    const [{ part: id, actions }] = found;
    const part = songbook.parts[id];
    const data = {
      part: `${songbook.songs[part.song].name}, ${part.name}`,
      what: actions.map((action) => actionLabel(wiring, action)).join(', '),
    };
    const casts = new Set<string>();
    const steps = found.flatMap(({ cast, actions: planned }) => {
      // A part that comes twice is planned as it comes first.
      if (casts.has(cast)) return [];
      casts.add(cast);
      const old = rig.casting[cast].after;
      return [
        { doc: 'rig' as const, op: 'set' as const, at: ['casting', cast, 'after'], value: [...old, ...planned], old },
      ];
    });
    return [
      {
        messageId: found.length > 1 ? ('several' as const) : ('one' as const),
        at: { part: id },
        data: found.length > 1 ? { ...data, more: found.length - 1 } : data,
        fix: { label: found.length > 1 ? 'Plan them all' : 'Plan it', steps },
      },
    ];
  },
});
