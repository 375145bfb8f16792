import { anatomyOf } from '../model/archetypes/registry.ts';
import type { Device, DeviceType } from '../model/rig.ts';
import type { CatalogueEntry } from './entry.ts';
import { catalogue } from './types.ts';

/** A type of one's own, as the catalogue has its types. */
export function ownEntry(type: DeviceType): CatalogueEntry {
  return {
    type,
    words: `${type.name} own`.toLowerCase(),
    aliases: [],
    place: 'board',
    source: 'entered',
    listens: anatomyOf(type).jacks.some((jack) => jack.kind === 'midi-in'),
  };
}

/** One's own types before the generic ones: where both are called so, one's own is meant. */
export const libraryOf = (own: readonly DeviceType[]): readonly CatalogueEntry[] =>
  own.length === 0 ? catalogue : [...own.map(ownEntry), ...catalogue];

/** What a piece's type is in a library today: the same one, of a later revision perhaps. */
export const typeOfToday = (type: DeviceType, library: readonly CatalogueEntry[]): DeviceType | undefined =>
  library.find((entry) => entry.type.id === type.id)?.type;

/** What types of today say of power and outline that devices of a rig do not say yet. */
export const typicalFactsFor = (
  devices: readonly Device[],
  library: readonly CatalogueEntry[],
): readonly { readonly id: string; readonly power: DeviceType['power']; readonly body: DeviceType['body'] }[] =>
  devices.flatMap(({ id, type }) => {
    const today = typeOfToday(type, library);
    const power = type.power ? undefined : today?.power;
    const body = type.body ? undefined : today?.body;
    return power || body ? [{ id, power, body }] : [];
  });
