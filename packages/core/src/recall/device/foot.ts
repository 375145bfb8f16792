import { type FootAction, movedBy } from '../../model/anatomy.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { armed } from './armed.ts';
import { moveBit } from './contacts.ts';
import { flip, step, turn } from './moves.ts';
import { presetStep } from './presets.ts';
import { idle, nothing, type Update, update } from './update.ts';

/** A foot on a device's own switch: never refused by a device that is loading. */
export function foot(model: StateModel, device: ModelDevice, action: FootAction): Update {
  const { values } = model;
  if ('flip' in action) {
    const input = device.inputs.get(action.flip);
    return input ? moveBit(model, device, input, 'flip') : idle;
  }
  const id = movedBy(action)!;
  const isArmed = armed(values, device, action.armed);
  if (id === 'preset') {
    const by = 'next' in action ? (action.by ?? 1) : 1;
    const wrap = 'next' in action ? (action.wrap ?? true) : true;
    return presetStep(model, device, { cc: 0, control: 'preset', mode: 'next', by, wrap }, isArmed);
  }
  const control = device.controls.get(id);
  if (!control) return idle;
  return update(device.index, [control.variable], (store) => {
    if (!store.has(control.variable) || !isArmed(store)) return nothing;
    if ('toggle' in action) flip(store, values, control);
    else if ('turn' in action) turn(store, values, control, action.table);
    else if ('next' in action) step(store, values, control, action.by ?? 1, action.wrap ?? true);
    else if (!control.held) store.set(control.variable, values.id(action.to));
    return nothing;
  });
}
