import { accept, type Problem, problem, refuse, type Result } from '../units/problem.ts';

/** Millimetres from the left edge and from the front edge, where the player stands. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

export interface ArrangeBoard {
  readonly width: number;
  readonly depth: number;
  /** Positions are multiples of so many mm: the pitch of a hole grid, or as fine as one likes. */
  readonly step: number;
  /** Bands along the depth with the height that is free above them; above what no band covers it is free. */
  readonly tiers: readonly { readonly from: number; readonly to: number; readonly height: number }[];
}

export interface ArrangePiece {
  readonly name: string;
  readonly width: number;
  readonly depth: number;
  readonly height: number;
  /** Room that its plugs need beside it. */
  readonly clear: { readonly left: number; readonly right: number; readonly front: number; readonly back: number };
  /** Times that a foot goes to it in a set. */
  readonly touches: number;
  /** Where it stays. */
  readonly held?: Spot;
}

/** A cable between two pieces, from jack to jack, each told from its piece's left front corner. */
export interface ArrangeLink {
  readonly a: number;
  readonly b: number;
  readonly from: Spot;
  readonly to: Spot;
}

export interface ArrangeProblem {
  readonly board: ArrangeBoard;
  readonly pieces: readonly ArrangePiece[];
  readonly links: readonly ArrangeLink[];
}

/** Where each piece stands: its left front corner. */
export type Arrangement = readonly Spot[];

export interface ArrangeCost {
  /** Touches times the way of the foot, in mm. */
  readonly walk: number;
  /** Cable from jack to jack, along the edges of the board, in mm. */
  readonly cable: number;
}

/** A millimetre of cable counts as so many of the foot's (common practice has no figure: a choice). */
export const cableWeight = 5;
export const totalOf = ({ walk, cable }: ArrangeCost): number => walk + cableWeight * cable;

export const mostBoard = 5_000;

/** Where the foot rests: before the middle of the board. */
export const footOf = ({ width }: ArrangeBoard): Spot => ({ x: width / 2, y: 0 });

/** Checks what was entered: sizes above nothing, boards that a stage can bear, pieces held inside, none on another. */
export function checkArrange({ board, pieces }: ArrangeProblem): Result<true> {
  const problems: Problem[] = [];
  const wrong = (at: string, value: number, expected: string): void =>
    void problems.push(problem(at, 'out-of-domain', { value: String(value), expected }));
  for (const [name, value] of [
    ['width', board.width],
    ['depth', board.depth],
  ] as const)
    if (!(value > 0 && value <= mostBoard)) wrong(`/board/${name}`, value, `1 to ${mostBoard} mm`);
  if (!(board.step > 0)) wrong('/board/step', board.step, 'more than 0 mm');
  pieces.forEach(({ width, depth, height }, i) => {
    if (!(width > 0 && depth > 0 && height >= 0)) wrong(`/pieces/${i}`, width, 'a size above 0 mm');
  });
  return problems.length > 0 ? refuse(...problems) : accept(true);
}

/** Why a board is too small for some pieces, whatever one does; none where nothing proves it. */
export type CannotFit =
  | { readonly by: 'width' | 'depth' | 'height'; readonly piece: number }
  /** All of them together. */
  | { readonly by: 'area' }
  /** Each is deeper than half the board, so that they stand side by side, or wider than half. */
  | { readonly by: 'rows' | 'columns'; readonly pieces: readonly number[] };

export function cannotFit({ board, pieces }: ArrangeProblem): CannotFit | undefined {
  // What is held somewhere counts where it stands on the board; else it takes nothing away from the others.
  const counts = pieces.map((piece) => !piece.held || isOnBoard(board, piece, piece.held));
  const all = pieces.flatMap((_, i) => (counts[i] ? [i] : []));
  for (const i of all) {
    const { width, depth, clear, held } = pieces[i];
    if (held) continue;
    if (width + clear.left + clear.right > board.width) return { by: 'width', piece: i };
    if (depth + clear.front + clear.back > board.depth) return { by: 'depth', piece: i };
    if (!fitsUnder(board, pieces[i])) return { by: 'height', piece: i };
  }
  const hasFree = pieces.some(({ held }) => !held);
  if (!hasFree || hasOverlap(pieces)) return undefined;
  if (all.reduce((sum, i) => sum + pieces[i].width * pieces[i].depth, 0) > board.width * board.depth)
    return { by: 'area' };
  const deep = all.filter((i) => pieces[i].depth * 2 > board.depth);
  if (deep.reduce((sum, i) => sum + pieces[i].width, 0) > board.width) return { by: 'rows', pieces: deep };
  const wide = all.filter((i) => pieces[i].width * 2 > board.width);
  if (wide.reduce((sum, i) => sum + pieces[i].depth, 0) > board.depth) return { by: 'columns', pieces: wide };
  return undefined;
}

