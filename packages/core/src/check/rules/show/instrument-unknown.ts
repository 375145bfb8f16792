import { instrumentNamed, instrumentOfPart, instrumentsOf } from '../../../model/instruments.ts';
import { partsInSetOrder } from '../../../model/set-order.ts';
import { defineRule } from '../../define-rule.ts';

export const instrumentUnknown = defineRule({
  meta: {
    id: 'show/instrument-unknown',
    severity: 'stops-the-show',
    title: 'An instrument that is not in the rig',
    why: 'The rig has an input for each of its instruments. One that is none of them has nowhere to go, and nobody knows what must be switched for it.',
    remedy: 'Add the instrument on Gear and plug it in, or name the one that is meant on Set.',
    source: 'common practice',
    messages: {
      one: '{part} is played on “{name}”, and the rig has no instrument called so: it has {there}.',
      several:
        '{part} and {more} more are played on “{name}”, and the rig has no instrument called so: it has {there}.',
    },
  },
  check: ({ show, wiring }) => {
    const { parts, songs } = show.songbook;
    const there = instrumentsOf(wiring)
      .map(({ device }) => device.name)
      .join(', ');
    if (there === '') return [];
    const unknown = new Map<string, string[]>();
    for (const id of partsInSetOrder(show)) {
      const name = instrumentOfPart(show, parts[id]);
      if (name === undefined || instrumentNamed(wiring, name)) continue;
      unknown.set(name, [...(unknown.get(name) ?? []), id]);
    }
    return [...unknown].map(([name, ids]) => {
      const part = parts[ids[0]];
      const data = { part: `${songs[part.song].name}, ${part.name}`, name, there };
      return ids.length > 1
        ? { messageId: 'several' as const, at: { part: ids[0] }, data: { ...data, more: ids.length - 1 } }
        : { messageId: 'one' as const, at: { part: ids[0] }, data };
    });
  },
});
