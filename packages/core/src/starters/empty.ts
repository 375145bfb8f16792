import type { Show } from '../model/documents.ts';
import { emptyRig, emptySongbook } from '../model/documents.ts';

const places = {
  board: { id: 'board', name: 'Board', order: 'b' },
  switcher: { id: 'switcher', name: 'Switcher', order: 'd' },
  combo: { id: 'combo', name: 'Combo', order: 'f' },
  desk: { id: 'desk', name: 'Desk', order: 'h' },
};

/** A place to begin: the four places and nothing in them. */
export function emptyShow(id: string, name: string): Show {
  return {
    rig: {
      ...emptyRig(id, name),
      places,
      settings: { ...emptyRig(id, name).settings, roles: ['clean', 'rhythm', 'chorus', 'solo', 'colour'] },
    },
    songbook: emptySongbook(`${id}-book`, name),
  };
}
