import { assignPlaces } from '../optimise/places.ts';
import { randomFrom } from '../units/random.ts';
import {
  type ArrangeCost,
  type ArrangeProblem,
  type Arrangement,
  cableWeight,
  type CannotFit,
  cannotFit,
  costOfArrangement,
  footOf,
  isApart,
  isOnBoard,
  lengthOf,
  type Spot,
  totalOf,
  walkTo,
} from './problem.ts';

/** How far the search has come. */
export interface ArrangeProgress {
  /** The best so far; null while some piece has found no place. */
  readonly best: Arrangement | null;
  readonly cost: ArrangeCost | null;
  readonly tries: number;
}

export interface Arranged extends ArrangeProgress {
  /** No arrangement is better, or there is none: every one was looked into. Else the best that was met. */
  readonly isProved: boolean;
  /** Why nothing fits, where that is proved without looking. */
  readonly cannot: CannotFit | undefined;
}

/** Up to so many positions times pieces every arrangement is looked into. */
const mostLookedInto = 4;
const mostSpots = 700;
const mostNodes = 400_000;
/** So many pieces of one size are put into their best order at once. */
const mostPermuted = 5;
/** Where a piece finds no place beside another, spots so many mm apart are looked at. */
const coarse = 10;

/**
 * The best arrangement, found in slices: pieces are taken off and put back where they cost least, again and again, and
 * what is better stays. Small boards are looked into whole. `seed` decides which way it goes; who asks stops it.
 */
export function* arrange(problem: ArrangeProblem, seed: number, tries: number): Generator<ArrangeProgress, Arranged> {
  const cannot = cannotFit(problem);
  if (cannot) return { best: null, cost: null, tries: 0, isProved: true, cannot };
  const search = new Search(problem, seed);
  const told = (): ArrangeProgress => ({ best: search.best, cost: search.cost, tries: search.tries });
  if (search.isSmall()) {
    const isWhole = search.lookIntoAll();
    if (isWhole) return { ...told(), isProved: true, cannot: undefined };
  }
  for (search.begin(); search.tries < tries; search.step()) if (search.tries % 5 === 0) yield told();
  return { ...told(), isProved: false, cannot: undefined };
}

