import { schoolOf } from '../../../model/documents.ts';
import { passesAfter } from '../../../trace/ahead.ts';
import { heardSounds, nameOf } from '../../ask.ts';
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
      : heardSounds(context).flatMap(({ sound, trace }) =>
          trace.passes.flatMap((pass) => {
            if (!pass.effects.includes('delay') && !pass.effects.includes('reverb')) return [];
            const drive = passesAfter(trace, pass).find((after) => after.effects.includes('drive'));
            return drive ? [{ messageId: 'ahead' as const, at: { sound: sound.id, device: pass.device }, data: { sound: sound.name, time: nameOf(context, pass.device), drive: nameOf(context, drive.device) } }] : [];
          }),
        ),
});
