import { plugRoom, type BodySide } from '../model/body.ts';
import type { BoardOf, PieceOn, PlugOn } from './boards.ts';

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

/** The mm that are free before a jack: to the next piece, less what its own plugs take there, or to the edge. */
export function freeBefore(board: BoardOf, piece: Standing, { side, point }: PlugOn): number {
  if (side === 'top') return Infinity;
  const at = { x: piece.spot.x + point.x, y: piece.spot.y + point.y };
  const toEdge = { left: at.x, right: board.board.width - at.x, front: at.y, back: board.board.depth - at.y }[side];
  let free = toEdge;
  for (const other of standing(board)) {
    if (other === piece) continue;
    const { spot, body } = other;
    const isAcross =
      side === 'left' || side === 'right'
        ? at.y > spot.y && at.y < spot.y + body.depth
        : at.x > spot.x && at.x < spot.x + body.width;
    if (!isAcross) continue;
    const gap = {
      left: at.x - (spot.x + body.width),
      right: spot.x - at.x,
      front: at.y - (spot.y + body.depth),
      back: spot.y - at.y,
    }[side];
    if (gap >= 0) free = Math.min(free, gap - roomAt(other, opposite[side]));
  }
  return free;
}

const opposite: Readonly<Record<Exclude<BodySide, 'top'>, BodySide>> = {
  left: 'right',
  right: 'left',
  front: 'back',
  back: 'front',
};

/** The mm that angled plugs need at a side of a piece; 0 where none is plugged in there. */
export const roomAt = ({ plugs }: PieceOn, side: BodySide): number =>
  Math.max(0, ...plugs.filter((plug) => plug.side === side).map(({ carries }) => plugRoom[carries].angled));

/** The plug that clears: straight where there is room for one, else at an angle; none where even that has no room. */
export function plugThatClears(board: BoardOf, piece: Standing, plug: PlugOn): 'straight' | 'angled' | 'none' {
  const free = freeBefore(board, piece, plug);
  const room = plugRoom[plug.carries];
  return free >= room.straight ? 'straight' : free >= room.angled ? 'angled' : 'none';
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
