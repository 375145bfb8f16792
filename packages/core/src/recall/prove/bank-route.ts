import { bankDistance } from '../../model/slots.ts';
import type { SequenceStep } from '../deliver/sequence.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import type { Reached } from '../explore/state-space.ts';
import type { ModelSlot, StateModel } from '../state/state-model.ts';

/** One event of a way, with the presses that would do the same to the variables followed. */
interface Leg {
  readonly reached: Reached;
  readonly alternatives: readonly ModelSlot[];
}

/** The steps of a way with the bank moves put in that it takes, each press chosen among those that do the same. */
export interface Route {
  readonly length: number;
  /** Steps to put before each event of the way, and the slot that is pressed there. */
  readonly legs: readonly { readonly moves: readonly SequenceStep[]; readonly slot: ModelSlot | null }[];
  readonly last: readonly SequenceStep[];
}

/**
 * The fewest bank moves for a way explored without banks, ending with a press of `judged`. Dynamic programming over
 * each controller's own presses: banks × presses × choices. Only for rigs whose bank moves are silent and whose
 * slots nobody calls.
 */
export function cheapestRoute(
  model: StateModel,
  to: Reached,
  judged: ModelSlot,
  equivalents: (compiled: CompiledEvent) => readonly CompiledEvent[],
): Route {
  const legs = legsTo(to, equivalents);
  const chosen = new Map<number, ModelSlot>();
  for (const controller of new Set([
    judged.slot.controller,
    ...legs.flatMap((leg) => leg.alternatives.map((slot) => slot.slot.controller)),
  ]))
    choose(model, controller, legs, judged, chosen);
  const bank = new Map<string, number>();
  const walked = legs.map((leg, i) => {
    const { event } = leg.reached.move!.compiled;
    const slot = chosen.get(i) ?? null;
    if (event.kind === 'restart') bank.set(event.device.id, 0);
    return { moves: slot ? movesTo(model, bank, slot) : [], slot };
  });
  const last = movesTo(model, bank, judged);
  return {
    length: legs.length + 1 + last.length + walked.reduce((sum, leg) => sum + leg.moves.length, 0),
    legs: walked,
    last,
  };
}

function legsTo(to: Reached, equivalents: (compiled: CompiledEvent) => readonly CompiledEvent[]): Leg[] {
  const legs: Leg[] = [];
  for (let here = to; here.from && here.move; here = here.from) {
    const { event } = here.move.compiled;
    const same =
      event.kind === 'press'
        ? equivalents(here.move.compiled).flatMap((equivalent) =>
            equivalent.event.kind === 'press' && equivalent.event.slot.slot.controller === event.slot.slot.controller
              ? [equivalent.event.slot]
              : [],
          )
        : [];
    legs.unshift({ reached: here, alternatives: event.kind === 'press' && same.length === 0 ? [event.slot] : same });
  }
  return legs;
}

/** Chooses the presses of one controller with the fewest moves; of equals, the first in document order. */
function choose(
  model: StateModel,
  controller: string,
  legs: readonly Leg[],
  judged: ModelSlot,
  chosen: Map<number, ModelSlot>,
): void {
  const { banks } = model.device.get(controller)!.controller!.facts;
  const stops = legs.flatMap((leg, i): { readonly at: number; readonly slots: readonly ModelSlot[] | null }[] => {
    const { event } = leg.reached.move!.compiled;
    if (event.kind === 'restart' && event.device.id === controller) return [{ at: i, slots: null }];
    const slots = leg.alternatives.filter((slot) => slot.slot.controller === controller);
    return slots.length > 0 ? [{ at: i, slots }] : [];
  });
  let routes: {
    readonly bank: number;
    readonly cost: number;
    readonly picks: readonly (readonly [number, ModelSlot])[];
  }[] = [{ bank: 0, cost: 0, picks: [] }];
  for (const { at, slots } of stops) {
    if (slots === null) {
      const least = routes.reduce((best, route) => (route.cost < best.cost ? route : best));
      routes = [{ bank: 0, cost: least.cost, picks: least.picks }];
      continue;
    }
    const byBank = new Map<number, ModelSlot>();
    for (const slot of slots) if (!byBank.has(slot.slot.bank)) byBank.set(slot.slot.bank, slot);
    routes = [...byBank].map(([bank, slot]) => {
      const least = routes.reduce((best, route) =>
        route.cost + bankDistance(banks, route.bank, bank) < best.cost + bankDistance(banks, best.bank, bank)
          ? route
          : best,
      );
      return {
        bank,
        cost: least.cost + bankDistance(banks, least.bank, bank),
        picks: [...least.picks, [at, slot] as const],
      };
    });
  }
  const end = (route: (typeof routes)[number]) =>
    route.cost + (judged.slot.controller === controller ? bankDistance(banks, route.bank, judged.slot.bank) : 0);
  for (const [at, slot] of routes.reduce((best, route) => (end(route) < end(best) ? route : best)).picks)
    chosen.set(at, slot);
}

/** The shorter route round, up on a tie. */
function movesTo(model: StateModel, bank: Map<string, number>, slot: ModelSlot): SequenceStep[] {
  const { controller } = slot.slot;
  const { banks } = model.device.get(controller)!.controller!.facts;
  const from = bank.get(controller) ?? 0;
  const moves = bankDistance(banks, from, slot.slot.bank);
  const up = (((slot.slot.bank - from) % banks) + banks) % banks;
  bank.set(controller, slot.slot.bank);
  return Array.from({ length: moves }, () => ({ kind: 'bank', controller, by: up === moves ? 1 : -1 }));
}
