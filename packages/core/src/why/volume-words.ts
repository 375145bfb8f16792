import type { VolumePlace } from '../trace/volume-place.ts';

/** What a volume pedal does where it stands: *turned down, Drive distorts less; Delay rings on*. */
export function volumeWords(place: VolumePlace, nameOf: (device: string) => string): string {
  const names = (devices: readonly string[]): string => {
    const all = devices.map(nameOf);
    return all.length < 2 ? (all[0] ?? '') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`;
  };
  const verb = (devices: readonly string[], one: string, several: string) => (devices.length === 1 ? one : several);
  const first =
    place.kind === 'drive'
      ? `${names(place.drives)} ${verb(place.drives, 'distorts', 'distort')} less: it turns the drive`
      : place.kind === 'dose'
        ? 'only this branch falls: it is the dose of what is on it, and the rest goes on'
        : 'the level falls, and the gain before it stays';
  return [
    `Turned down, ${first}`,
    ...(place.ringsOn.length > 0 ? [`${names(place.ringsOn)} ${verb(place.ringsOn, 'rings', 'ring')} on`] : []),
    ...(place.fades.length > 0
      ? [
          `${names(place.fades)} ${verb(place.fades, 'fades', 'fade')} with it, and swell${verb(place.fades, 's', '')} as it opens`,
        ]
      : []),
  ].join('; ');
}