/** Whether two pieces that are held stand on each other: then no sum of their sizes proves anything. */
const hasOverlap = (pieces: readonly ArrangePiece[]): boolean =>
  pieces.some((a, i) => pieces.some((b, k) => k > i && a.held && b.held && !isApart(a, a.held, b, b.held)));

/** Whether there is a place along the depth where a piece is not too tall. */
function fitsUnder(board: ArrangeBoard, piece: ArrangePiece): boolean {
  for (let y = 0; y + piece.depth <= board.depth; y += board.step) if (isUnder(board, piece, y)) return true;
  return false;
}

/** Whether a piece is not too tall for the tiers that it stands on. */
export const isUnder = ({ tiers }: ArrangeBoard, { depth, height }: ArrangePiece, y: number): boolean =>
  tiers.every(({ from, to, height: free }) => y >= to || y + depth <= from || height <= free);

/** Whether a piece stands at a spot on the board, with room for its plugs. */
export function isOnBoard(board: ArrangeBoard, piece: ArrangePiece, { x, y }: Spot): boolean {
  const { left, right, front, back } = piece.clear;
  return (
    x - left >= 0 &&
    y - front >= 0 &&
    x + piece.width + right <= board.width &&
    y + piece.depth + back <= board.depth &&
    isUnder(board, piece, y)
  );
}

/** Whether two pieces stand clear of each other, each with room for its plugs. */
export function isApart(a: ArrangePiece, at: Spot, b: ArrangePiece, there: Spot): boolean {
  return (
    at.x + a.width + a.clear.right <= there.x - b.clear.left ||
    there.x + b.width + b.clear.right <= at.x - a.clear.left ||
    at.y + a.depth + a.clear.back <= there.y - b.clear.front ||
    there.y + b.depth + b.clear.back <= at.y - a.clear.front
  );
}

/** What an arrangement costs, or null where pieces overlap, overhang or are not where they are held. */
export function judgeArrangement(problem: ArrangeProblem, spots: Arrangement): ArrangeCost | null {
  const { board, pieces } = problem;
  for (const [i, piece] of pieces.entries()) {
    if (piece.held) {
      if (piece.held.x !== spots[i].x || piece.held.y !== spots[i].y) return null;
      continue;
    }
    if (!isOnBoard(board, piece, spots[i])) return null;
    for (let k = 0; k < pieces.length; k += 1)
      if (k !== i && (k < i || pieces[k].held) && !isApart(piece, spots[i], pieces[k], spots[k])) return null;
  }
  return costOfArrangement(problem, spots);
}

export function costOfArrangement({ board, pieces, links }: ArrangeProblem, spots: Arrangement): ArrangeCost {
  const foot = footOf(board);
  return {
    walk: pieces.reduce((sum, piece, i) => sum + walkTo(piece, spots[i], foot), 0),
    cable: links.reduce((sum, link) => sum + lengthOf(link, spots[link.a], spots[link.b]), 0),
  };
}

/** From where the foot rests to the middle of the front of a piece. */
export const walkTo = ({ touches, width }: ArrangePiece, { x, y }: Spot, foot: Spot): number =>
  touches === 0 ? 0 : touches * Math.hypot(x + width / 2 - foot.x, y - foot.y);

export const lengthOf = ({ from, to }: ArrangeLink, a: Spot, b: Spot): number =>
  Math.abs(a.x + from.x - b.x - to.x) + Math.abs(a.y + from.y - b.y - to.y);
