import { setEnd } from '../change/commands.ts';
import type { Board, BoardSpot, Body } from '../model/body.ts';
import type { Show } from '../model/documents.ts';
import type { EndFacts, Plug } from '../model/rig.ts';
import { editedShow } from './edited-show.ts';
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

/** With more known of one device's outline. */
export function withBody(show: Show, id: string, change: Partial<Body>): Show {
  const { type } = show.rig.devices[id];
  return withDevice(show, id, { type: { ...type, body: { ...type.body!, ...change } } });
}

/** With something on the end of the cable that goes into a jack of the drive. */
export function endsIn(show: Show, end: EndFacts, jack = 'in'): Show {
  const isDrive = (plug: Plug): boolean => plug.device === 'drive' && plug.jack === jack;
  const cable = Object.values(show.rig.cables).find(({ plugs }) => plugs.some(isDrive))!;
  return editedShow(show, (now) => setEnd(now, cable.id, cable.plugs.find(isDrive)!, end));
}

/** The ordinary rig with its supply on a board, every piece clear of the others. */
export const onBoard = (): Show =>
  standsAt(withBoard(poweredBuilder().show), {
    switcher: { x: 40, y: 20 },
    drive: { x: 420, y: 60 },
    delay: { x: 60, y: 200 },
    supply: { x: 400, y: 230 },
  });
