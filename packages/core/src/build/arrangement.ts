import { type Command, command, set } from '../change/command.ts';
import type { ArrangeProblem, Arrangement } from '../arrange/problem.ts';
import type { Show } from '../model/documents.ts';
import type { BoardSpot } from '../model/body.ts';
import { said } from '../units/said.ts';
import { boardAt, type BoardOf, type PieceOn } from './boards.ts';
import { roomAt } from './judge-board.ts';
import { touchesOf } from './touches.ts';

/** Positions are looked at so many mm apart where the surface has no holes. */
const usualStep = 5;

/** A board as a problem; pieces in document order. What is held stays; all else may go anywhere. */
export function arrangeProblemOf(show: Show, { board, pieces }: BoardOf): ArrangeProblem {
  const touches = touchesOf(show);
  return {
    board: {
      width: board.width,
      depth: board.depth,
      step: board.surface === 'holes' ? (board.pitch ?? usualStep) : usualStep,
      tiers: board.tiers ?? [],
    },
    pieces: pieces.map((piece) => ({
      name: piece.device.id,
      width: piece.body.width,
      depth: piece.body.depth,
      height: piece.body.height,
      clear: {
        left: roomAt(piece, 'left'),
        right: roomAt(piece, 'right'),
        front: roomAt(piece, 'front'),
        back: roomAt(piece, 'back'),
      },
      touches: touches.get(piece.device.id) ?? 0,
      ...(piece.isHeld && piece.spot ? { held: piece.spot } : {}),
    })),
    links: linksOf(pieces),
  };
}

/** Each cable between two pieces of the board, from its first end there to each other. */
function linksOf(pieces: readonly PieceOn[]): ArrangeProblem['links'] {
  const ends = new Map<string, { readonly at: number; readonly point: { readonly x: number; readonly y: number } }[]>();
  pieces.forEach(({ plugs }, at) => {
    for (const { cable, point } of plugs) ends.set(cable.id, [...(ends.get(cable.id) ?? []), { at, point }]);
  });
  return [...ends.values()].flatMap(([first, ...more]) =>
    more
      .filter(({ at }) => at !== first.at)
      .map(({ at, point }) => ({ a: first.at, b: at, from: first.point, to: point })),
  );
}

/** The arrangement as the rig: one edit. Null where every piece stands so already. */
export function placePieces({ place, pieces }: BoardOf, spots: Arrangement): Command | null {
  const steps = pieces.flatMap(({ device, spot }, i) => {
    const { x, y } = spots[i];
    if (spot?.x === x && spot.y === y) return [];
    const at: BoardSpot = { ...device.at, x, y };
    return [set(['devices', device.id, 'at'], at, device.at)];
  });
  return steps.length > 0 ? command('arrange', { place: place.name, count: steps.length }, steps) : null;
}

/** Puts one piece somewhere, turns it, holds it, lets it into an edge; undefined: off the board. */
export function setSpot(show: Show, id: string, at: BoardSpot | undefined): Command {
  const device = show.rig.devices[id];
  // As it stands, and held by nobody: nothing is said of it.
  const spot = at && said({ ...at, turn: at.turn || undefined, held: at.held || undefined });
  return command('set-spot', { device: device.name }, [set(['devices', id, 'at'], spot, device.at)]);
}

export const boardOf = (show: Show, place: string): BoardOf | undefined => {
  const found = show.rig.places[place];
  return found?.board && boardAt(show.rig, found, found.board);
};
