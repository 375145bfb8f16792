import { castsByPart, soundOfCast } from '../../../model/casting.ts';
import { partsInSetOrder } from '../../../model/set-order.ts';
import { type Context, defineRule, type Reported } from '../../define-rule.ts';
import { handControls } from '../../queries.ts';

export const handOnly = defineRule({
  meta: {
    id: 'recall/hand-only',
    severity: 'fix-before-load-in',
    title: 'A setting that only a hand can move differs between sounds',
    why: 'No message and no contact reaches this knob: between these sounds somebody has to bend down and turn it.',
    remedy: 'Settle on one position, use a second pedal, or one whose value is stored.',
    source: 'common practice',
    messages: {
      differs: '{device} {control} is wanted at {values} in different sounds.',
      'in-set': '{device} {control} is wanted at {values}; the hands must move it between {from} and {to}.',
    },
  },
  check: (context) =>
    handControls(context).flatMap(({ wired, control, ref }): Reported<'differs' | 'in-set'>[] => {
      const wanting = Object.values(context.show.rig.sounds).filter((sound) => ref in sound.wants);
      const values = [...new Set(wanting.map((sound) => sound.wants[ref]))].sort((a, b) => Number(a) - Number(b));
      if (values.length < 2) return [];
      const data = { device: wired.device.name, control: control.label.toLowerCase(), values: values.join(' and ') };
      const change = firstChange(context, ref);
      return [
        change
          ? { messageId: 'in-set', at: { device: wired.device.id }, data: { ...data, ...change } }
          : { messageId: 'differs', at: { device: wired.device.id }, data },
      ];
    }),
});

/** The first two parts in set order between which the value must move. */
function firstChange({ show }: Context, ref: string): { readonly from: string; readonly to: string } | undefined {
  const casts = castsByPart(show.rig);
  let before: { readonly name: string; readonly value: string | number } | undefined;
  for (const id of partsInSetOrder(show)) {
    const cast = casts.get(id);
    const value = cast && soundOfCast(show.rig, cast)?.wants[ref];
    if (value === undefined) continue;
    const part = show.songbook.parts[id];
    const name = `${show.songbook.songs[part.song].name}, ${part.name}`;
    if (before && before.value !== value) return { from: before.name, to: name };
    before = { name, value };
  }
  return undefined;
}
