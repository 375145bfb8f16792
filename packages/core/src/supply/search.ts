import { type Alike, alikeOf } from './alike.ts';
import { lacksHeadroom, judgeSupply, type Seat, type SupplyCost, type SupplyPlan, supplyVector } from './judge.ts';
import { type FlowGroup, mostPlaced, type Outlets } from './flow.ts';
import { type CompiledSupply, nearlyNothing } from './problem.ts';
import { nobody, SupplyState } from './state.ts';

/** A plan with its price. */
export interface CostedSupply {
  readonly plan: SupplyPlan;
  readonly cost: SupplyCost;
}

interface Frame {
  readonly seats: readonly Seat[];
  next: number;
  undo?: () => void;
}

/** Limits taken together, and what each load takes of them wherever it is fed from; 0 where it need not take any. */
interface Budget {
  readonly limits: readonly number[];
  readonly most: number;
  readonly weights: Float64Array;
}

/** Above so many loads or outputs a bound is not worked out at every step. */
const mostBounded = 60;
/** Ways to set the outputs of one plan that are tried. */
const mostSettings = 4_096;

/**
 * Branch and bound over the loads, the hardest to place first. What a plan in the making costs at least is counted
 * number by number: what it costs already, and what the loads still to come must cost given that all the numbers before
 * are no worse than that.
 */
export class SupplySearch {
  best: CostedSupply | null;
  nodes = 0;
  private readonly state: SupplyState;
  private readonly alike: Alike;
  private readonly budgets: readonly Budget[];
  private readonly fewestLeads: readonly number[];
  private readonly mustReverse: readonly boolean[];
  private readonly mustAdapt: readonly boolean[];
  private readonly reach: number;
  private stack: Frame[] = [];
  private level = 0;
  private limit: readonly number[] | null = null;
  private readonly now: number[] = [0, 0, 0, 0, 0, 0, 0];
  private readonly tried: number[] = [0, 0, 0, 0, 0, 0, 0];

  constructor(
    readonly problem: CompiledSupply,
    best: CostedSupply | null = null,
  ) {
    this.best = best;
    const state = (this.state = new SupplyState(problem));
    const { loads, feeds, limits } = problem;
    this.alike = alikeOf(problem, (l) => [
      problem.held[l] === undefined ? 1 : 0,
      feeds.filter((_, f) => state.choicesWith(l, f) !== 0).length + (loads[l].mayUseBattery ? 100 : 0),
      -loads[l].ma,
    ]);
    // Each limit, and those that count the same thing taken together.
    const all = limits.map((_, i) => i);
    const sums = [true, false]
      .map((isPower) => all.filter((i) => limits[i].isPower === isPower))
      .filter((some) => some.length > 1);
    this.budgets = [...all.map((i) => [i]), ...sums].map((some) => ({
      limits: some,
      most: some.reduce((sum, i) => sum + limits[i].most, 0),
      weights: Float64Array.from(loads, (load, l) => {
        let least = Infinity;
        feeds.forEach((feed, f) => {
          const mask = state.choicesWith(l, f);
          if (mask === 0) return;
          let taken = 0;
          for (const i of some) {
            const isHalfIn =
              feed.how === 'parallel' && !feed.outputs.every((output) => limits[i].outputs.includes(output));
            taken += isHalfIn ? 0 : state.leastTaken(f, i, load.ma, mask);
          }
          least = Math.min(least, taken);
        });
        return least === Infinity ? 0 : least;
      }),
    }));
    this.fewestLeads = loads.map((_, l) => {
      const leads = feeds.flatMap((_feed, f) =>
        state.choicesWith(l, f) === 0 ? [] : [state.reverses[l][f] + state.adapts[l][f]],
      );
      return leads.length === 0 ? 0 : Math.min(...leads);
    });
    const always = (needs: readonly Uint8Array[]): readonly boolean[] =>
      loads.map((_, l) => feeds.every((_feed, f) => state.choicesWith(l, f) === 0 || needs[l][f] === 1));
    this.mustReverse = always(state.reverses);
    this.mustAdapt = always(state.adapts);
    this.reach = problem.chains.reduce((sum, plugs) => sum + plugs - 1, 0);
  }

  /**
   * Begins to look for plans better than the best in its first numbers, up to that of `level`; of plans as good
   * in those, a better one is kept where it is met. `limit`: a vector to beat although no plan has it.
   */
  begin(level: number, limit: readonly number[] | null = null): void {
    while (this.stack.length > 0) this.stack.pop()!.undo?.();
    this.level = level;
    this.limit = limit;
    this.nodes = 0;
    if (this.problem.loads.length === 0) this.keep();
    else if (this.state.judge(this.now) && !this.isBeaten(this.bound(0))) this.stack.push(this.frame(0));
  }

