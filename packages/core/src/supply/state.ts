import { lacksHeadroom, needsReversing, type Seat, type SupplyPlan, takenOf } from './judge.ts';
import { type CompiledSupply, isWithin, nearlyNothing as tiny } from './problem.ts';

export const nobody = -1;

/**
 * A plan in the making: some loads seated, the others not yet. A feed is held to no voltage before it must be: it keeps
 * all that its loads can live with, and is judged by the kindest of each, so that what is found is never too much.
 */
export class SupplyState {
  /** By load; undefined where it is not seated yet. */
  readonly seats: (Seat | undefined)[];
  readonly count: Int32Array;
  readonly drawn: Float64Array;
  /** By feed: which of its choices are left, a bit each. */
  readonly left: Int32Array;
  /** By output: the feed that has it, or `nobody`. */
  readonly owner: Int32Array;
  reversing = 0;
  adapters = 0;
  unpowered = 0;
  batteries = 0;

  /** By load and feed: the choices whose voltage suits it, a bit each; 0: none, or another kind of current. */
  readonly suits: readonly Int32Array[];
  /** By load and feed: special leads that it takes there, adapters and reversing ones. */
  readonly reverses: readonly Uint8Array[];
  readonly adapts: readonly Uint8Array[];
  /** By feed: the limits over one of its outputs. */
  private readonly limitsOf: readonly (readonly number[])[];
  /** By output, as last judged. */
  readonly railOf: Int32Array;
  private readonly joined: readonly number[];

  constructor(readonly problem: CompiledSupply) {
    const { loads, feeds, limits, rails } = problem;
    this.seats = loads.map(() => undefined);
    this.count = new Int32Array(feeds.length);
    this.drawn = new Float64Array(feeds.length);
    this.left = Int32Array.from(feeds, ({ choices }) => 2 ** choices.length - 1);
    this.owner = new Int32Array(rails.length).fill(nobody);
    this.suits = loads.map((load) =>
      Int32Array.from(feeds, (feed) =>
        feed.kind === load.kind ? maskOf(feed.choices, ({ volts }) => isWithin(volts, load.volts)) : 0,
      ),
    );
    this.reverses = loads.map((load) => Uint8Array.from(feeds, (feed) => Number(needsReversing(load, feed))));
    this.adapts = loads.map((load) => Uint8Array.from(feeds, ({ plug }) => Number(plug !== load.plug)));
    this.limitsOf = feeds.map(({ outputs }) =>
      limits.flatMap((limit, i) => (outputs.some((output) => limit.outputs.includes(output)) ? [i] : [])),
    );
    this.railOf = new Int32Array(rails.length);
    this.joined = feeds.flatMap(({ outputs }, f) => (outputs.length > 1 ? [f] : []));
    this.taken = new Float64Array(limits.length);
    this.railLoads = new Int32Array(problem.railCount);
    this.railDigital = new Int32Array(problem.railCount);
    this.railEarths = new Int32Array(problem.railCount);
    this.railSeries = new Int32Array(problem.railCount);
  }

  /** What each limit bears, as last judged. */
  readonly taken: Float64Array;
  readonly railLoads: Int32Array;
  readonly railDigital: Int32Array;
  readonly railEarths: Int32Array;
  /** By rail: the feed in series that has it to itself, or `nobody`. */
  readonly railSeries: Int32Array;

  isOpen = (f: number): boolean => this.count[f] > 0;

  /** Whether the outputs of a feed are free, or its own. */
  hasOutputs(f: number): boolean {
    for (const output of this.problem.feeds[f].outputs)
      if (this.owner[output] !== nobody && this.owner[output] !== f) return false;
    return true;
  }

  /** The choices that are left of a feed with one load more; 0: it does not go there. */
  choicesWith(load: number, f: number): number {
    return this.choicesFor(f, this.left[f] & this.suits[load][f], this.drawn[f] + this.problem.loads[load].ma);
  }

