import { across, type BodySide, type Edge, plugRoom, turnedSide } from '../model/body.ts';
import { endFacts } from '../model/cable-ends.ts';
import type { BoardOf, PieceOn, PlugOn, Point } from './boards.ts';

/** A piece that stands somewhere. */
export type Standing = PieceOn & { readonly spot: { readonly x: number; readonly y: number } };

export const standing = ({ pieces }: BoardOf): readonly Standing[] =>
  pieces.filter((piece): piece is Standing => piece.spot !== undefined);

/** Pieces that stand on each other. */
export function overlaps(board: BoardOf): readonly (readonly [Standing, Standing])[] {
  const all = standing(board);
  return all.flatMap((a, i) => all.slice(i + 1).flatMap((b) => (isOver(a, b) ? [[a, b] as const] : [])));
}

const isOver = (a: Standing, b: Standing): boolean =>
  a.spot.x < b.spot.x + b.body.width &&
  b.spot.x < a.spot.x + a.body.width &&
  a.spot.y < b.spot.y + b.body.depth &&
  b.spot.y < a.spot.y + a.body.depth;

/** How many mm a piece stands out over the edge; 0 where it does not. */
export function overhang({ board }: BoardOf, { spot, body }: Standing): number {
  return Math.max(0, -spot.x, -spot.y, spot.x + body.width - board.width, spot.y + body.depth - board.depth);
}

/** Tiers that a piece stands in though it is taller than what is free there. */
export const tooTall = ({ board }: BoardOf, { spot, body }: Standing): number | undefined =>
  (board.tiers ?? []).find(({ from, to, height }) => spot.y < to && spot.y + body.depth > from && body.height > height)
    ?.height;

/**
 * The mm that are free before a jack: to the next piece, less what its own plugs take there, or to the edge; no end to
 * them above it, and outside the edge that its piece is let into.
 */
export function freeBefore(board: BoardOf, piece: Standing, { side, point }: PlugOn): number {
  if (side === 'top' || side === piece.edge) return Infinity;
  const at = { x: piece.spot.x + point.x, y: piece.spot.y + point.y };
  return freeBeside(board, piece, side, { from: at, to: at });
}

/** Where a cover has to be opened: the mm that it needs, and those that are free there. */
export function freeForCover(
  board: BoardOf,
  piece: Standing,
): { readonly needed: number; readonly free: number } | undefined {
  const cover = coverOf(piece);
  if (!cover) return undefined;
  const { spot, body } = piece;
  const from = {
    x: cover.side === 'right' ? spot.x + body.width : spot.x,
    y: cover.side === 'back' ? spot.y + body.depth : spot.y,
  };
  const to = {
    x: cover.side === 'left' ? spot.x : spot.x + body.width,
    y: cover.side === 'front' ? spot.y : spot.y + body.depth,
  };
  return {
    needed: cover.mm,
    free: cover.side === piece.edge ? Infinity : freeBeside(board, piece, cover.side, { from, to }),
  };
}

/** What is free beside a piece, along a stretch of one of its sides. */
function freeBeside(
  board: BoardOf,
  piece: Standing,
  side: Edge,
  { from, to }: { readonly from: Point; readonly to: Point },
): number {
  let free = {
    left: from.x,
    right: board.board.width - from.x,
    front: from.y,
    back: board.board.depth - from.y,
  }[side];
  for (const other of standing(board)) {
    if (other === piece) continue;
    const { spot, body } = other;
    const isAcross =
      side === 'left' || side === 'right'
        ? to.y > spot.y && from.y < spot.y + body.depth
        : to.x > spot.x && from.x < spot.x + body.width;
    if (!isAcross) continue;
    const gap = {
      left: from.x - (spot.x + body.width),
      right: spot.x - from.x,
      front: from.y - (spot.y + body.depth),
      back: spot.y - from.y,
    }[side];
    if (gap >= 0) free = Math.min(free, gap - plugsAt(other, across[side]));
  }
  return free;
}

const coverOf = ({ device, turn }: PieceOn): { readonly side: Edge; readonly mm: number } | undefined => {
  const cover = device.type.body?.cover;
  return cover && { side: turnedSide(cover.side, turn) as Edge, mm: cover.mm };
};

/** The mm that plugs need at a side of a piece, at an angle unless they are straight; 0 where none is plugged in. */
function plugsAt({ plugs }: PieceOn, side: BodySide): number {
  const here = plugs.filter((plug) => plug.side === side);
  return Math.max(0, ...here.map((plug) => roomNeeded(plug)));
}

/** The mm that have to stay free at a side of a piece, for its plugs and for its cover. */
export function roomAt(piece: PieceOn, side: Edge): number {
  if (side === piece.edge) return 0;
  const cover = coverOf(piece);
  return Math.max(plugsAt(piece, side), cover?.side === side ? cover.mm : 0);
}

/** The mm that a plug needs at least: at an angle, unless somebody has said that it is straight. */
export const roomNeeded = ({ cable, plug, carries }: PlugOn): number =>
  plugRoom[carries][endFacts(cable, plug)?.bent === false ? 'straight' : 'angled'];

/**
 * The plug that clears: straight where there is room for one, else at an angle; none where that has no room either, or
 * where the plug that is there has none.
 */
export function plugThatClears(board: BoardOf, piece: Standing, plug: PlugOn): 'straight' | 'angled' | 'none' {
  const free = freeBefore(board, piece, plug);
  if (free < roomNeeded(plug)) return 'none';
  return free >= plugRoom[plug.carries].straight && endFacts(plug.cable, plug.plug)?.bent !== true
    ? 'straight'
    : 'angled';
}

/** How many pieces stand, how many not as they can, what all weigh with the board, and the share of its area. */
export interface BoardFigures {
  readonly stand: number;
  readonly wrong: number;
  readonly grams: number;
  readonly percent: number;
}

export function boardFigures(board: BoardOf): BoardFigures {
  const here = standing(board);
  const area = board.pieces.reduce((sum, { body }) => sum + body.width * body.depth, 0);
  return {
    stand: here.length,
    wrong: overlaps(board).length + here.filter((piece) => overhang(board, piece) > 0).length,
    grams: board.pieces.reduce((sum, { body }) => sum + (body.grams ?? 0), board.board.grams ?? 0),
    percent: Math.round((area / (board.board.width * board.board.depth)) * 100),
  };
}
