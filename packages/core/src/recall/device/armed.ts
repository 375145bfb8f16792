import type { Armed } from '../../model/anatomy.ts';
import type { ModelDevice } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';

/** Whether what a message or a press does is armed now. What it is armed by was checked when the rig was read. */
export function armed(
  values: Values,
  { id, controls, presets }: ModelDevice,
  by: Armed | undefined,
): (store: Store) => boolean {
  if (!by) return () => true;
  const variable = by.control === 'preset' ? presets?.variable : controls.get(by.control)?.variable;
  if (variable === undefined) throw new Error(`${id}: armed by ${by.control}, which is not there`);
  const allowed = by.values.map((controlValue) => values.id(controlValue));
  return (store) => allowed.includes(values.decide(store.get(variable), store.pins));
}