  private choicesFor(f: number, among: number, ma: number): number {
    let mask = among;
    if (mask === 0) return 0;
    const { choices } = this.problem.feeds[f];
    for (let c = 0; c < choices.length; c += 1) if (choices[c].ma < ma - tiny) mask &= ~(1 << c);
    return mask;
  }

  /** Puts a load somewhere; what it gives back undoes it. Whether the whole is allowed, `judge` says. */
  seat(load: number, seat: Seat): () => void {
    this.seats[load] = seat;
    if (seat === 'battery') {
      this.batteries += 1;
      return () => {
        this.batteries -= 1;
        this.seats[load] = undefined;
      };
    }
    if (seat === 'unpowered') {
      this.unpowered += 1;
      return () => {
        this.unpowered -= 1;
        this.seats[load] = undefined;
      };
    }
    const [left, drawn] = [this.left[seat], this.drawn[seat]];
    this.left[seat] = this.choicesWith(load, seat);
    this.drawn[seat] += this.problem.loads[load].ma;
    this.count[seat] += 1;
    this.reversing += this.reverses[load][seat];
    this.adapters += this.adapts[load][seat];
    const { outputs } = this.problem.feeds[seat];
    if (this.count[seat] === 1) for (const output of outputs) this.owner[output] = seat;
    return () => {
      this.left[seat] = left;
      this.drawn[seat] = drawn;
      this.count[seat] -= 1;
      this.reversing -= this.reverses[load][seat];
      this.adapters -= this.adapts[load][seat];
      if (this.count[seat] === 0) for (const output of outputs) this.owner[output] = nobody;
      this.seats[load] = undefined;
    };
  }

  /** The most that a feed may still give, of the choices that are left. */
  most(f: number, among: number = this.left[f]): number {
    const { choices } = this.problem.feeds[f];
    let most = 0;
    for (let c = 0; c < choices.length; c += 1) if (among & (1 << c)) most = Math.max(most, choices[c].ma);
    return most;
  }

  /** The least that a feed takes of a limit, of the choices that are left. */
  leastTaken(f: number, limit: number, ma: number = this.drawn[f], among: number = this.left[f]): number {
    const feed = this.problem.feeds[f];
    let least = Infinity;
    for (let c = 0; c < feed.choices.length; c += 1)
      if (among & (1 << c)) least = Math.min(least, takenOf(this.problem.limits[limit], feed, feed.choices[c], ma));
    return least === Infinity ? 0 : least;
  }

  limitsOver = (f: number): readonly number[] => this.limitsOf[f];

  /** What is seated so far costs at least this, number by number; null where it is not allowed, whatever follows. */
  judge(into: number[]): boolean {
    const { problem, count, taken } = this;
    const { feeds, limits, loads, source } = problem;
    if (this.reversing > source.leads.reversing || this.adapters > source.leads.adapter) return false;
    if (!this.hasChains()) return false;
    taken.fill(0);
    for (let f = 0; f < feeds.length; f += 1) {
      if (count[f] === 0) continue;
      if (this.left[f] === 0) return false;
      for (const limit of this.limitsOf[f]) taken[limit] += this.leastTaken(f, limit);
    }
    for (let i = 0; i < limits.length; i += 1) if (taken[i] > limits[i].most + tiny) return false;
    this.joinRails();
    const { railOf, railLoads, railDigital, railEarths } = this;
    railLoads.fill(0);
    railDigital.fill(0);
    railEarths.fill(0);
    for (let l = 0; l < loads.length; l += 1) {
      const seat = this.seats[l];
      if (typeof seat !== 'number') continue;
      const rail = railOf[feeds[seat].outputs[0]];
      railLoads[rail] += 1;
      if (loads[l].isDigital) railDigital[rail] += 1;
      if (loads[l].kind === 'dc') railEarths[rail] |= loads[l].earth === '+' ? 2 : 1;
    }
    for (let rail = 0; rail < railEarths.length; rail += 1) if (railEarths[rail] === 3) return false;
    this.railSeries.fill(nobody);
    for (const f of this.joined) {
      if (count[f] === 0 || feeds[f].how !== 'series') continue;
      const rail = railOf[feeds[f].outputs[0]];
      if (railLoads[rail] > count[f]) return false;
      this.railSeries[rail] = f;
    }
    let [lacking, digital, shared, joins, outputs] = [0, 0, 0, 0, 0];
    for (let f = 0; f < feeds.length; f += 1) {
      if (count[f] === 0) continue;
      if (this.lacks(f)) lacking += count[f];
      if (count[f] > 1) shared += 1;
      outputs += feeds[f].outputs.length;
      if (feeds[f].outputs.length > 1) joins += 1;
    }
    for (let rail = 0; rail < railLoads.length; rail += 1) if (railLoads[rail] > 1) digital += railDigital[rail];
    into[0] = this.unpowered;
    into[1] = lacking;
    into[2] = digital;
    into[3] = this.batteries;
    into[4] = this.reversing + this.adapters + shared;
    into[5] = joins;
    into[6] = outputs;
    return true;
  }

