import type { ArrangeBoard, ArrangePiece, ArrangeProblem } from '../arrange/problem.ts';
import type { Random } from './random.ts';

const none = { left: 0, right: 0, front: 0, back: 0 };

/** Small enough to try every position: a coarse grid, two to four pieces, some of them held. */
export function smallArrangement(r: Random): ArrangeProblem {
  const board: ArrangeBoard = {
    width: 200 + 40 * r.below(4),
    depth: 120 + 40 * r.below(3),
    step: 40,
    tiers: r.chance(0.3) ? [{ from: 80, to: 400, height: 40 }] : [],
  };
  const pieces = Array.from({ length: 2 + r.below(3) }, (_, i): ArrangePiece => ({
    name: `p${i + 1}`,
    width: 40 + 10 * r.below(7),
    depth: 40 + 10 * r.below(7),
    height: 30 + 10 * r.below(4),
    clear: r.chance(0.4) ? { left: 10, right: 10, front: 0, back: 10 } : none,
    touches: r.below(30),
    ...(i === 0 && r.chance(0.3) ? { held: { x: 40, y: 40 } } : {}),
  }));
  return { board, pieces, links: linksOf(r, pieces) };
}

/** As on a board: pedals of usual sizes with room for plugs at both sides, one after the other in a line. */
export function boardArrangement(r: Random, count: number): ArrangeProblem {
  const pieces = Array.from({ length: count }, (_, i): ArrangePiece => {
    const [width, depth] = r.pick([
      [70, 120],
      [60, 110],
      [95, 120],
      [120, 130],
    ]);
    return {
      name: `piece ${i + 1}`,
      width,
      depth,
      height: 55,
      clear: { left: 15, right: 15, front: 0, back: 10 },
      touches: r.chance(0.5) ? r.below(40) : 0,
    };
  });
  return {
    board: { width: 900, depth: 420, step: 5, tiers: [] },
    pieces,
    links: pieces.slice(1).map((piece, i) => ({
      a: i,
      b: i + 1,
      from: { x: 0, y: pieces[i].depth / 2 },
      to: { x: piece.width, y: piece.depth / 2 },
    })),
  };
}

const linksOf = (r: Random, pieces: readonly ArrangePiece[]): ArrangeProblem['links'] =>
  pieces
    .slice(1)
    .flatMap((piece, i) =>
      r.chance(0.7)
        ? [{ a: i, b: i + 1, from: { x: 0, y: pieces[i].depth / 2 }, to: { x: piece.width, y: piece.depth / 2 } }]
        : [],
    );
