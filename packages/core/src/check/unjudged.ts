import { assertNever } from '../units/problem.ts';
import { castsByPart } from '../model/casting.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';

/**
 * What of a show nothing can be said of yet. Where any of it stands, an answer is not a yes: nobody computed it.
 * In the order of the work, so that the first is the next thing to do.
 */
export type Unjudged =
  | { readonly kind: 'no-devices' | 'no-sounds' | 'no-songs' | 'no-parts' }
  | { readonly kind: 'device-without-cables'; readonly device: string }
  /** And that no part of the set plays by feet and hands either. */
  | { readonly kind: 'sound-without-slot'; readonly sound: string }
  | { readonly kind: 'song-without-parts'; readonly song: string };

export function unjudged(show: Show, wiring: Wiring): readonly Unjudged[] {
  const { rig, songbook } = show;
  if (wiring.devices.length === 0) return [{ kind: 'no-devices' }];
  const parts = partsInSetOrder(show);
  const casts = castsByPart(rig);
  const judged = new Set<string | null | undefined>([
    ...Object.values(rig.slots).map((slot) => slot.sound),
    ...parts.map((part) => casts.get(part)?.sound),
  ]);
  const sounds = inOrder(rig.sounds);
  const withParts = new Set(Object.values(songbook.parts).map((part) => part.song));
  const songs = inOrder(songbook.songs);
  return [
    ...wiring.devices.filter(standsAlone).map(({ device }) => ({
      kind: 'device-without-cables' as const,
      device: device.id,
    })),
    ...(sounds.length === 0 ? [{ kind: 'no-sounds' as const }] : []),
    ...sounds
      .filter((sound) => !judged.has(sound.id))
      .map((sound) => ({ kind: 'sound-without-slot' as const, sound: sound.id })),
    ...(songs.length === 0
      ? [{ kind: 'no-songs' as const }]
      : parts.length === 0
        ? [{ kind: 'no-parts' as const }]
        : songs
            .filter((song) => !withParts.has(song.id))
            .map((song) => ({ kind: 'song-without-parts' as const, song: song.id }))),
  ];
}

/** What only the set list asks for: the rest can be judged without it. */
export const isAboutSongs = ({ kind }: Unjudged): boolean =>
  kind === 'no-songs' || kind === 'no-parts' || kind === 'song-without-parts';

/** No cable at any of its jacks; an instrument may wait on its stand. */
const standsAlone = ({ anatomy, plugged }: WiredDevice): boolean =>
  anatomy.jacks.length > 0 && plugged.size === 0 && anatomy.source === undefined;

/** What is missing, as the next thing to do. */
export function unjudgedWords({ rig, songbook }: Show, item: Unjudged): string {
  switch (item.kind) {
    case 'no-devices':
      return 'there is no gear yet; enter it on Gear';
    case 'device-without-cables':
      return `no cable goes to ${rig.devices[item.device].name}; plug it in on Routing, or take it out`;
    case 'no-sounds':
      return 'there are no sounds yet; say on Sounds what should be on in each';
    case 'sound-without-slot':
      return `${rig.sounds[item.sound].name} lies on no switch and no part plays it; give it a switch on Program, or a part on Set`;
    case 'no-songs':
      return 'there are no songs yet; enter them on Set';
    case 'no-parts':
      return 'no song of the set list has parts; say on Set which sound plays each';
    case 'song-without-parts':
      return `${songbook.songs[item.song].name} has no parts; say on Set which sound plays each`;
    default:
      return assertNever(item, 'unjudged');
  }
}
