import { inOrder } from '../model/documents.ts';
import {
  across,
  type Board,
  type Body,
  type BodySide,
  type Edge,
  jackPoint,
  sideOf,
  turned,
  turnedPoint,
  turnedSide,
} from '../model/body.ts';
import { jackFacts } from '../model/jack-kinds.ts';
import { jacksOf } from '../model/jacks.ts';
import type { Cable, Device, Place, Plug, Rig } from '../model/rig.ts';

/** A board with the pieces of its place. */
export interface BoardOf {
  readonly place: Place;
  readonly board: Board;
  readonly pieces: readonly PieceOn[];
}

/** A piece whose outline is known, on its board or still beside it. */
export interface PieceOn {
  readonly device: Device;
  /** As it is turned. */
  readonly body: Body;
  readonly spot: Point | undefined;
  readonly turn: number;
  /** The edge of the board that it is let into. */
  readonly edge: Edge | undefined;
  /** Stays where it is: as told, or since it is let into the edge. */
  readonly isHeld: boolean;
  /** What is plugged in, with its point from the piece's left front corner and the side that it leaves by. */
  readonly plugs: readonly PlugOn[];
}

export interface PlugOn {
  readonly cable: Cable;
  readonly plug: Plug;
  readonly label: string;
  readonly carries: 'signal' | 'midi' | 'contact' | 'expression' | 'power' | 'mains';
  readonly side: BodySide;
  readonly point: Point;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The boards of a rig: places that have one, each with its pieces. */
export const boardsOf = (rig: Rig): readonly BoardOf[] =>
  inOrder(rig.places).flatMap((place) => (place.board ? [boardAt(rig, place, place.board)] : []));

const made = new WeakMap<Rig['devices'], WeakMap<Rig['cables'], Map<Place, BoardOf>>>();

export function boardAt(rig: Rig, place: Place, board: Board): BoardOf {
  const byCables = made.get(rig.devices) ?? new WeakMap<Rig['cables'], Map<Place, BoardOf>>();
  made.set(rig.devices, byCables);
  const known = byCables.get(rig.cables) ?? new Map<Place, BoardOf>();
  byCables.set(rig.cables, known);
  let found = known.get(place);
  if (!found) {
    const plugs = new Map<string, { readonly cable: Cable; readonly plug: Plug }[]>();
    for (const cable of inOrder(rig.cables))
      for (const plug of cable.plugs) plugs.set(plug.device, [...(plugs.get(plug.device) ?? []), { cable, plug }]);
    found = {
      place,
      board,
      pieces: inOrder(rig.devices).flatMap((device) => {
        const { body } = device.type;
        return isPiece(place, board, device) && body
          ? [pieceOn(board, device, body, plugs.get(device.id) ?? [], (id) => isPiece(place, board, rig.devices[id]))]
          : [];
      }),
    };
    known.set(place, found);
  }
  return found;
}

/** Whether a device is on a board: at its place, and something that stands. */
const isPiece = (place: Place, board: Board, { place: at, type }: Device): boolean =>
  type.body !== undefined && (at === place.id || (board.also?.includes(at) ?? false));

function pieceOn(
  board: Board,
  device: Device,
  own: Body,
  plugged: readonly { readonly cable: Cable; readonly plug: Plug }[],
  isHere: (device: string) => boolean,
): PieceOn {
  const { turn = 0, edge, held = false } = device.at ?? {};
  const jacks = jacksOf(device.type);
  const body = turned(own, turn);
  return {
    device,
    body,
    spot: device.at && (edge ? letInto(board, edge, body, device.at) : { x: device.at.x, y: device.at.y }),
    turn,
    edge,
    isHeld: held || edge !== undefined,
    plugs: plugged.flatMap(({ cable, plug }): PlugOn[] => {
      const jack = jacks.find(({ id }) => id === plug.jack);
      if (!jack) return [];
      const point = turnedPoint(own, jackPoint(own, jacks, jack), turn);
      // What comes from outside is plugged in outside, what comes from the board inside.
      const side = edge && (cable.plugs.every(({ device: id }) => isHere(id)) ? across[edge] : edge);
      return [
        {
          cable,
          plug,
          label: jack.label,
          carries: jackFacts(jack.kind).carries,
          side: side ?? turnedSide(sideOf(own, jack), turn),
          point: side ? onSide(body, side, point) : point,
        },
      ];
    }),
  };
}

/** Where a piece stands that is let into an edge: flush with it, along it as told. */
function letInto({ width, depth }: Board, edge: Edge, body: Body, { x, y }: Point): Point {
  switch (edge) {
    case 'back':
      return { x, y: depth - body.depth };
    case 'front':
      return { x, y: 0 };
    case 'left':
      return { x: 0, y };
    case 'right':
      return { x: width - body.width, y };
  }
}

function onSide({ width, depth }: Body, side: Edge, { x, y }: Point): Point {
  switch (side) {
    case 'back':
      return { x, y: depth };
    case 'front':
      return { x, y: 0 };
    case 'left':
      return { x: 0, y };
    case 'right':
      return { x: width, y };
  }
}
