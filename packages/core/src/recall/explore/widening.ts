import type { VariableId } from '../state/ids.ts';
import { NeedVariable } from '../state/store.ts';

/** Tries again with one variable more, taken into `variables`, where one turned out to be needed. */
export function widening<T>(variables: Set<VariableId>, attempt: (sorted: readonly number[]) => T): T {
  for (;;) {
    try {
      return attempt([...variables].sort((a, b) => a - b));
    } catch (reason) {
      if (!(reason instanceof NeedVariable)) throw reason;
      variables.add(reason.variable);
    }
  }
}
