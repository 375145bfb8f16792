import { conventionOf } from '../../../model/rig.ts';
import { inOrderOf, nameOf } from '../../queries.ts';
import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const timeBeforeDrive = defineSoundRule({
  meta: {
    id: 'routing/time-before-drive',
    severity: 'worth-knowing',
    title: 'Delay or reverb ahead of the stage that distorts',
    why: 'The repeats are driven together with what is played over them: loud repeats, blurred chords. Some want the sound of driven repeats.',
    remedy: 'Move it into the amp’s loop or after the drive; or set the rig’s convention for time effects to in front.',
    source: 'common practice; conventions differ',
    messages: { ahead: 'In {sound}, {time} comes before {drive}, which distorts.' },
  },
  applies: ({ show }) => conventionOf(show.rig, 'time') !== 'in front',
  each: (soundCase) =>
    isHeard(soundCase)
      ? inOrderOf(soundCase.trace(), ['delay', 'reverb'], 'drive').map(({ first, then }) => ({
          messageId: 'ahead' as const,
          at: { sound: soundCase.sound.id, device: first.device },
          data: {
            sound: soundCase.sound.name,
            time: nameOf(soundCase, first.device),
            drive: nameOf(soundCase, then.device),
          },
        }))
      : [],
});