  /** Whether a feed lacks headroom, by the limits as last judged. */
  lacks(f: number): boolean {
    if (lacksHeadroom(this.drawn[f], this.most(f), this.problem.headroom)) return true;
    for (const limit of this.limitsOf[f])
      if (lacksHeadroom(this.taken[limit], this.problem.limits[limit].most, this.problem.headroom)) return true;
    return false;
  }

  /** Whether there is a chain lead with plugs enough for each feed of several loads. */
  private hasChains(): boolean {
    const { chains } = this.problem;
    let needed = 0;
    for (let f = 0; f < this.count.length; f += 1) if (this.count[f] > 1) needed += 1;
    if (needed === 0) return true;
    if (needed > chains.length) return false;
    // Of the k longest needs the last must find the k-th longest lead.
    for (let k = 0; k < chains.length; k += 1) {
      let longer = 0;
      for (let f = 0; f < this.count.length; f += 1) if (this.count[f] > chains[k]) longer += 1;
      if (longer > k) return false;
      if (longer === 0) break;
    }
    return true;
  }

  private joinRails(): void {
    const { railOf, problem } = this;
    for (let o = 0; o < railOf.length; o += 1) railOf[o] = problem.rails[o];
    for (const f of this.joined) {
      if (this.count[f] === 0) continue;
      const [a, b] = problem.feeds[f].outputs;
      const [kept, gone] = [railOf[a], railOf[b]];
      if (kept === gone) continue;
      for (let o = 0; o < railOf.length; o += 1) if (railOf[o] === gone) railOf[o] = kept;
    }
  }

  /** The plan, each feed set to one of its choices. */
  plan = (choices: readonly number[]): SupplyPlan => ({
    seats: this.seats.map((seat) => seat ?? 'unpowered'),
    choices,
  });

  /**
   * Of the choices left of a feed those that no other beats: one that gives as much and takes as little of every limit
   * is enough.
   */
  bestChoices(f: number): readonly number[] {
    const feed = this.problem.feeds[f];
    const figures = feed.choices.flatMap((choice, c) =>
      this.left[f] & (1 << c)
        ? [
            {
              c,
              ma: choice.ma,
              taken: this.limitsOf[f].map((limit) => takenOf(this.problem.limits[limit], feed, choice, this.drawn[f])),
            },
          ]
        : [],
    );
    const beats = (a: (typeof figures)[number], b: (typeof figures)[number]): boolean =>
      a.ma >= b.ma && a.taken.every((taken, i) => taken <= b.taken[i]);
    return figures
      .filter((one, i) => !figures.some((other, k) => beats(other, one) && (!beats(one, other) || k < i)))
      .map(({ c }) => c);
  }
}

function maskOf<T>(all: readonly T[], holds: (one: T) => boolean): number {
  let mask = 0;
  all.forEach((one, i) => {
    if (holds(one)) mask |= 1 << i;
  });
  return mask;
}
