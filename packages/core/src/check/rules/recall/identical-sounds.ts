import type { Sound } from '../../../model/documents.ts';
import { soundsOf } from '../../ask.ts';
import { type Context, defineRule } from '../../define-rule.ts';

export const identicalSounds = defineRule({
  meta: {
    id: 'recall/identical-sounds',
    severity: 'worth-knowing',
    title: 'Two sounds identical in effect',
    why: 'The signal takes the same way through the same settings: two slots, one sound. It may be meant, for the foot’s sake.',
    remedy: 'Cast one sound to both parts and free a slot, or leave it.',
    source: 'traced: same sections live, same values wanted in them',
    messages: { same: '{second} is the same as {first} in effect.' },
  },
  check: (context) => {
    const first = new Map<string, Sound>();
    return soundsOf(context).flatMap((sound) => {
      const key = effectOf(context, sound);
      const same = first.get(key);
      if (!same) {
        first.set(key, sound);
        return [];
      }
      return [{ messageId: 'same' as const, at: { sound: sound.id }, data: { first: same.name, second: sound.name } }];
    });
  },
});

/** Everything that is heard of a sound: the sections that the signal passes, and what is wanted in each. */
function effectOf({ tracer }: Context, sound: Sound): string {
  return sound.silence ? 'silence' : tracer.heard(sound);
}
