import { inOrder } from '../model/documents.ts';
import {
  type Board,
  type Body,
  type BodySide,
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
  readonly spot: { readonly x: number; readonly y: number } | undefined;
  readonly turn: number;
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
  readonly point: { readonly x: number; readonly y: number };
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
        const isOn = device.place === place.id || (board.also?.includes(device.place) ?? false);
        return isOn && body ? [pieceOn(device, body, plugs.get(device.id) ?? [])] : [];
      }),
    };
    known.set(place, found);
  }
  return found;
}

function pieceOn(
  device: Device,
  body: Body,
  plugged: readonly { readonly cable: Cable; readonly plug: Plug }[],
): PieceOn {
  const turn = device.at?.turn ?? 0;
  const jacks = jacksOf(device.type);
  return {
    device,
    body: turned(body, turn),
    spot: device.at && { x: device.at.x, y: device.at.y },
    turn,
    isHeld: device.at?.held === 1,
    plugs: plugged.flatMap(({ cable, plug }): PlugOn[] => {
      const jack = jacks.find(({ id }) => id === plug.jack);
      if (!jack) return [];
      return [
        {
          cable,
          plug,
          label: jack.label,
          carries: jackFacts(jack.kind).carries,
          side: turnedSide(sideOf(body, jack), turn),
          point: turnedPoint(body, jackPoint(body, jacks, jack), turn),
        },
      ];
    }),
  };
}