export function arrangeNow(problem: ArrangeProblem, seed = 1, tries = 300): Arranged {
  const steps = arrange(problem, seed, tries);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Each piece in turn, what a foot touches most and what is largest first, where it costs least. */
export function greedyArrangement(problem: ArrangeProblem): Arrangement | null {
  const search = new Search(problem, 1);
  return search.greedy();
}

/** Where one piece costs least beside those that stand somewhere; undefined where it finds no place. */
export function freeSpot(
  problem: ArrangeProblem,
  piece: number,
  spots: readonly (Spot | undefined)[],
): Spot | undefined {
  const pieces = problem.pieces.map(({ held: _, ...rest }, i) => {
    const spot = i === piece ? undefined : spots[i];
    return spot ? { ...rest, held: spot } : rest;
  });
  return new Search({ ...problem, pieces }, 1).cheapestOf(piece);
}

class Search {
  best: Arrangement | null = null;
  cost: ArrangeCost | null = null;
  tries = 0;
  private readonly foot: Spot;
  private readonly spots: (Spot | undefined)[];
  private readonly free: readonly number[];
  private readonly linksOf: readonly (readonly number[])[];
  private readonly random: () => number;
  private readonly allSpots: readonly Spot[];
  private current: Arrangement | null = null;

  constructor(
    private readonly problem: ArrangeProblem,
    seed: number,
  ) {
    const { board, pieces, links } = problem;
    this.foot = footOf(board);
    this.random = randomFrom(seed);
    this.spots = pieces.map(({ held }) => held);
    this.free = pieces.flatMap(({ held }, i) => (held ? [] : [i]));
    this.linksOf = pieces.map((_, i) => links.flatMap(({ a, b }, k) => (a === i || b === i ? [k] : [])));
    this.allSpots = gridOf(board.width, board.depth, board.step);
  }

  isSmall = (): boolean => this.free.length <= mostLookedInto && this.allSpots.length <= mostSpots;

  greedy(): Arrangement | null {
    this.clear();
    return this.putBack(this.order()) ? this.whole() : null;
  }

  begin(): void {
    for (const order of [this.order(), this.byArea()]) {
      this.clear();
      if (this.putBack(order)) this.take(this.descended());
    }
    this.tries += 1;
  }

  /** Takes some pieces off and puts them back; where nothing stands yet, begins anew in another order. */
  step(): void {
    this.tries += 1;
    if (!this.current) {
      this.clear();
      if (this.putBack(this.shuffled(this.free))) this.take(this.descended());
      return;
    }
    const count = 2 + Math.floor(this.random() * Math.min(4, Math.max(1, this.free.length - 1)));
    const off = this.shuffled(this.free).slice(0, count);
    this.current.forEach((spot, i) => {
      this.spots[i] = off.includes(i) ? undefined : spot;
    });
    if (this.putBack(off)) this.take(this.descended());
  }

  private take(next: Arrangement): void {
    const cost = costOfArrangement(this.problem, next);
    if (!this.cost || totalOf(cost) < totalOf(this.cost)) {
      this.best = next;
      this.cost = cost;
    }
    const now = this.current && totalOf(costOfArrangement(this.problem, this.current));
    // A little worse is gone on from now and then, so that it does not stay where it began.
    if (now === null || totalOf(cost) <= now * (this.random() < 0.1 ? 1.02 : 1)) this.current = next;
  }

  /** Every arrangement on the grid, the dearest branches left out; false where there are too many. */
  lookIntoAll(): boolean {
    this.clear();
    const { pieces } = this.problem;
    const order = this.order();
    const leastWalk = order.map((i) =>
      Math.min(...this.allSpots.filter((spot) => this.fits(i, spot)).map((spot) => walkTo(pieces[i], spot, this.foot))),
    );
    let nodes = 0;
    const dig = (depth: number, cost: number): boolean => {
      if (depth === order.length) {
        const whole = this.whole();
        const price = costOfArrangement(this.problem, whole);
        if (!this.cost || totalOf(price) < totalOf(this.cost)) {
          this.best = whole;
          this.cost = price;
        }
        return true;
      }
      const i = order[depth];
      const rest = leastWalk.slice(depth + 1).reduce((sum, walk) => sum + walk, 0);
      const options = this.allSpots
        .filter((spot) => this.fits(i, spot))
        .map((spot) => ({ spot, price: this.priceOf(i, spot) }))
        .sort((a, b) => a.price - b.price);
      for (const { spot, price } of options) {
        nodes += 1;
        if (nodes > mostNodes) return false;
        if (this.cost && cost + price + rest >= totalOf(this.cost) - 1e-9) break;
        this.spots[i] = spot;
        const isWhole = dig(depth + 1, cost + price);
        this.spots[i] = undefined;
        if (!isWhole) return false;
      }
      return true;
    };
    const isWhole = dig(0, this.heldCost());
    if (!isWhole) {
      this.best = null;
      this.cost = null;
    }
    return isWhole;
  }

  /** What the pieces that are held cost among themselves. */
  private heldCost(): number {
    const { pieces, links } = this.problem;
    let cost = 0;
    pieces.forEach((piece) => {
      if (piece.held) cost += walkTo(piece, piece.held, this.foot);
    });
    for (const link of links) {
      const [a, b] = [pieces[link.a].held, pieces[link.b].held];
      if (a && b) cost += cableWeight * lengthOf(link, a, b);
    }
    return cost;
  }

  private clear(): void {
    for (const i of this.free) this.spots[i] = undefined;
  }
  private whole = (): Arrangement => this.spots.map((spot) => spot!);

  private order(): readonly number[] {
    const { pieces } = this.problem;
    return [...this.free].sort(
      (a, b) => pieces[b].touches - pieces[a].touches || area(pieces[b]) - area(pieces[a]) || a - b,
    );
  }
  private byArea(): readonly number[] {
    const { pieces } = this.problem;
    return [...this.free].sort((a, b) => area(pieces[b]) - area(pieces[a]) || a - b);
  }

  private fits(i: number, spot: Spot): boolean {
    const { board, pieces } = this.problem;
    if (!isOnBoard(board, pieces[i], spot)) return false;
    for (let k = 0; k < pieces.length; k += 1) {
      const there = this.spots[k];
      if (k !== i && there && !isApart(pieces[i], spot, pieces[k], there)) return false;
    }
    return true;
  }

  /** What a piece adds at a spot: the foot's way, and cable to what stands. */
  private priceOf(i: number, spot: Spot): number {
    const { pieces, links } = this.problem;
    let price = walkTo(pieces[i], spot, this.foot);
    for (const k of this.linksOf[i]) {
      const link = links[k];
      const other = link.a === i ? this.spots[link.b] : this.spots[link.a];
      if (link.a === link.b || !other) continue;
      price += cableWeight * (link.a === i ? lengthOf(link, spot, other) : lengthOf(link, other, spot));
    }
    return price;
  }

  /** Puts pieces where they cost least beside what stands; false where one finds no place. */
  private putBack(order: readonly number[]): boolean {
    for (const i of order) {
      const spot = this.cheapestOf(i);
      if (!spot) return false;
      this.spots[i] = spot;
    }
    return true;
  }

  /** The cheapest spot of a piece beside what is held. */
  cheapestOf = (i: number): Spot | undefined =>
    this.cheapest(i, this.candidates(i)) ?? this.cheapest(i, this.coarseGrid());

  private cheapest(i: number, candidates: Iterable<Spot>): Spot | undefined {
    let best: Spot | undefined;
    let least = Infinity;
    for (const spot of candidates) {
      const price = this.priceOf(i, spot);
      if (price >= least || !this.fits(i, spot)) continue;
      least = price;
      best = spot;
    }
    return best;
  }

  /** Spots that touch an edge or a piece, or stand where the foot or a jack is. */
  private *candidates(i: number): Generator<Spot> {
    const { board, pieces, links } = this.problem;
    const piece = pieces[i];
    const xs = new Set<number>([piece.clear.left, board.width - piece.width - piece.clear.right]);
    const ys = new Set<number>([piece.clear.front, board.depth - piece.depth - piece.clear.back]);
    xs.add(this.foot.x - piece.width / 2);
    pieces.forEach((other, k) => {
      const at = this.spots[k];
      if (k === i || !at) return;
      xs.add(at.x + other.width + other.clear.right + piece.clear.left);
      xs.add(at.x - other.clear.left - piece.clear.right - piece.width);
      ys.add(at.y + other.depth + other.clear.back + piece.clear.front);
      ys.add(at.y - other.clear.front - piece.clear.back - piece.depth);
    });
    for (const k of this.linksOf[i]) {
      const link = links[k];
      const [mine, theirs, other] =
        link.a === i ? [link.from, link.to, this.spots[link.b]] : [link.to, link.from, this.spots[link.a]];
      if (!other) continue;
      xs.add(other.x + theirs.x - mine.x);
      ys.add(other.y + theirs.y - mine.y);
    }
    for (const x of xs) for (const y of ys) yield* snapped(x, y, board.step);
  }

  private *coarseGrid(): Generator<Spot> {
    const { board } = this.problem;
    const step = Math.max(board.step, Math.ceil(coarse / board.step) * board.step);
    for (let x = 0; x <= board.width; x += step) for (let y = 0; y <= board.depth; y += step) yield { x, y };
  }

  /** Piece by piece to its cheapest spot beside the others, and two for one another, until nothing is cheaper. */
  private descended(): Arrangement {
    for (let isBetter = true, sweep = 0; isBetter && sweep < 6; sweep += 1) {
      isBetter = false;
      for (const i of this.free) {
        const now = this.spots[i]!;
        const price = this.priceOf(i, now);
        const spot = this.cheapest(i, this.candidates(i));
        if (spot && this.priceOf(i, spot) < price - 1e-9) {
          this.spots[i] = spot;
          isBetter = true;
        }
      }
      for (const a of this.free) for (const b of this.free) if (a < b && this.swap(a, b)) isBetter = true;
    }
    this.permute();
    return this.whole();
  }

  /**
   * Some pieces of one size among their own spots, in the order that costs least: links among them count from the
   * middle of one to the middle of the other, and what comes of it is kept only where it is really cheaper.
   */
  private permute(): void {
    const first = this.free[Math.floor(this.random() * this.free.length)] as number | undefined;
    if (first === undefined) return;
    const { pieces, links } = this.problem;
    const word = (i: number): string =>
      JSON.stringify([pieces[i].width, pieces[i].depth, pieces[i].height, pieces[i].clear]);
    const alike = this.shuffled(this.free.filter((i) => word(i) === word(first))).slice(0, mostPermuted);
    if (alike.length < 3) return;
    const spots = alike.map((i) => this.spots[i]!);
    const before = costOfArrangement(this.problem, this.whole());
    for (const i of alike) this.spots[i] = undefined;
    const { permutations } = assignPlaces({
      flow: alike.map((a) =>
        alike.map((b) => cableWeight * links.filter((link) => link.a === a && link.b === b).length),
      ),
      distance: spots.map((a) => spots.map((b) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y))),
      alone: alike.map((i) => spots.map((spot) => this.priceOf(i, spot))),
    });
    alike.forEach((i, k) => {
      this.spots[i] = spots[permutations[0][k]];
    });
    if (totalOf(costOfArrangement(this.problem, this.whole())) < totalOf(before) - 1e-9) return;
    alike.forEach((i, k) => {
      this.spots[i] = spots[k];
    });
  }

  private swap(a: number, b: number): boolean {
    const [at, there] = [this.spots[a]!, this.spots[b]!];
    const before = this.pairPrice(a, b);
    this.spots[a] = there;
    this.spots[b] = at;
    if (this.pairPrice(a, b) < before - 1e-9 && this.fits(a, there) && this.fits(b, at)) return true;
    this.spots[a] = at;
    this.spots[b] = there;
    return false;
  }

  /** What two pieces cost with all that hangs on either, cables between them once. */
  private pairPrice(a: number, b: number): number {
    let price = this.priceOf(a, this.spots[a]!) + this.priceOf(b, this.spots[b]!);
    for (const k of this.linksOf[a]) {
      const link = this.problem.links[k];
      if (link.a !== link.b && (link.a === b || link.b === b))
        price -= cableWeight * lengthOf(link, this.spots[link.a]!, this.spots[link.b]!);
    }
    return price;
  }

  private shuffled<T>(list: readonly T[]): readonly T[] {
    const next = [...list];
    for (let i = next.length - 1; i > 0; i -= 1) {
      const k = Math.floor(this.random() * (i + 1));
      [next[i], next[k]] = [next[k], next[i]];
    }
    return next;
  }
}

const area = ({ width, depth }: { readonly width: number; readonly depth: number }): number => width * depth;

function gridOf(width: number, depth: number, step: number): readonly Spot[] {
  const spots: Spot[] = [];
  if ((width / step) * (depth / step) > 100_000) return spots;
  for (let x = 0; x <= width; x += step) for (let y = 0; y <= depth; y += step) spots.push({ x, y });
  return spots;
}

/** The spots of the grid around a point. */
function* snapped(x: number, y: number, step: number): Generator<Spot> {
  const [left, front] = [Math.floor(x / step) * step, Math.floor(y / step) * step];
  for (const nextX of left === x ? [left] : [left, left + step])
    for (const nextY of front === y ? [front] : [front, front + step]) yield { x: nextX, y: nextY };
}
