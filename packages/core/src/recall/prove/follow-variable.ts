import type { SetEvent } from './set-run.ts';
import type { Prover } from './prover.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import type { Row } from '../explore/row.ts';
import { Stepper } from '../explore/stepper.ts';
import { widening } from '../explore/widening.ts';
import type { VariableId } from '../state/ids.ts';

/** What a variable may be before and after something that happens in the set: value ids, each once. */
export interface Followed {
  readonly event: SetEvent;
  readonly before: readonly number[];
  readonly after: readonly number[];
}

export interface FollowedPart {
  readonly events: readonly Followed[];
  /** What it may be when the part is over. */
  readonly left: readonly number[];
}

/** A variable through the set as it is played, from every way in which it may come up. */
export const followVariable = (prover: Prover, variable: VariableId): readonly FollowedPart[] =>
  widening(new Set([variable]), (sorted) => {
    const stepper = new Stepper(prover.model, sorted, new Map());
    let rows: readonly Row[] = stepper.initial(new Set()).map(({ row }) => row);
    const may = (): readonly number[] => [...new Set(rows.map((row) => row[stepper.place[variable]]))];
    return prover.set.parts.map(({ events }) => {
      const followed = events.map((event): Followed => {
        const before = may();
        rows = stepped(stepper, rows, event.compiled);
        return { event, before, after: may() };
      });
      return { events: followed, left: may() };
    });
  });

/** Each of the states that an event may lead to, once. */
export function stepped(stepper: Stepper, rows: readonly Row[], compiled: CompiledEvent): readonly Row[] {
  const next = new Map<string, Row>();
  for (const from of rows) for (const { row } of stepper.step(from, compiled, new Set())) next.set(row.join(), row);
  return [...next.values()];
}
