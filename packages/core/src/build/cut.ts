import { assignBins } from '../optimise/assign.ts';

/** What is to be cut: a length with a name. */
export interface CutPiece {
  readonly name: string;
  readonly metres: number;
  /** Which kind of cable; any reel will do where it is not said. */
  readonly kind?: string;
}
export interface CutReel {
  readonly name: string;
  readonly metres: number;
  readonly kind?: string;
}

export interface CutList {
  /** Reel by reel what is cut from it, and what is left over. */
  readonly reels: readonly { readonly reel: CutReel; readonly pieces: readonly CutPiece[]; readonly left: number }[];
  /** What no reel is long enough for. */
  readonly tooLong: readonly CutPiece[];
  /** What did not find room on the reels that there are. */
  readonly notCut: readonly CutPiece[];
  /** Metres of the reels that are begun. */
  readonly begun: number;
  /** No way begins less. */
  readonly atLeast: number;
  readonly isProved: boolean;
}

/** In whole millimetres, so that sums are exact. */
const mm = (metres: number): number => Math.round(metres * 1000);
/** More pieces than this are cut longest first, and nothing is proved. */
const mostExact = 60;

/**
 * What to cut from which reel, so that the reels that are begun are the least in all: exact for a board, with a bound
 * where it is not. Where the reels are not enough, the longest are left.
 */
export function cutList(pieces: readonly CutPiece[], reels: readonly CutReel[]): CutList {
  const longest = (kind: string | undefined): number =>
    Math.max(0, ...reels.filter((reel) => reel.kind === kind).map(({ metres }) => mm(metres)));
  const tooLong = pieces.filter(({ metres, kind }) => mm(metres) > longest(kind));
  let cut = pieces.filter((piece) => !tooLong.includes(piece));
  const notCut: CutPiece[] = [];
  const bins = reels.map(({ metres }) => ({ holds: mm(metres), openCost: mm(metres) }));
  const solve = () =>
    assignBins(
      { sizes: cut.map(({ metres }) => mm(metres)), bins, mayGo: (item, bin) => cut[item].kind === reels[bin].kind },
      cut.length > mostExact ? 2_000 : 150_000,
    );
  let answer = solve();
  // The longest wait where not all find room: so most are cut.
  while (!answer.best && cut.length > 0) {
    const waits = cut.reduce((most, piece) => (piece.metres > most.metres ? piece : most));
    notCut.push(waits);
    cut = cut.filter((piece) => piece !== waits);
    answer = solve();
  }
  const at = answer.best ?? [];
  return {
    reels: reels.flatMap((reel, bin) => {
      const here = cut.filter((_, i) => at[i] === bin);
      if (here.length === 0) return [];
      const used = here.reduce((sum, { metres }) => sum + mm(metres), 0);
      return [{ reel, pieces: here, left: (mm(reel.metres) - used) / 1000 }];
    }),
    tooLong,
    notCut,
    begun: cut.length === 0 ? 0 : answer.cost / 1000,
    atLeast: cut.length === 0 ? 0 : answer.atLeast / 1000,
    isProved: answer.isProved,
  };
}
