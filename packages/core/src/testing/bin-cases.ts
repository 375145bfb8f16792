import { assignBins, type Binned, binningCost, type BinProblem, everyBinning } from '../optimise/assign.ts';
import { assignPlaces, placesCost } from '../optimise/places.ts';

/** Topic 12a as reference files write it. */
export interface BinInputs {
  readonly objective: 'min_bins' | 'min_cost' | 'min_max_util' | 'max_placed';
  readonly items: readonly { readonly id: string; readonly size: number }[];
  readonly bins: readonly {
    readonly id: string;
    readonly cap: number;
    readonly max_items?: number;
    readonly open_cost?: number;
  }[];
  readonly compatible: readonly (readonly number[])[];
  readonly assign_cost?: readonly (readonly number[])[];
}

const problemOf = ({ items, bins, compatible, assign_cost }: BinInputs): BinProblem => ({
  sizes: items.map(({ size }) => size),
  bins: bins.map(({ cap, max_items, open_cost }) => ({
    holds: cap,
    ...(max_items === undefined ? {} : { mostItems: max_items }),
    ...(open_cost === undefined ? {} : { openCost: open_cost }),
  })),
  mayGo: (item, bin) => compatible[item][bin] === 1,
  ...(assign_cost ? { itemCost: (item: number, bin: number) => assign_cost[item][bin] } : {}),
});

export function answerBins(inputs: BinInputs): unknown {
  const problem = problemOf(inputs);
  const whole = [...everyBinning(problem)];
  const counted = { all_items_placeable: whole.length > 0, feasible_complete_assignments: whole.length };
  const named = (at: Binned) =>
    Object.fromEntries(inputs.items.map(({ id }, i) => [id, at[i] === null ? null : inputs.bins[at[i]].id]));
  if (inputs.objective === 'min_bins' || inputs.objective === 'min_cost') {
    const { cost } = assignBins(problem);
    const best = whole.find((at) => binningCost(problem, at) === cost);
    return {
      ...counted,
      optimum: cost,
      optimal_assignments: whole.filter((at) => binningCost(problem, at) === cost).length,
      example: best ? named(best) : null,
    };
  }
  if (inputs.objective === 'min_max_util') {
    const fill = (at: Binned): number =>
      Math.max(
        ...problem.bins.map(
          ({ holds }, bin) => problem.sizes.reduce((sum, size, i) => sum + (at[i] === bin ? size : 0), 0) / holds,
        ),
      );
    const optimum = Math.min(...whole.map(fill));
    const [top, bottom] = fraction(optimum);
    const best = whole.filter((at) => Math.abs(fill(at) - optimum) < 1e-12);
    return {
      ...counted,
      optimum,
      optimum_exact: `${top}/${bottom}`,
      optimal_assignments: best.length,
      example: named(best[0]),
    };
  }
  const all = [...everyBinning(problem, true)];
  const placed = (at: Binned): number => at.filter((bin) => bin !== null).length;
  const size = (at: Binned): number => problem.sizes.reduce((sum, each, i) => sum + (at[i] === null ? 0 : each), 0);
  const most = Math.max(...all.map(placed));
  const largest = Math.max(...all.filter((at) => placed(at) === most).map(size));
  const best = all.filter((at) => placed(at) === most && size(at) === largest);
  return {
    ...counted,
    max_items_placed: most,
    max_total_size_at_that_count: largest,
    optimal_assignments: best.length,
    example: named(best[0]),
  };
}

/** The fraction of small whole numbers that a figure is. */
function fraction(value: number): readonly [number, number] {
  for (let bottom = 1; bottom < 100_000; bottom += 1) {
    const top = Math.round(value * bottom);
    if (Math.abs(top / bottom - value) < 1e-12) return [top, bottom];
  }
  return [value, 1];
}

export interface PlacesInputs {
  readonly n: number;
  readonly flow: readonly (readonly number[])[];
  readonly distance: readonly (readonly number[])[];
}

export function answerPlaces(inputs: PlacesInputs): unknown {
  const { cost, permutations, worst } = assignPlaces(inputs);
  return {
    optimum: cost,
    optimal_permutation_count: permutations.length,
    optimal_permutations: permutations,
    identity_cost: placesCost(
      inputs,
      Array.from({ length: inputs.n }, (_, i) => i),
    ),
    worst_cost: worst,
  };
}