  /** Looks into so many plans; true where there are no more. */
  run(nodes: number): boolean {
    for (let left = nodes; this.stack.length > 0; left -= 1) {
      if (left <= 0) return false;
      const depth = this.stack.length - 1;
      const frame = this.stack[depth];
      frame.undo?.();
      frame.undo = undefined;
      if (frame.next >= frame.seats.length) {
        this.stack.pop();
        continue;
      }
      this.nodes += 1;
      frame.undo = this.state.seat(this.alike.order[depth], frame.seats[frame.next]);
      frame.next += 1;
      if (!this.state.judge(this.now)) continue;
      if (depth + 1 === this.problem.loads.length) this.keep();
      else if (!this.isBeaten(this.bound(depth + 1))) this.stack.push(this.frame(depth + 1));
    }
    return true;
  }

  /** What any plan costs at least, as far as the first numbers go that are asked for. */
  rootBound(level: number): readonly number[] {
    this.level = level;
    return this.state.judge(this.now) ? this.bound(0) : [];
  }

  /** Whether what costs so much at least cannot be better in the numbers that count. */
  private isBeaten(bound: readonly number[]): boolean {
    const target = this.target();
    if (!target) return false;
    for (let i = 0; i <= this.level; i += 1) if (bound[i] !== target[i]) return bound[i] > target[i];
    return true;
  }

  private target(): readonly number[] | null {
    const best = this.best && supplyVector(this.best.cost);
    if (!this.limit) return best;
    return best && compareVectors(best, this.limit) < 0 ? best : this.limit;
  }

  /** All are seated: the plan, set in the best of the ways that are left, is kept where it is better. */
  private keep(): void {
    const { feeds } = this.problem;
    const ways = feeds.map((_, f) => (this.state.isOpen(f) ? this.state.bestChoices(f) : [0]));
    const choices = ways.map((way) => way[0] ?? 0);
    for (let tried = 0; tried < mostSettings; tried += 1) {
      const plan = this.state.plan([...choices]);
      const cost = judgeSupply(this.problem, plan);
      if (cost && (!this.best || compareVectors(supplyVector(cost), supplyVector(this.best.cost)) < 0))
        this.best = { plan, cost };
      const f = ways.findIndex((way, i) => way.indexOf(choices[i]) < way.length - 1 && way.length > 1);
      if (f < 0) return;
      choices[f] = ways[f][ways[f].indexOf(choices[f]) + 1];
      for (let before = 0; before < f; before += 1) choices[before] = ways[before][0] ?? 0;
    }
  }

  /** Where the load at a depth may go, what costs least so far first. */
  private frame(depth: number): Frame {
    const { state, problem, alike } = this;
    const load = alike.order[depth];
    const held = problem.held[load];
    const before = alike.isLikeBefore[depth] ? rankOf(state.seats[alike.order[depth - 1]]!, problem) : -1;
    const isFree = (output: number): boolean => state.owner[output] === nobody;
    const options: { seat: Seat; cost: readonly number[]; room: number }[] = [];
    const offer = (seat: Seat): void => {
      if ((held !== undefined && held !== seat) || rankOf(seat, problem) < before) return;
      const undo = state.seat(load, seat);
      if (state.judge(this.tried)) {
        const room = typeof seat === 'number' ? state.most(seat) - state.drawn[seat] : 0;
        options.push({ seat, cost: [...this.tried], room });
      }
      undo();
    };
    for (let f = 0; f < problem.feeds.length; f += 1) {
      if (state.choicesWith(load, f) === 0 || !state.hasOutputs(f)) continue;
      if (!state.isOpen(f) && held === undefined && !alike.isFirst(f, isFree)) continue;
      offer(f);
    }
    if (problem.loads[load].mayUseBattery) offer('battery');
    offer('unpowered');
    options.sort((a, b) => compareVectors(a.cost, b.cost) || a.room - b.room);
    return { seats: options.map(({ seat }) => seat), next: 0 };
  }

