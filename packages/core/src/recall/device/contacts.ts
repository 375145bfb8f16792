import { memoised } from '../../model/memo.ts';
import type { ModelControl, ModelDevice, ModelInput, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';
import { modelMemoOf, nothing, type Update, update } from './update.ts';

/** By the variable of the bit. */
const movesOf = memoised(modelMemoOf, (): Map<0 | 1 | 'flip', Update>[] => []);

/**
 * A contact input's bit moves: copied from the contact (level) or flipped by its closing (edge); contacts are never
 * refused. The very same update each time.
 */
export function moveBit(model: StateModel, device: ModelDevice, input: ModelInput, to: 0 | 1 | 'flip'): Update {
  const known = (movesOf(model)[input.bit] ??= new Map<0 | 1 | 'flip', Update>());
  let move = known.get(to);
  if (!move) known.set(to, (move = computeMove(model, device, input, to)));
  return move;
}

function computeMove(model: StateModel, device: ModelDevice, input: ModelInput, to: 0 | 1 | 'flip'): Update {
  const { values } = model;
  const ruled = [...device.controls.values()].filter((control) => control.bits.includes(input.bit));
  const apply: Update['apply'] = (store) => {
    const rules = ruled.filter((control) => store.has(control.variable));
    if (rules.length === 0 && !store.has(input.bit)) return nothing;
    let moved = true;
    if (to === 'flip') store.set(input.bit, values.id(1 - values.number(store.get(input.bit))));
    else {
      if (rules.length > 0) moved = values.number(store.get(input.bit)) !== to;
      store.set(input.bit, values.id(to));
    }
    for (const control of rules)
      if (moved || control.held) store.set(control.variable, ruledBy(values, store, control));
    return nothing;
  };
  return update(device.index, [input.bit, ...ruled.map((control) => control.variable)], apply, {
    sign: to === 'flip' ? undefined : `${input.bit}:${to}`,
    isClosed: ruled.every((control) => control.bits.length === 1),
  });
}

/** The value that a control's bits give it. */
export function ruledBy(values: Values, store: Store, control: ModelControl): number {
  const bits = control.bits.map((bit) => values.controlValue(store.get(bit))).join('');
  return control.table.get(bits) ?? control.options[0];
}
