import { soundOfCast } from '../../../model/casting.ts';
import { partsInSetOrder } from '../../../model/set-order.ts';
import { defineRule } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';

export const partWithoutSound = defineRule({
  meta: {
    id: 'show/part-without-sound',
    severity: 'stops-the-show',
    title: 'A part with nothing to play it',
    why: 'When this part comes, nobody has said what to play.',
    remedy: 'Choose a sound for the part on Set, or mark the part as silent.',
    source: 'common practice',
    messages: { uncast: '{part} of {song} has no sound and is not marked as silent.' },
  },
  check: ({ show }) => {
    const { rig, songbook } = show;
    if (Object.keys(rig.sounds).length === 0) return [];
    const cast = new Set(
      Object.values(rig.casting)
        .filter((entry) => soundOfCast(rig, entry))
        .map((entry) => entry.part),
    );
    return partsInSetOrder(show).flatMap((id) => {
      const part = songbook.parts[id];
      if (part.silent || cast.has(id)) return [];
      return [
        {
          messageId: 'uncast' as const,
          at: { part: id },
          data: { part: part.name, song: songbook.songs[part.song].name },
          fix: setFix('Mark it as silent', ['parts', id, 'silent'], true, part.silent, 'songbook'),
        },
      ];
    });
  },
});