  /** What a plan costs at least of which so many loads are seated, as `now` says: see the class. */
  private bound(depth: number): readonly number[] {
    const { state, problem, alike, now, level } = this;
    const { loads, limits } = problem;
    const bound = [...now];
    if (loads.length > mostBounded && depth > 0) return bound;
    const rest = alike.order.slice(depth);
    const isHeld = (l: number): boolean => problem.held[l] === 'unpowered';
    const battery = rest.filter((l) => loads[l].mayUseBattery && problem.held[l] !== 'unpowered').length;
    const wired = rest.filter((l) => !loads[l].mayUseBattery && !isHeld(l));
    const outlets = this.outlets();
    const edges = new Map(rest.map((l) => [l, this.edges(l, 100, outlets)]));
    const onFeeds = (some: readonly number[], of: ReadonlyMap<number, readonly number[]>): number =>
      mostPlaced(
        some.map((l) => of.get(l)!),
        outlets,
        this.groups(some),
      );
    const roomIn = (budget: Budget): number => budget.most - budget.limits.reduce((sum, i) => sum + state.taken[i], 0);

    let unpowered = rest.length - battery - onFeeds(wired, edges);
    for (const budget of this.budgets) {
      const here = wired.map((l) => budget.weights[l]).filter((weight) => weight > 0);
      unpowered = Math.max(unpowered, here.length - fitting(here, roomIn(budget)));
    }
    bound[0] = now[0] + unpowered;
    if (level === 0) return bound;

    const easy = new Map(wired.map((l) => [l, this.edges(l, problem.headroom, outlets)]));
    let lacking = now[1] + Math.max(0, rest.length - unpowered - battery - onFeeds(wired, easy));
    limits.forEach(({ most }, i) => {
      const here = wired
        .map((l) => this.budgets[i].weights[l])
        .filter((weight) => weight > 0)
        .sort((a, b) => a - b)
        .slice(0, -unpowered || undefined);
      const taken = here.reduce((sum, weight) => sum + weight, state.taken[i]);
      if (here.length === 0 || !lacksHeadroom(taken, most, problem.headroom)) return;
      let [under, others] = [0, 0];
      for (let f = 0; f < problem.feeds.length; f += 1) {
        if (!state.isOpen(f)) continue;
        if (state.limitsOver(f).includes(i)) under += state.count[f];
        else if (state.lacks(f)) others += state.count[f];
      }
      lacking = Math.max(lacking, others + under + here.length);
    });
    bound[1] = lacking;
    if (level <= 2) return bound;

    const all = rest.filter((l) => !isHeld(l));
    const held = rest.length - all.length;
    // No digital load more shares its rail, else that number would be worse.
    const quiet = this.undisturbed(outlets);
    const placed = (hasPool: boolean): number =>
      mostPlaced(
        all.map((l) => edges.get(l)!.filter((o) => !loads[l].isDigital || this.isRailEmpty(o))),
        hasPool ? quiet : { ...quiet, extra: quiet.extra.map(() => 0), pool: 0 },
        this.groups(all),
        all.map((l) => loads[l].isDigital),
      );
    let batteries = all.length - Math.max(0, unpowered - held) - placed(true);
    for (const budget of this.budgets) {
      const here = all.map((l) => budget.weights[l]).filter((weight) => weight > 0);
      batteries = Math.max(batteries, here.length - fitting(here, roomIn(budget)) - unpowered);
    }
    batteries = Math.max(0, batteries);
    bound[3] = now[3] + batteries;
    if (level === 3) return bound;

    const mustBeFed = Math.max(0, rest.length - unpowered - batteries);
    const special = all
      .map((l) => this.fewestLeads[l])
      .sort((a, b) => a - b)
      .slice(0, mustBeFed)
      .reduce((sum, leads) => sum + leads, 0);
    let [onFeedsNow, chained, reached] = [0, 0, 0];
    for (let f = 0; f < problem.feeds.length; f += 1) {
      if (!state.isOpen(f)) continue;
      onFeedsNow += state.count[f];
      reached += state.count[f] - 1;
      if (state.count[f] > 1) chained += 1;
    }
    const more = Math.max(0, mustBeFed - placed(false));
    const leads = Math.max(chained, this.chainsFor(reached + more));
    const single = state.reversing + state.adapters + special;
    bound[4] = Math.max(now[4], single + leads);
    if (level <= 5) return bound;

    const reachable = problem.chains.slice(0, bound[4] - single).reduce((sum, plugs) => sum + plugs - 1, 0);
    bound[6] = Math.max(now[6], onFeedsNow + mustBeFed - reachable + now[5]);
    return bound;
  }

  /** The fewest chain leads by which so many loads hang beside the first of their feed. */
  private chainsFor(count: number): number {
    let [left, used] = [count, 0];
    for (const plugs of this.problem.chains) {
      if (left <= 0) break;
      left -= plugs - 1;
      used += 1;
    }
    return left > 0 ? used + 1 : used;
  }

