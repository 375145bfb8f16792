import { type CompiledSupply, type FeedChoice, isWithin, nearlyNothing } from './problem.ts';

/** Where a load is: on a feed, by its place; on its battery; or without power. */
export type Seat = number | 'battery' | 'unpowered';

/** Where each load is, and to which of its choices each feed is set. */
export interface SupplyPlan {
  readonly seats: readonly Seat[];
  readonly choices: readonly number[];
}

/** What a plan costs, the first deciding. */
export const supplyCostNames = [
  'unpowered',
  'withoutHeadroom',
  'digitalSharing',
  'onBattery',
  'specialLeads',
  'joins',
  'outputsUsed',
] as const;
export type SupplyCostName = (typeof supplyCostNames)[number];
export type SupplyCost = Readonly<Record<SupplyCostName, number>>;

export const supplyVector = (cost: SupplyCost): readonly number[] => supplyCostNames.map((name) => cost[name]);

/** Above so many per cent of what it may give, something is loaded without headroom; exactly so much is enough. */
export const lacksHeadroom = (load: number, most: number, percent: number): boolean =>
  load * 100 > most * percent + nearlyNothing;

/** What a load needs to be put on a feed. */
export const needsReversing = (
  load: Pick<CompiledSupply['loads'][number], 'kind' | 'centre'>,
  feed: Pick<CompiledSupply['feeds'][number], 'centre'>,
): boolean => load.kind === 'dc' && load.centre !== 'any' && load.centre !== feed.centre;

/**
 * What a feed takes of a limit: each of its outputs inside carries the current of the feed; of a parallel feed those
 * inside carry all that is drawn, at most what they can give, since nothing says how it is shared out.
 */
export function takenOf(
  limit: CompiledSupply['limits'][number],
  feed: CompiledSupply['feeds'][number],
  { each }: FeedChoice,
  ma: number,
): number {
  const inside = each.filter((_, i) => limit.outputs.includes(feed.outputs[i]));
  if (feed.how === 'parallel') {
    const most = inside.reduce((sum, output) => sum + output.ma, 0);
    return inside.length === 0 ? 0 : Math.min(ma, most) * (limit.isPower ? inside[0].volts : 1);
  }
  return inside.reduce((sum, output) => sum + ma * (limit.isPower ? output.volts : 1), 0);
}

/** A plan by the definition alone: what it costs, or null where it is not allowed. */
export function judgeSupply(problem: CompiledSupply, { seats, choices }: SupplyPlan): SupplyCost | null {
  const { loads, feeds, limits, rails, chains, held, headroom } = problem;
  const { leads } = problem.source;
  const on = feeds.map((_, f) => loads.map((_load, l) => l).filter((l) => seats[l] === f));
  const used = feeds.map((_, f) => f).filter((f) => on[f].length > 0);
  const drawn = on.map((here) => here.reduce((sum, l) => sum + loads[l].ma, 0));
  if (loads.some((_, l) => held[l] !== undefined && held[l] !== seats[l])) return null;
  if (loads.some(({ mayUseBattery }, l) => seats[l] === 'battery' && !mayUseBattery)) return null;
  const outputs = used.flatMap((f) => feeds[f].outputs);
  if (new Set(outputs).size < outputs.length) return null;
  const choiceOf = (f: number): FeedChoice => feeds[f].choices[choices[f]];
  for (const f of used) {
    const choice = choiceOf(f) as FeedChoice | undefined;
    if (!choice || drawn[f] > choice.ma + nearlyNothing) return null;
    if (on[f].some((l) => loads[l].kind !== feeds[f].kind || !isWithin(choice.volts, loads[l].volts))) return null;
  }
  const reversing = used.reduce((sum, f) => sum + on[f].filter((l) => needsReversing(loads[l], feeds[f])).length, 0);
  const adapter = used.reduce((sum, f) => sum + on[f].filter((l) => loads[l].plug !== feeds[f].plug).length, 0);
  if (reversing > leads.reversing || adapter > leads.adapter) return null;
  const shared = used
    .map((f) => on[f].length)
    .filter((count) => count > 1)
    .sort((a, b) => b - a);
  if (shared.some((count, i) => count > (chains.at(i) ?? 0))) return null;
  const taken = limits.map((limit) =>
    used.reduce((sum, f) => sum + takenOf(limit, feeds[f], choiceOf(f), drawn[f]), 0),
  );
  if (limits.some(({ most }, i) => taken[i] > most + nearlyNothing)) return null;
  // A join in use makes the rails of its outputs one.
  const railOf = rails.map((rail) => rail);
  for (const f of used) {
    const [a, b] = feeds[f].outputs;
    if (b === undefined || railOf[a] === railOf[b]) continue;
    const [kept, gone] = [railOf[a], railOf[b]];
    railOf.forEach((rail, o) => {
      if (rail === gone) railOf[o] = kept;
    });
  }
  const onRail = new Map<number, number[]>();
  for (const f of used) {
    const rail = railOf[feeds[f].outputs[0]];
    onRail.set(rail, [...(onRail.get(rail) ?? []), ...on[f]]);
  }
  for (const f of used)
    if (feeds[f].how === 'series' && onRail.get(railOf[feeds[f].outputs[0]])!.length > on[f].length) return null;
  for (const here of onRail.values())
    if (new Set(here.filter((l) => loads[l].kind === 'dc').map((l) => loads[l].earth)).size > 1) return null;
  const lacks = (f: number): boolean =>
    lacksHeadroom(drawn[f], choiceOf(f).ma, headroom) ||
    limits.some(
      ({ outputs: inside, most }, i) =>
        feeds[f].outputs.some((output) => inside.includes(output)) && lacksHeadroom(taken[i], most, headroom),
    );
  return {
    unpowered: seats.filter((seat) => seat === 'unpowered').length,
    withoutHeadroom: used.filter(lacks).reduce((sum, f) => sum + on[f].length, 0),
    digitalSharing: [...onRail.values()]
      .filter((here) => here.length > 1)
      .reduce((sum, here) => sum + here.filter((l) => loads[l].isDigital).length, 0),
    onBattery: seats.filter((seat) => seat === 'battery').length,
    specialLeads: reversing + adapter + shared.length,
    joins: used.filter((f) => feeds[f].how !== 'alone').length,
    outputsUsed: outputs.length,
  };
}
