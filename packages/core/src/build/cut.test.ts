import { expect, test } from '@jest/globals';
import { Random } from '../testing/random.ts';
import { type CutPiece, cutList, type CutReel } from './cut.ts';

/** The least that must be begun, every way tried; Infinity where the reels are not enough. */
function leastBegun(pieces: readonly CutPiece[], reels: readonly CutReel[]): number {
  let least = Infinity;
  const left = reels.map(({ metres }) => Math.round(metres * 1000));
  const begun = reels.map(() => 0);
  const dig = (i: number): void => {
    if (i === pieces.length) {
      least = Math.min(
        least,
        reels.reduce((sum, { metres }, r) => sum + (begun[r] > 0 ? metres : 0), 0),
      );
      return;
    }
    const size = Math.round(pieces[i].metres * 1000);
    reels.forEach((_, r) => {
      if (size > left[r]) return;
      left[r] -= size;
      begun[r] += 1;
      dig(i + 1);
      left[r] += size;
      begun[r] -= 1;
    });
  };
  dig(0);
  return least;
}

test('the cut list is the least of every way', () => {
  let compared = 0;
  for (let seed = 1; seed <= 150; seed += 1) {
    const r = new Random(seed);
    const pieces = Array.from({ length: 2 + r.below(5) }, (_, i) => ({
      name: `c${i}`,
      metres: (1 + r.below(40)) / 10,
    }));
    const reels = Array.from({ length: 1 + r.below(4) }, (_, i) => ({ name: `r${i}`, metres: 2 + r.below(8) }));
    const least = leastBegun(pieces, reels);
    const list = cutList(pieces, reels);
    const all = [...list.reels.flatMap((reel) => reel.pieces), ...list.tooLong, ...list.notCut];
    expect(all.map(({ name }) => name).sort()).toEqual(pieces.map(({ name }) => name).sort());
    for (const { reel, pieces: here, left } of list.reels)
      expect(here.reduce((sum, { metres }) => sum + metres, 0) + left).toBeCloseTo(reel.metres, 6);
    if (least === Infinity) {
      expect(list.tooLong.length + list.notCut.length).toBeGreaterThan(0);
      continue;
    }
    compared += 1;
    expect({ seed, begun: list.begun, isProved: list.isProved }).toEqual({ seed, begun: least, isProved: true });
  }
  expect(compared).toBeGreaterThan(60);
});

test('a reel shorter than a cable: the cable is named, the others are cut', () => {
  const list = cutList(
    [
      { name: 'long', metres: 12 },
      { name: 'short', metres: 1 },
    ],
    [{ name: 'reel', metres: 10 }],
  );
  expect(list.tooLong.map(({ name }) => name)).toEqual(['long']);
  expect(list.reels[0].pieces.map(({ name }) => name)).toEqual(['short']);
  expect(list.reels[0].left).toBe(9);
});

test('nothing to cut, and nothing to cut it from', () => {
  expect(cutList([], [{ name: 'reel', metres: 10 }])).toMatchObject({ reels: [], begun: 0 });
  expect(cutList([{ name: 'a', metres: 1 }], [])).toMatchObject({ reels: [], tooLong: [{ name: 'a' }], begun: 0 });
});
