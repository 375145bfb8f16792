import { controlRef } from '../../../model/documents.ts';
import { type Sound } from '../../../model/rig.ts';
import { type Context, defineRule } from '../../define-rule.ts';
import { heardSounds, slotsOf, soundsOf } from '../../queries.ts';

export const noMute = defineRule({
  meta: {
    id: 'routing/no-mute',
    severity: 'fix-before-load-in',
    title: 'Nothing silences every output',
    why: 'The instrument changes during the show, and no point of the rig is silent for it: the crowd hears the plug and the tuning.',
    remedy: 'Put a tuner that mutes where everything passes, or give a slot to a sound that is marked as silent.',
    source: 'common practice',
    messages: { open: 'The show uses {instruments} instruments, and no mute or silent slot closes every output.' },
  },
  check: (context) => {
    const instruments = instrumentsOf(context);
    if (instruments < 2 || hasSilentSlot(context) || muteSilencesAll(context)) return [];
    return [{ messageId: 'open' as const, at: {}, data: { instruments } }];
  },
});

function instrumentsOf({ show, wiring }: Context): number {
  const { songs, parts } = show.songbook;
  const named = new Set(
    [...Object.values(songs), ...Object.values(parts)].flatMap((item) =>
      item.instrument === undefined ? [] : [item.instrument.toLowerCase()],
    ),
  );
  return Math.max(named.size, wiring.devices.filter((wired) => wired.anatomy.source !== undefined).length);
}

const hasSilentSlot = (context: Context): boolean =>
  soundsOf(context).some((sound) => sound.silence && slotsOf(context, sound).length > 0);

/** Whether one mute, closed, silences every sound. */
function muteSilencesAll(context: Context): boolean {
  const sounding = heardSounds(context).map(({ sound }) => sound);
  const mutes = context.wiring.devices.flatMap(({ device, anatomy }) =>
    anatomy.controls.filter((control) => control.weight === 'mute').map((control) => controlRef(device.id, control.id)),
  );
  const muted = (sound: Sound, mute: string): Sound => ({ ...sound, wants: { ...sound.wants, [mute]: 1 } });
  return (
    sounding.length === 0 ||
    mutes.some((mute) => sounding.every((sound) => !context.tracer.trace(muted(sound, mute)).sounds))
  );
}
