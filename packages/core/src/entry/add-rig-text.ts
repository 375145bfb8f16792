import { combine } from '../change/combine.ts';
import { addDevice, type Command, connect } from '../change/commands.ts';
import type { CatalogueEntry } from '../catalogue/types.ts';
import type { Show } from '../model/documents.ts';
import type { Rig } from '../model/rig.ts';
import { freeChannel, freshCableId } from '../model/names.ts';
import type { RigText, TextRow } from './rig-text.ts';

/** All that was understood, as one edit; null where nothing was. */
export function addRigText(show: Show, { rows }: Pick<RigText, 'rows'>): Command | null {
  const adds = rows.flatMap((row) => row.adds);
  const cables = rows.flatMap((row) => row.cables);
  const makes = [
    ...adds.map(
      ({ id, name, entry }) =>
        (now: Show) =>
          addDevice(now, id, entry.type, name, placeOf(now.rig, entry), factsOf(now.rig, entry)),
    ),
    ...cables.map(({ plugs, length, poles }) => (now: Show) => {
      const ends = plugs.map(({ device, jack }) => ({ device, jack }));
      return connect(now, freshCableId(now.rig), ends, length, poles);
    }),
  ];
  return combine(show, { name: 'add-rig-text', facts: { devices: adds.length, cables: cables.length } }, makes);
}

const placeOf = (rig: Rig, entry: CatalogueEntry): string =>
  rig.places[entry.place] ? entry.place : (Object.keys(rig.places)[0] ?? 'board');

const factsOf = (rig: Rig, entry: CatalogueEntry) => (entry.listens ? { channel: freeChannel(rig) } : {});

/** What is left of a text when what was understood has been added: the statements that were not, in their order. */
export const leftOver = (rows: readonly TextRow[]): string =>
  rows
    .filter((row) => row.wrong !== undefined)
    .map((row) => row.statement.typed.replaceAll(' · ', '\t'))
    .join('\n');
