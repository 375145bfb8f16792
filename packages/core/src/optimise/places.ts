/** Items that each get one place: what flows between items, how far places are apart, what an item costs at a place. */
export interface PlacesProblem {
  readonly flow: readonly (readonly number[])[];
  readonly distance: readonly (readonly number[])[];
  readonly alone?: readonly (readonly number[])[];
}

export interface PlacesAnswer {
  readonly cost: number;
  /** Every permutation that costs so little, sorted: p[i] is the place of item i. */
  readonly permutations: readonly (readonly number[])[];
  readonly worst: number;
}

/** Σ over all pairs, both ways, of flow times distance, and what each item costs where it is. */
export function placesCost({ flow, distance, alone }: PlacesProblem, p: readonly number[]): number {
  let cost = 0;
  for (let i = 0; i < p.length; i += 1) {
    if (alone) cost += alone[i][p[i]];
    for (let k = 0; k < p.length; k += 1) cost += flow[i][k] * distance[p[i]][p[k]];
  }
  return cost;
}

/** Looks into every permutation: exact, for eight items or so (it grows with their factorial). */
export function assignPlaces(problem: PlacesProblem): PlacesAnswer {
  const count = problem.flow.length;
  const p = Array.from({ length: count }, (_, i) => i);
  let least = Infinity;
  let worst = -Infinity;
  let permutations: number[][] = [];
  const dig = (depth: number): void => {
    if (depth === count) {
      const cost = placesCost(problem, p);
      worst = Math.max(worst, cost);
      if (cost < least - 1e-9) {
        least = cost;
        permutations = [];
      }
      if (cost <= least + 1e-9) permutations.push([...p]);
      return;
    }
    for (let i = depth; i < count; i += 1) {
      [p[depth], p[i]] = [p[i], p[depth]];
      dig(depth + 1);
      [p[depth], p[i]] = [p[i], p[depth]];
    }
  };
  dig(0);
  const inOrder = (a: readonly number[], b: readonly number[]): number => {
    for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return a[i] - b[i];
    return 0;
  };
  return { cost: least, permutations: permutations.sort(inOrder), worst };
}
