import { soundOfCast } from '../../../model/casting.ts';
import { controlRef, inOrder } from '../../../model/documents.ts';
import { conventionOf, type Device } from '../../../model/rig.ts';
import { defineRule } from '../../define-rule.ts';

export const delayWithoutTempo = defineRule({
  meta: {
    id: 'show/delay-without-tempo',
    severity: 'fix-before-load-in',
    title: 'A synced delay in a song without a tempo',
    why: 'The preset is meant to keep the beat, and nobody has said how fast the song is.',
    remedy: 'Give the song a tempo on Set; or set the rig’s convention for tempo to tapped.',
    source: 'common practice; conventions differ',
    messages: { untimed: '{song} has no tempo, and {sound} plays preset {panel} of {device}, a synced delay.' },
  },
  check: ({ show, wiring }) => {
    const { rig, songbook } = show;
    if (conventionOf(rig, 'tempo') === 'tapped') return [];
    const casts = Object.values(rig.casting);
    const synced = wiring.devices.filter(({ device }) => hasSynced(device));
    if (synced.length === 0) return [];
    return inOrder(songbook.songs).flatMap((song) => {
      if (song.tempo !== null) return [];
      const played = new Set(
        casts
          .filter((cast) => songbook.parts[cast.part]?.song === song.id)
          .flatMap((cast) => soundOfCast(rig, cast)?.id ?? []),
      );
      return [...played].flatMap((id) =>
        synced.flatMap(({ device }) => {
          const preset = rig.sounds[id]?.wants[controlRef(device.id, 'preset')];
          if (preset === undefined || device.presets[String(preset)]?.sync === undefined) return [];
          return [
            {
              messageId: 'untimed' as const,
              at: { sound: id, device: device.id },
              data: {
                song: song.name,
                sound: rig.sounds[id].name,
                device: device.name,
                panel: Number(preset) + device.firstPresetNumber,
              },
            },
          ];
        }),
      );
    });
  },
});

function hasSynced({ presets }: Device): boolean {
  for (const number in presets) if (presets[number].sync !== undefined) return true;
  return false;
}
