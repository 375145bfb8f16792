import { conventionOf } from '../../../model/rig.ts';
import { partsInSetOrder } from '../../../model/set-order.ts';
import { defineRule } from '../../define-rule.ts';

export const feetAtOnce = defineRule({
  meta: {
    id: 'show/feet-at-once',
    severity: 'fix-before-load-in',
    title: 'More than one foot action at a bar line',
    why: 'Where one part turns into the next there is time for one press. Two of them make a wrong sound between, or a missed beat.',
    remedy: 'Put what the feet do into the slot, or move one of them to where there is time.',
    source: 'common practice',
    messages: { many: '{from} to {to}: {count} foot actions at once ({what}).' },
  },
  check: ({ show, wiring }) => {
    const { rig, songbook } = show;
    const severity =
      conventionOf(rig, 'foot') === 'pedal by pedal' ? ('worth-knowing' as const) : ('fix-before-load-in' as const);
    const casts = new Map(Object.values(rig.casting).map((cast) => [cast.part, cast]));
    const parts = partsInSetOrder(show).map((id) => songbook.parts[id]);
    return parts.flatMap((part, i) => {
      const before = parts[i - 1];
      const cast = casts.get(part.id);
      // Between songs there is time.
      if (!cast || !before || before.song !== part.song) return [];
      // What comes right after the press comes at the same bar line.
      const feet = [...cast.before, ...cast.after].flatMap((action) =>
        action.kind === 'foot' ? [wiring.device.get(action.device)?.device.name ?? action.device] : [],
      );
      const left = casts.get(before.id);
      const slot = rig.slots[cast.slot];
      const from = left && rig.slots[left.slot];
      const presses = cast.slot !== left?.slot || cast.again ? ['the slot'] : [];
      // A silent bank move can be made ahead; one that fires falls on the bar line.
      const moves =
        from &&
        slot &&
        slot.bank !== from.bank &&
        wiring.device.get(slot.controller)?.anatomy.controller?.bankMove === 'fires'
          ? ['the bank']
          : [];
      const what = [...feet, ...moves, ...presses];
      if (what.length < 2) return [];
      const song = songbook.songs[part.song].name;
      return [
        {
          messageId: 'many' as const,
          severity,
          at: { part: part.id, slot: cast.slot },
          data: { from: `${song}, ${before.name}`, to: part.name, count: what.length, what: what.join(', ') },
        },
      ];
    });
  },
});
