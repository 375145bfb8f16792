import { type Memo, memoised } from '../../model/memo.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';

/**
 * What devices do when something reaches them: one function per device behaviour, written from the facts that a
 * type states. Each works on any store that holds the variables it may change; it reads no others than it must.
 */
export interface Update {
  /** The index of the device whose variables it may write; `noDevice` where it writes none. */
  readonly device: number;
  /** Variables it may write. */
  readonly writes: readonly VariableId[];
  readonly apply: (store: Store, running: Running, time: number) => Applied;
  /** Variables of a device that this update may make busy: whether it happens decides what later messages do. */
  readonly mayBlock?: readonly number[];
  /** True where its device may send a recall on, so that the delivery depends on the state. */
  readonly mayEmit?: boolean;
  /**
   * Two updates with the same sign do the same to every state, and read nothing but what updates on the variables that
   * they touch write.
   */
  readonly sign?: string;
  /**
   * True where it reads no variable but those that it writes, and beside them at most until when its own device is
   * loading.
   */
  readonly isClosed?: boolean;
  /** Set where it does nothing but give a variable a known value. */
  readonly constant?: { readonly variable: VariableId; readonly value: ValueId };
  /**
   * What it was found to do where it is closed (write-summary.ts): kept with it, for every press that holds it asks.
   */
  found?: Probe;
}

/** What a closed update left the variables that it writes on, and whether its device then loads. */
export interface ProbeResult {
  readonly left: readonly number[];
  readonly loads: 'no' | 'yes' | 'unsure';
}

/**
 * What it did where of one of the variables that it writes so much was known: that leads to the next of them, where
 * there is one; `other`: where something else was known of this one.
 */
export interface Probe {
  readonly known: number;
  done: ProbeResult | undefined;
  next: Probe | undefined;
  other: Probe | undefined;
}

/** Memory of one event while it runs. */
export interface Running {
  /** Until when a device is busy loading, by device index. */
  readonly busyUntil: Map<number, number>;
}

/** The program that a device sends on, where it does. */
export type Applied = { readonly emits: number; readonly time: number } | undefined;

export const nothing: Applied = undefined;

const noDevice = -1;

/** Every update is of one shape, for they are asked often. */
export const update = (
  device: number,
  writes: readonly VariableId[],
  apply: Update['apply'],
  { mayBlock, mayEmit, sign, isClosed, constant }: Omit<Update, 'device' | 'writes' | 'apply'> = {},
): Update => ({ device, writes, apply, mayBlock, mayEmit, sign, isClosed, constant, found: undefined });

export const idle = update(noDevice, [], () => nothing);

export const modelMemoOf = ({ modelMemo }: StateModel): Memo => modelMemo;

/** By variable and value. */
const constantsOf = memoised(modelMemoOf, (): Map<number, Update>[] => []);

/** The one update that gives a variable this value. */
export function constant(model: StateModel, variable: VariableId, value: ValueId): Update {
  const byValue = (constantsOf(model)[variable] ??= new Map<number, Update>());
  let update = byValue.get(value);
  if (!update) byValue.set(value, (update = settingTo(model.variables[variable].owner, variable, value)));
  return update;
}

const settingTo = (device: number, variable: VariableId, value: ValueId): Update =>
  update(
    device,
    [variable],
    (store) => {
      store.set(variable, value);
      return nothing;
    },
    { constant: { variable, value } },
  );

export const noUpdates: readonly Update[] = [];
