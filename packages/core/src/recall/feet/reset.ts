import type { SoundTarget } from '../audible/sound-target.ts';
import { type CompiledEvent, compileEvent } from '../explore/event-table.ts';
import { TooManyStates } from '../explore/row.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelSlot } from '../state/state-model.ts';
import { type FootPlanner, isUnknowable } from './foot-planner.ts';
import type { Belief, Machine } from './machine.ts';
import type { Move } from './moves.ts';
import { fewestMoves } from './search.ts';

/** What brings a sound up whatever was done before. */
export type Reset =
  /** A slot first, where one is needed, then presses and hand moves. */
  | { readonly is: 'found'; readonly slot: ModelSlot | null; readonly moves: readonly Move[] }
  /** Nothing does without looking; at these variables, as far as they can be named. */
  | { readonly is: 'none'; readonly lookAt: readonly VariableId[] }
  | { readonly is: 'unknown' };

const mostRows = 4_000;

/**
 * The shortest sequence of at most one slot, presses and hand moves that is right from every state that presses, hand
 * moves and slots can lead to; presses alone before those with a slot.
 */
export function resetOf(planner: FootPlanner, target: SoundTarget): Reset {
  try {
    return planner.joining(() => new Resetting(planner, target).run());
  } catch (reason) {
    if (!isUnknowable(reason)) throw reason;
    return { is: 'unknown' };
  }
}

class Resetting {
  private readonly anything = new Map<Machine, Belief>();
  private readonly slots: readonly { readonly slot: ModelSlot; readonly compiled: CompiledEvent }[];

  constructor(
    private readonly planner: FootPlanner,
    private readonly target: SoundTarget,
  ) {
    const { model } = planner;
    this.slots = model.slots.map((slot) => ({ slot, compiled: compileEvent(model, { kind: 'press', slot }, 0) }));
  }

  run(): Reset {
    const plain = this.search(null);
    let best: Reset | null = plain.is === 'found' ? { is: 'found', slot: null, moves: plain.moves } : null;
    for (const { slot, compiled } of this.slots) {
      const found = this.search(compiled);
      if (found.is !== 'found') continue;
      if (!best || (best.is === 'found' && found.moves.length + 1 < best.moves.length + (best.slot ? 1 : 0)))
        best = { is: 'found', slot, moves: found.moves };
    }
    if (best) return best;
    return plain.is === 'none' ? { is: 'none', lookAt: plain.stuck } : { is: 'unknown' };
  }

  private search(first: CompiledEvent | null) {
    const { planner, target } = this;
    const { machines, comparison, threeValued, moves } = planner;
    const concerns = planner.concerning(target);
    return fewestMoves({
      machines,
      comparison,
      threeValued,
      target,
      beliefOf: (machine) => {
        const anything = this.reachable(machine);
        return first && machines.movedBy(first).includes(machine) ? machine.after(anything, first) : anything;
      },
      movesOn: (machine, belief) =>
        [...moves.feetOn(machines, machine), ...moves.handsOn(machine, belief, target, false)].filter(concerns),
      then: (_, belief) => belief,
    });
  }

  /** Everything that a machine can come to be. */
  private reachable(machine: Machine): Belief {
    let known = this.anything.get(machine);
    if (!known) this.anything.set(machine, (known = this.explore(machine)));
    return known;
  }

  private explore(machine: Machine): Belief {
    const { machines, moves } = this.planner;
    const isOnIt = (compiled: CompiledEvent) => machines.movedBy(compiled).includes(machine);
    const fixed = [
      ...this.slots.map(({ compiled }) => compiled).filter(isOnIt),
      ...this.planner.cues.filter(isOnIt),
      ...moves.feetOn(machines, machine).map(({ compiled }) => compiled),
    ];
    let here = machine.initial;
    for (;;) {
      const hands = moves.handsOn(machine, here, this.target, false).map(({ compiled }) => compiled);
      const events = [...fixed, ...hands];
      const next = machine.belief(
        [here, ...events.map((event) => machine.after(here, event))].flatMap(({ rows }) => rows),
      );
      if (next === here) return here;
      if (next.rows.length > mostRows) throw new TooManyStates();
      here = next;
    }
  }
}
