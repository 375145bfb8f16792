import { schoolOf } from '../../../model/documents.ts';
import { inOrderOf, nameOf } from '../../ask.ts';
import { defineRule } from '../../define-rule.ts';

export const timeBeforeDrive = defineRule({
  meta: {
    id: 'routing/time-before-drive',
    severity: 'worth-knowing',
    title: 'Delay or reverb ahead of the stage that distorts',
    why: 'The repeats are driven together with what is played over them: loud repeats, blurred chords. Some want the sound of driven repeats.',
    remedy: 'Move it into the amp’s loop or after the drive; or set the rig’s school for time effects to in front.',
    source: 'common practice; schools differ',
    messages: { ahead: 'In {sound}, {time} comes before {drive}, which distorts.' },
  },
  check: (context) =>
    schoolOf(context.show.rig, 'time') === 'in front'
      ? []
      : inOrderOf(context, ['delay', 'reverb'], 'drive').map(({ sound, first, then }) => ({ messageId: 'ahead' as const, at: { sound: sound.id, device: first.device }, data: { sound: sound.name, time: nameOf(context, first.device), drive: nameOf(context, then.device) } })),
});
