import type { FootAction } from '../../model/anatomy.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { moveBit } from './contacts.ts';
import { flip, step } from './moves.ts';
import { presetStep } from './presets.ts';
import { idle, nothing, type Update, update } from './update.ts';

/** A foot on a device's own switch: never refused by a device that is loading. */
export function foot(model: StateModel, device: ModelDevice, does: FootAction): Update {
  const { values } = model;
  if ('flip' in does) {
    const input = device.inputs.get(does.flip);
    return input ? moveBit(model, device, input, 'flip') : idle;
  }
  const id = 'toggle' in does ? does.toggle : does.next;
  if (id === 'preset') {
    const by = 'next' in does ? (does.by ?? 1) : 1;
    const wrap = 'next' in does ? (does.wrap ?? true) : true;
    return presetStep(model, device, { cc: 0, control: 'preset', mode: 'next', by, wrap }, () => true);
  }
  const control = device.controls.get(id);
  if (!control) return idle;
  return update(device.index, [control.variable], (store) => {
    if ('toggle' in does) flip(store, values, control);
    else step(store, values, control, does.by ?? 1, does.wrap ?? true);
    return nothing;
  });
}
