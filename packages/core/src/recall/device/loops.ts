import { memoised } from '../../model/memo.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { constant, modelMemoOf, type Update } from './update.ts';

type LoopUpdates = ReadonlyMap<string, readonly [out: Update, into: Update]>;

/** By the index of a switcher. */
const loopUpdatesOf = memoised(modelMemoOf, (): LoopUpdates[] => []);

/** For each loop of a switcher what takes it out and in. */
export const loopUpdates = (model: StateModel, device: ModelDevice): LoopUpdates =>
  (loopUpdatesOf(model)[device.index] ??= computeLoopUpdates(model, device));

function computeLoopUpdates(model: StateModel, device: ModelDevice): LoopUpdates {
  const set = (variable: number, to: 0 | 1): Update => constant(model, variable, model.values.id(to));
  return new Map([...device.controls.values()].map(({ id, variable }) => [id, [set(variable, 0), set(variable, 1)]]));
}
