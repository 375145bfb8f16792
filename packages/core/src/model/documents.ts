import {
  type Cast,
  type ControlRef,
  faultKinds,
  formatVersion,
  type Order,
  type Plug,
  type Rig,
  rigFormat,
  rigShape,
} from './rig.ts';
import { constant, object } from './shape.ts';
import { type Songbook, songbookFormat, songbookShape } from './songbook.ts';

/** Two documents, changed by the same steps: the rig, and the songbook that several rigs can cast. */

/** What every judgement is a function of. */
export interface Show {
  readonly rig: Rig;
  readonly songbook: Songbook;
}

/** What plays a part on this rig. */
export const castOf = (rig: Rig, part: string): Cast | undefined =>
  Object.values(rig.casting).find((cast) => cast.part === part);

export const controlRef = (device: string, control: string): ControlRef => `${device}/${control}`;
/** A jack of a rig, as `device/jack`. */
export const jackRef = ({ device, jack }: Plug): string => `${device}/${jack}`;

export function splitRef(ref: ControlRef): { readonly device: string; readonly control: string } {
  const at = ref.indexOf('/');
  return { device: ref.slice(0, at), control: ref.slice(at + 1) };
}

export const byOrder = (
  a: { readonly order: Order; readonly id: string },
  b: { readonly order: Order; readonly id: string },
): number => (a.order < b.order ? -1 : a.order > b.order ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

export function inOrder<T extends { readonly order: Order; readonly id: string }>(
  record: Readonly<Record<string, T>>,
): readonly T[] {
  const list = Object.values(record);
  // Mostly they are filed in order.
  for (let i = 1; i < list.length; i += 1) if (byOrder(list[i - 1], list[i]) > 0) return list.sort(byOrder);
  return list;
}

export const emptyRig = (id: string, name: string): Rig => ({
  format: rigFormat,
  version: formatVersion,
  id,
  name,
  settings: { roles: [], faults: faultKinds, messageLimit: 10_000, setList: null },
  places: {},
  devices: {},
  cables: {},
  sounds: {},
  slots: {},
  casting: {},
  outside: {},
});

export const emptySongbook = (id: string, name: string): Songbook => ({
  format: songbookFormat,
  version: formatVersion,
  id,
  name,
  songs: {},
  parts: {},
  setLists: {},
});

/** What an export file holds: both documents. */
export const showShape = object({
  format: constant('yunta-show'),
  version: constant(formatVersion),
  rig: rigShape,
  songbook: songbookShape,
});