  /** What loads can be plugged into: free outputs, and open feeds (by their first output) as far as chain leads go. */
  private outlets(): Outlets {
    const { state, problem } = this;
    const longest = (problem.chains.at(0) ?? 1) - 1;
    let pool = this.reach;
    const direct = problem.rails.map((_, o) => (state.owner[o] === nobody ? 1 : 0));
    const extra = problem.rails.map((_, o) => {
      const f = state.owner[o];
      if (f === nobody) return longest;
      return problem.feeds[f].outputs[0] === o ? Math.max(0, longest - (state.count[f] - 1)) : 0;
    });
    for (let f = 0; f < problem.feeds.length; f += 1) if (state.isOpen(f)) pool -= state.count[f] - 1;
    return { direct, extra, pool: Math.max(0, pool) };
  }

  private isRailEmpty = (output: number): boolean => this.state.railLoads[this.state.railOf[output]] === 0;

  /** The same without what would bring a digital load company. */
  private undisturbed({ direct, extra, pool }: Outlets): Outlets {
    const { railLoads, railDigital, railOf } = this.state;
    const isShy = (o: number): boolean => railLoads[railOf[o]] === 1 && railDigital[railOf[o]] === 1;
    return {
      direct: direct.map((count, o) => (isShy(o) ? 0 : count)),
      extra: extra.map((count, o) => (isShy(o) ? 0 : count)),
      pool,
    };
  }

  /** Loads that take a reversing lead wherever they go, or else an adapter: no more of them than there are leads. */
  private groups(some: readonly number[]): readonly FlowGroup[] {
    const { leads } = this.problem.source;
    const reversed = some.flatMap((l, i) => (this.mustReverse[l] ? [i] : []));
    const adapted = some.flatMap((l, i) => (this.mustAdapt[l] && !this.mustReverse[l] ? [i] : []));
    return [
      { loads: reversed, most: leads.reversing - this.state.reversing },
      { loads: adapted, most: leads.adapter - this.state.adapters },
    ].filter(({ loads, most }) => loads.length > most);
  }

  /** The outputs where a load could still go, were it the next, with so many per cent of each allowed. */
  private edges(l: number, percent: number, outlets: Outlets): number[] {
    const { state, problem } = this;
    const { feeds, limits, source } = problem;
    const load = problem.loads[l];
    const held = problem.held[l];
    const found: number[] = [];
    if (held !== undefined && typeof held !== 'number') return found;
    const earth = load.kind === 'dc' ? (load.earth === '+' ? 1 : 2) : 0;
    for (let f = 0; f < feeds.length; f += 1) {
      if (held !== undefined && held !== f) continue;
      const mask = state.choicesWith(l, f);
      if (mask === 0 || !state.hasOutputs(f)) continue;
      const { outputs } = feeds[f];
      const rail = state.railOf[outputs[0]];
      if ((state.railEarths[rail] & earth) !== 0) continue;
      if (state.railSeries[rail] !== nobody && state.railSeries[rail] !== f) continue;
      if (state.reverses[l][f] && state.reversing >= source.leads.reversing) continue;
      if (state.adapts[l][f] && state.adapters >= source.leads.adapter) continue;
      const ma = state.drawn[f] + load.ma;
      if (percent < 100 && lacksHeadroom(ma, state.most(f, mask), percent)) continue;
      const overLimit = state.limitsOver(f).some((i) => {
        const without = state.isOpen(f) ? state.leastTaken(f, i) : 0;
        const taken = state.taken[i] - without + state.leastTaken(f, i, ma, mask);
        return lacksHeadroom(taken, limits[i].most, percent);
      });
      if (overLimit) continue;
      for (const o of state.isOpen(f) ? [outputs[0]] : outputs)
        if (!found.includes(o) && (outlets.direct[o] > 0 || outlets.extra[o] > 0)) found.push(o);
    }
    return found;
  }
}

/** How many of some weights, the lightest first, a limit still takes. */
function fitting(weights: readonly number[], room: number): number {
  let [left, count] = [room + nearlyNothing, 0];
  for (const weight of [...weights].sort((a, b) => a - b)) {
    left -= weight;
    if (left < 0) break;
    count += 1;
  }
  return count;
}

/** Seats in one order, for loads that say the same. */
function rankOf(seat: Seat, { feeds }: CompiledSupply): number {
  if (seat === 'battery') return feeds.length;
  return seat === 'unpowered' ? feeds.length + 1 : seat;
}

/** The first number that differs decides. */
export function compareVectors(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return a[i] - b[i];
  return 0;
}
