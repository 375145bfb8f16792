/** Things put into bins: sizes, what each bin holds, which goes where, and what it costs. */
export interface BinProblem {
  readonly sizes: readonly number[];
  readonly bins: readonly {
    readonly holds: number;
    readonly mostItems?: number;
    /** What a bin costs that holds anything; 1 where nothing is said. */
    readonly openCost?: number;
  }[];
  /** By item and bin; everything may go anywhere where absent. */
  readonly mayGo?: (item: number, bin: number) => boolean;
  /** What an item costs in a bin. */
  readonly itemCost?: (item: number, bin: number) => number;
}

/** By item: its bin, or null where it stays out. */
export type Binned = readonly (number | null)[];

export interface BinAnswer {
  readonly best: Binned | null;
  readonly cost: number;
  /** Nothing is cheaper; else the search was ended, and nothing is cheaper than `atLeast`. */
  readonly isProved: boolean;
  readonly atLeast: number;
}

const almost = 1e-9;

/**
 * Every item in a bin, as cheaply as can be: branch and bound, the largest items first, bins that are alike tried once.
 * `mostNodes`: then the best so far, with a bound.
 */
export function assignBins(problem: BinProblem, mostNodes = 200_000): BinAnswer {
  const { sizes, bins, mayGo = () => true, itemCost = () => 0 } = problem;
  const order = sizes.map((_, i) => i).sort((a, b) => sizes[b] - sizes[a] || a - b);
  const open = (bin: number): number => bins[bin].openCost ?? 1;
  const cheapest = order.map((item) =>
    Math.min(
      ...bins.map((_, bin) =>
        mayGo(item, bin) && sizes[item] <= bins[bin].holds + almost ? itemCost(item, bin) : Infinity,
      ),
    ),
  );
  const root = leastOpened(problem) + cheapest.reduce((sum, cost) => sum + cost, 0);
  const left = bins.map(({ holds }) => holds);
  const count = bins.map(() => 0);
  const at: (number | null)[] = sizes.map(() => null);
  let best: Binned | null = null;
  let least = Infinity;
  let nodes = 0;
  const isLike = (a: number, b: number): boolean =>
    bins[a].holds === bins[b].holds &&
    bins[a].mostItems === bins[b].mostItems &&
    open(a) === open(b) &&
    sizes.every((_, item) => mayGo(item, a) === mayGo(item, b) && itemCost(item, a) === itemCost(item, b));
  const twins = bins.map((_, b) => bins.flatMap((_other, a) => (a < b && isLike(a, b) ? [a] : [])));
  const dig = (depth: number, cost: number): void => {
    if (nodes > mostNodes) return;
    if (depth === order.length) {
      if (cost < least - almost) {
        least = cost;
        best = [...at];
      }
      return;
    }
    const item = order[depth];
    const rest = cheapest.slice(depth + 1).reduce((sum, each) => sum + each, 0);
    const choices = bins
      .map((_, bin) => ({ bin, price: itemCost(item, bin) + (count[bin] === 0 ? open(bin) : 0) }))
      .filter(
        ({ bin }) =>
          mayGo(item, bin) &&
          sizes[item] <= left[bin] + almost &&
          count[bin] < (bins[bin].mostItems ?? Infinity) &&
          !(count[bin] === 0 && twins[bin].some((twin) => count[twin] === 0)),
      )
      .sort((a, b) => a.price - b.price || left[a.bin] - left[b.bin]);
    for (const { bin, price } of choices) {
      if (cost + price + rest >= least - almost) continue;
      nodes += 1;
      left[bin] -= sizes[item];
      count[bin] += 1;
      at[item] = bin;
      dig(depth + 1, cost + price);
      left[bin] += sizes[item];
      count[bin] -= 1;
      at[item] = null;
      if (least <= root + almost) return;
    }
  };
  dig(0, 0);
  const isProved = nodes <= mostNodes || least <= root + almost;
  return { best, cost: least, isProved, atLeast: isProved ? least : root };
}

/** What bins must cost at least to hold all sizes: the cheapest by what they hold, a part of one counted. */
function leastOpened({ sizes, bins }: BinProblem): number {
  let left = sizes.reduce((sum, size) => sum + size, 0);
  let cost = 0;
  const byPrice = bins
    .map(({ holds, openCost = 1 }) => ({ holds, openCost }))
    .filter(({ holds }) => holds > 0)
    .sort((a, b) => a.openCost / a.holds - b.openCost / b.holds);
  for (const { holds, openCost } of byPrice) {
    if (left <= almost) break;
    cost += openCost * Math.min(1, left / holds);
    left -= holds;
  }
  return cost;
}

/** Every way to put items into bins, null for those left out where `mayStay`; as many as bins to the power of items. */
export function* everyBinning(problem: BinProblem, mayStay = false): Generator<Binned> {
  const { sizes, bins, mayGo = () => true } = problem;
  const left = bins.map(({ holds }) => holds);
  const count = bins.map(() => 0);
  const at: (number | null)[] = sizes.map(() => null);
  function* dig(item: number): Generator<Binned> {
    if (item === sizes.length) {
      yield [...at];
      return;
    }
    for (let bin = 0; bin < bins.length; bin += 1) {
      if (!mayGo(item, bin) || sizes[item] > left[bin] || count[bin] >= (bins[bin].mostItems ?? Infinity)) continue;
      left[bin] -= sizes[item];
      count[bin] += 1;
      at[item] = bin;
      yield* dig(item + 1);
      left[bin] += sizes[item];
      count[bin] -= 1;
      at[item] = null;
    }
    if (mayStay) yield* dig(item + 1);
  }
  yield* dig(0);
}

/** What a binning costs: bins opened, and items where they are. */
export const binningCost = ({ bins, itemCost = () => 0 }: BinProblem, at: Binned): number =>
  [...new Set(at)].reduce<number>((sum, bin) => sum + (bin === null ? 0 : (bins[bin].openCost ?? 1)), 0) +
  at.reduce<number>((sum, bin, item) => sum + (bin === null ? 0 : itemCost(item, bin)), 0);
