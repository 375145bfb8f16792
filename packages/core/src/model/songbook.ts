import type { Bpm } from '../units/quantities.ts';
import { formatVersion, limits, nameShape, orderShape, partId, songId } from './rig.ts';
import {
  branded,
  constant,
  type DataOf,
  decimal,
  id,
  integer,
  list,
  nullable,
  object,
  oneOf,
  record,
  text,
  yesNo,
} from './shape.ts';

/** The songbook: songs, their parts and set lists, which several rigs can play from. */
export const songbookFormat = 'yunta-songbook';

const instrument = text(80, 1);
const tuning = text(80, 1);

const songShape = object(
  {
    id: songId,
    name: nameShape,
    order: orderShape,
    /** Null where nobody set one. */
    tempo: nullable(branded<Bpm>(decimal(20, 400))),
  },
  {
    /** Beats in a bar and the note that a beat is; 4/4 where nobody said. */
    meter: object({ beats: integer(1, 32), unit: oneOf(2, 4, 8, 16) }),
    instrument,
    tuning,
  },
);
export interface Song extends DataOf<typeof songShape> {}

const partShape = object(
  { id: partId, song: songId, name: nameShape, order: orderShape },
  {
    /** Bars that it lasts; unknown where absent. */
    bars: integer(1, 2_000),
    /** Where it differs from the song's. */
    instrument,
    tuning,
    /** Nothing of this rig is to be heard in it. */
    silent: yesNo,
  },
);
export interface Part extends DataOf<typeof partShape> {}

const setListShape = object({ id, name: nameShape, order: orderShape, songs: list(songId, 400) });
export interface SetList extends DataOf<typeof setListShape> {}

export const songbookShape = object({
  format: constant(songbookFormat),
  version: constant(formatVersion),
  id,
  name: nameShape,
  songs: record(songShape, 2_000),
  parts: record(partShape, limits.parts),
  setLists: record(setListShape, 400),
});
export interface Songbook extends DataOf<typeof songbookShape> {}
