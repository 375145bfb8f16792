/** A piece that may stay at home, with the songs that need it, by their place. */
export interface HomePiece {
  readonly id: string;
  readonly songs: readonly number[];
  /** What leaving it saves: decides between pieces that cost the same songs. */
  readonly saves: number;
}

/** The pieces that stay at home where so many do, and the songs that are lost so. */
export interface HomePoint {
  readonly left: readonly string[];
  readonly lost: readonly number[];
  /** No choice of as many pieces loses fewer songs. */
  readonly isProved: boolean;
}

/** Up to so many pieces (those that the same songs need count as one) every choice is looked into. */
const mostExact = 14;

/**
 * For every number of pieces left at home the choice that loses the fewest songs, and among those the one that saves
 * most. Exact for a board; above that piece by piece, and told as such.
 */
export function homeCurve(pieces: readonly HomePiece[], songs: number): readonly HomePoint[] {
  const groups = groupsOf(pieces);
  return groups.length <= mostExact ? exactCurve(groups, pieces.length, songs) : greedyCurve(pieces);
}

/** Pieces that the very same songs need: leaving one of them costs what leaving all does. */
interface Group {
  readonly songs: readonly number[];
  /** What saves most first. */
  readonly pieces: readonly HomePiece[];
}

function groupsOf(pieces: readonly HomePiece[]): readonly Group[] {
  const groups = new Map<string, HomePiece[]>();
  for (const piece of pieces) {
    const key = piece.songs.join(' ');
    groups.set(key, [...(groups.get(key) ?? []), piece]);
  }
  return [...groups.values()].map((own) => ({
    songs: own[0].songs,
    pieces: [...own].sort((a, b) => b.saves - a.saves),
  }));
}

/**
 * Each choice of groups, with the songs that it loses: as many pieces may stay at home as the groups have, so a number
 * of pieces is served best by the cheapest choice that has at least as many.
 */
function exactCurve(groups: readonly Group[], count: number, songs: number): readonly HomePoint[] {
  const words = Math.max(1, Math.ceil(songs / 32));
  const masks = groups.map((group) => {
    const mask = new Uint32Array(words);
    for (const song of group.songs) mask[song >> 5] |= 1 << (song & 31);
    return mask;
  });
  const best: { lost: number; choice: number; saves: number }[] = Array.from({ length: count + 1 }, () => ({
    lost: Infinity,
    choice: 0,
    saves: -1,
  }));
  const union = new Uint32Array(words);
  for (let choice = 0; choice < 1 << groups.length; choice += 1) {
    union.fill(0);
    const chosen: Group[] = [];
    for (let g = 0; g < groups.length; g += 1)
      if (choice & (1 << g)) {
        chosen.push(groups[g]);
        for (let w = 0; w < words; w += 1) union[w] |= masks[g][w];
      }
    const lost = union.reduce((sum, word) => sum + bits(word), 0);
    const size = chosen.reduce((sum, { pieces }) => sum + pieces.length, 0);
    // Of each chosen group at least one stays at home.
    for (let k = chosen.length; k <= size; k += 1) {
      if (lost > best[k].lost) continue;
      const saves = picked(chosen, k).reduce((sum, piece) => sum + piece.saves, 0);
      if (lost < best[k].lost || saves > best[k].saves) best[k] = { lost, choice, saves };
    }
  }
  return best.flatMap(({ lost, choice }, k) => {
    if (lost === Infinity) return [];
    const chosen = groups.filter((_, g) => choice & (1 << g));
    return [
      {
        left: picked(chosen, k).map(({ id }) => id),
        lost: [...new Set(chosen.flatMap((group) => group.songs))].sort((a, b) => a - b),
        isProved: true,
      },
    ];
  });
}

/** So many pieces of some groups: one of each, and then what saves most. */
function picked(groups: readonly Group[], count: number): readonly HomePiece[] {
  const first = groups.map(({ pieces }) => pieces[0]);
  const rest = groups.flatMap(({ pieces }) => pieces.slice(1)).sort((a, b) => b.saves - a.saves);
  return [...first, ...rest].slice(0, count);
}

function greedyCurve(pieces: readonly HomePiece[]): readonly HomePoint[] {
  const lost = new Set<number>();
  const left: HomePiece[] = [];
  const points: HomePoint[] = [{ left: [], lost: [], isProved: true }];
  while (left.length < pieces.length) {
    const more = (piece: HomePiece): number => piece.songs.filter((song) => !lost.has(song)).length;
    const next = pieces
      .filter((piece) => !left.includes(piece))
      .reduce((best, piece) =>
        more(piece) < more(best) || (more(piece) === more(best) && piece.saves > best.saves) ? piece : best,
      );
    left.push(next);
    for (const song of next.songs) lost.add(song);
    points.push({
      left: left.map(({ id }) => id),
      lost: [...lost].sort((a, b) => a - b),
      isProved: lost.size === 0,
    });
  }
  return points;
}

function bits(word: number): number {
  let [left, count] = [word >>> 0, 0];
  while (left !== 0) {
    left &= left - 1;
    count += 1;
  }
  return count;
}
