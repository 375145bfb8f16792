import { baseOf, differencesOf, oddOnesOut, type Wanted, wantedOf } from '../../../model/based-on.ts';
import { controlLabel, deviceName, valueLabel } from '../../../model/labels.ts';
import type { Sound } from '../../../model/rig.ts';
import type { Wiring } from '../../../model/wiring.ts';
import { revertTo } from '../../../change/based-on.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none, soundsOf } from '../../queries.ts';

export const twinDiffers = defineRule({
  meta: {
    id: 'recall/twin-differs',
    severity: 'fix-before-load-in',
    title: 'A twin that has drifted',
    why: 'Two sounds are meant to be the same but for what was said. An edit went into one of them only.',
    remedy: 'Put it back to what the other has, or say that it may be otherwise there too.',
    source: 'declared by the rig',
    messages: {
      differs: '{sound} is to be {base}, the same but for {only}; it has {what} too.',
    },
  },
  check: (context) => {
    const { show, wiring } = context;
    return soundsOf(context).flatMap((sound): readonly Reported<'differs'>[] => {
      const base = baseOf(show.rig, sound);
      const odd = base ? oddOnesOut(base, sound) : none;
      if (!base || odd.length === 0) return none;
      const allowed = differencesOf(base, sound).filter((wanted) => !odd.includes(wanted));
      return [
        {
          messageId: 'differs',
          at: { sound: sound.id },
          data: {
            sound: sound.name,
            base: base.name,
            only:
              allowed.length === 0 ? 'nothing' : listed(allowed.map(({ field, key }) => nameOf(wiring, field, key))),
            what: listed(odd.map((wanted) => toldIn(wiring, base, sound, wanted))),
          },
          fix: {
            label: `Put ${sound.name} back to ${base.name} there`,
            steps: revertTo(show, sound.id, odd).steps,
          },
        },
      ];
    });
  },
});

/** *delay preset 4 rather than 3*. */
function toldIn(wiring: Wiring, base: Sound, sound: Sound, wanted: Wanted): string {
  const told = (of: Sound): string => {
    const value = wantedOf(of, wanted);
    if (value === undefined) return 'don’t care';
    return wanted.field === 'pedals' ? String(value) : valueLabel(wiring, wanted.key, value);
  };
  return `${nameOf(wiring, wanted.field, wanted.key)} ${told(sound)} rather than ${told(base)}`;
}

const nameOf = (wiring: Wiring, field: Wanted['field'], key: string): string =>
  field === 'pedals' ? deviceName(wiring, key) : controlLabel(wiring, key);

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
