import type { ControlValue } from '../../model/anatomy.ts';
import { memoised } from '../../model/memo.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { constant, modelMemoOf, type Update } from './update.ts';

/** By control and value. */
type SetUpdates = ReadonlyMap<string, ReadonlyMap<ControlValue, Update>>;

/** By the index of a controller. */
const setUpdatesOf = memoised(modelMemoOf, (): SetUpdates[] => []);

/** For each control that a controller's slots store (its loops among them) what puts it on each of its values. */
export const setUpdates = (model: StateModel, device: ModelDevice): SetUpdates =>
  (setUpdatesOf(model)[device.index] ??= computeSetUpdates(model, device));

/** The one that an action asks for; undefined where there is no such control, or no such value of it. */
export const setUpdate = (
  model: StateModel,
  device: ModelDevice,
  control: string,
  value: ControlValue,
): Update | undefined => setUpdates(model, device).get(control)?.get(value);

function computeSetUpdates(model: StateModel, device: ModelDevice): SetUpdates {
  const stored = [...device.controls.values()].filter(({ control }) => control.scope === 'slot');
  return new Map(
    stored.map(({ id, variable, options }) => [
      id,
      new Map(options.map((option) => [model.values.controlValue(option)!, constant(model, variable, option)])),
    ]),
  );
}
