import type { PartialStore, Store } from '../state/store.ts';
import type { Row } from './row.ts';

/** What something does to the rows of one space: the very same for events that do the same there. */
export class Effect {
  constructor(
    private readonly store: PartialStore,
    /** Turns on nothing but the store. */
    private readonly act: (store: Store) => void,
  ) {}

  /** Does it to a row, in place. Throws NeedVariable or NeedPin where it reads what the space does not hold. */
  apply(row: Row): void {
    this.act(this.store.open(row));
  }

  /** The row that it leads to. */
  after(row: Row): Row {
    const led = row.slice();
    this.apply(led);
    return led;
  }
}
