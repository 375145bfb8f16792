import type { Board, BoardSpot } from '../model/body.ts';
import type { Show } from '../model/documents.ts';
import { poweredBuilder } from './power-rigs.ts';
import { withDevice } from './rule-rigs.ts';

/** With a board for the place that pedals stand at. */
export const withBoard = (show: Show, board: Partial<Board> = {}): Show => ({
  ...show,
  rig: {
    ...show.rig,
    places: { ...show.rig.places, board: { ...show.rig.places.board, board: { width: 800, depth: 400, ...board } } },
  },
});

export const standsAt = (show: Show, spots: Readonly<Record<string, BoardSpot>>): Show =>
  Object.entries(spots).reduce((now, [id, at]) => withDevice(now, id, { at }), show);

/** The ordinary rig with its supply on a board, every piece clear of the others. */
export const onBoard = (): Show =>
  standsAt(withBoard(poweredBuilder().show), {
    switcher: { x: 40, y: 20 },
    drive: { x: 420, y: 60 },
    delay: { x: 60, y: 200 },
    supply: { x: 400, y: 230 },
  });
