import type { Sound } from '../../../model/rig.ts';
import { type Context, defineRule, type Reported } from '../../define-rule.ts';
import { none, soundsOf } from '../../queries.ts';

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
    const byDigest = new Map<number, Sound[]>();
    return soundsOf(context).flatMap((sound): readonly Reported<'same'>[] => {
      const digest = sound.silence ? -1 : context.tracer.digest(sound);
      const alike = byDigest.get(digest);
      const same = alike?.find((other) => effectOf(context, other) === effectOf(context, sound));
      if (!same) {
        if (alike) alike.push(sound);
        else byDigest.set(digest, [sound]);
        return none;
      }
      return [{ messageId: 'same' as const, at: { sound: sound.id }, data: { first: same.name, second: sound.name } }];
    });
  },
});

/** Everything that is heard of a sound: the sections that the signal passes, and what is wanted in each. */
function effectOf({ tracer }: Context, sound: Sound): string {
  return sound.silence ? 'silence' : tracer.heard(sound);
}
