import type { CatalogueEntry } from '../catalogue/types.ts';
import type { Cable, Plug } from '../model/rig.ts';
import type { DraftDevice } from './draft.ts';
import type { Direction } from './jack-words.ts';
import type { Statement } from './statements.ts';

/** What a text would add to a rig, statement by statement. */
export interface RigText {
  readonly rows: readonly TextRow[];
  /** The devices of the rig with those that the text adds. */
  readonly devices: readonly DraftDevice[];
}

export interface TextRow {
  readonly statement: Statement;
  readonly adds: readonly AddedDevice[];
  readonly cables: readonly AddedCable[];
  /** Cables that are there already. */
  readonly known: number;
  /** Why nothing of it is taken. */
  readonly wrong?: Misreading;
}

export interface AddedDevice {
  readonly id: string;
  readonly name: string;
  readonly entry: CatalogueEntry;
  /** The words are not the type's name: the type was taken to be meant. */
  readonly assumed: boolean;
  readonly others: readonly CatalogueEntry[];
  /** Where another type is chosen: `choices[key]` is its id. */
  readonly key: string;
}

export interface AddedCable {
  readonly plugs: readonly CableEndRead[];
  /** Which poles it joins, where it is not straight. */
  readonly poles?: Cable['poles'];
  readonly length: number | null;
}

export interface CableEndRead extends Plug {
  /** Nobody named the jack. */
  readonly assumed: boolean;
  /** Where another jack is chosen: `choices[key]` is its id; undefined where it was named. */
  readonly key: string;
}

export type Misreading =
  | { readonly code: 'no-type'; readonly typed: string }
  | { readonly code: 'ambiguous'; readonly typed: string; readonly names: readonly string[] }
  | { readonly code: 'no-subject'; readonly typed: string }
  | { readonly code: 'no-jack'; readonly typed: string; readonly device: string; readonly direction: Direction }
  | {
      readonly code: 'taken';
      readonly device: string;
      readonly jacks: readonly string[];
      readonly direction: Direction;
    }
  | { readonly code: 'no-fit'; readonly from: string; readonly to: string }
  | { readonly code: 'not-stereo'; readonly device: string; readonly direction: Direction }
  | { readonly code: 'itself'; readonly device: string }
  | { readonly code: 'empty-end'; readonly typed: string }
  | { readonly code: 'name'; readonly typed: string };

/** What was chosen by hand instead of what a row assumed, by the keys of the rows. */
export type Choices = Readonly<Record<string, string>>;
