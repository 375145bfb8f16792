import { soundOfCast } from '../../../model/casting.ts';
import { defineRule } from '../../define-rule.ts';
import { soundsOf } from '../../queries.ts';

export const unusedSound = defineRule({
  meta: {
    id: 'show/unused-sound',
    severity: 'worth-knowing',
    title: 'A sound that no part plays',
    why: 'It takes a slot that the foot may find by mistake, and nobody rehearses it.',
    remedy: 'Cast it to a part, or take it out.',
    source: 'common practice',
    messages: { idle: '{sound} is in no part of any song.' },
  },
  check: (context) => {
    const { rig, songbook } = context.show;
    if (Object.keys(songbook.parts).length === 0) return [];
    const played = new Set(Object.values(rig.casting).map((cast) => soundOfCast(rig, cast)?.id));
    return soundsOf(context).flatMap((sound) =>
      sound.silence || played.has(sound.id)
        ? []
        : [{ messageId: 'idle' as const, at: { sound: sound.id }, data: { sound: sound.name } }],
    );
  },
});
