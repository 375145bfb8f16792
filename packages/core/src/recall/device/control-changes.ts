import { type ControlMessage, valueSetBy } from '../../model/anatomy.ts';
import { assertNever } from '../../units/problem.ts';
import type { ModelControl, ModelDevice, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';
import { armed } from './armed.ts';
import { admission } from './loading.ts';
import { flip, isOn, step } from './moves.ts';
import { presetStep } from './presets.ts';
import { constant, idle, nothing, type Update, update } from './update.ts';

export function controlChange(model: StateModel, device: ModelDevice, answer: ControlMessage, value: number): Update {
  const known = constantChange(model, device, answer, value);
  if (known) return known;
  const { values } = model;
  const isArmed = armed(values, device, answer.armed);
  if (answer.control === 'preset') return presetStep(model, device, answer, isArmed);
  const target = device.controls.get(answer.control);
  if (!target) return idle;
  const others = (answer.exclusive ?? []).flatMap((id) => device.controls.get(id) ?? []);
  const writes = [target.variable, ...others.map((other) => other.variable)];
  const apply: Update['apply'] = (store, running, time) => {
    if (!writes.some((variable) => store.has(variable))) return nothing;
    if (admission(device, time, running) === undefined || !isArmed(store)) return nothing;
    const othersHeld = others.some((other) => store.has(other.variable));
    if (othersHeld && !store.has(target.variable) && answer.mode !== 'absolute' && answer.mode !== 'switch')
      store.get(target.variable);
    const result = move(store, values, target, answer, value);
    if (othersHeld && result !== undefined && isOn(values.controlValue(values.decide(result, store.pins))))
      for (const other of others) if (!other.held) store.set(other.variable, other.options[0]);
    return nothing;
  };
  return update(device.index, writes, apply, { isClosed: !answer.armed });
}

/** A message that puts one control on a value, whatever was before. */
function constantChange(
  model: StateModel,
  device: ModelDevice,
  answer: ControlMessage,
  value: number,
): Update | undefined {
  const target = device.controls.get(answer.control);
  if (
    !target ||
    target.held ||
    answer.armed ||
    device.wired.anatomy.busy ||
    answer.exclusive?.some((id) => device.controls.has(id))
  )
    return undefined;
  const to = constantOf(model.values, target, answer, value);
  return to === undefined ? undefined : constant(model, target.variable, to);
}

function constantOf(values: Values, target: ModelControl, answer: ControlMessage, value: number): number | undefined {
  if (answer.mode === 'absolute') {
    const set = valueSetBy(answer, target.control.domain, value);
    return set === undefined ? undefined : values.id(set);
  }
  if (answer.mode === 'switch') return target.options[value >= 64 ? 1 : 0];
  return undefined;
}

/** Moves the target and says what it is now (also where it is not in the store, if that can be told). */
export function move(
  store: Store,
  values: Values,
  target: ModelControl,
  answer: ControlMessage,
  value: number,
): number | undefined {
  if (target.held) return undefined;
  switch (answer.mode) {
    case 'absolute':
    case 'switch': {
      const to = constantOf(values, target, answer, value);
      if (to !== undefined) store.set(target.variable, to);
      return to;
    }
    case 'toggle':
      flip(store, values, target);
      return store.has(target.variable) ? store.get(target.variable) : undefined;
    case 'next':
      step(store, values, target, answer.by ?? 1, answer.wrap ?? false);
      return store.has(target.variable) ? store.get(target.variable) : undefined;
    default:
      return assertNever(answer.mode, 'mode');
  }
}
