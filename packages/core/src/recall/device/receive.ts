import { bankSelectLsb, bankSelectMsb, type MidiMessage } from '../../midi/message.ts';
import { memoised } from '../../model/memo.ts';
import type { ModelDevice, ModelPresets, StateModel } from '../state/state-model.ts';
import { controlChange } from './control-changes.ts';
import { admission } from './loading.ts';
import { recall } from './presets.ts';
import { modelMemoOf, nothing, noUpdates, type Update, update } from './update.ts';

/** By the receiver's index. */
const receivedBy = memoised(modelMemoOf, (): Map<number, readonly Update[]>[] => []);

/**
 * What a received message does to a device, in order, the very same updates each time; empty where it does not
 * understand it.
 */
export function receive(model: StateModel, device: ModelDevice, message: MidiMessage): readonly Update[] {
  if (message.kind !== 'program' && message.kind !== 'control') return noUpdates;
  const before = (receivedBy(model)[device.index] ??= new Map<number, readonly Update[]>());
  const key = message.kind === 'program' ? message.program : 128 + message.cc * 128 + message.value;
  let updates = before.get(key);
  if (!updates) before.set(key, (updates = computeReceived(model, device, message)));
  return updates;
}

function computeReceived(
  model: StateModel,
  device: ModelDevice,
  message: Extract<MidiMessage, { readonly kind: 'program' | 'control' }>,
): readonly Update[] {
  if (message.kind === 'program')
    return device.presets ? recall(model, device, device.presets, message.program) : noUpdates;
  const { presets } = device;
  if (presets && presets.bank >= 0 && selects(presets, message.cc))
    return [bankSelect(model, device, presets, message.cc, message.value)];
  const answers = device.messages.get(message.cc) ?? [];
  return answers.map((answer) => controlChange(model, device, answer, message.value));
}

function selects(presets: ModelPresets, cc: number): boolean {
  const { scheme } = presets.facts;
  return (
    (cc === bankSelectMsb && (scheme === 'msb' || scheme === 'both')) ||
    (cc === bankSelectLsb && (scheme === 'lsb' || scheme === 'both'))
  );
}

function bankSelect(model: StateModel, device: ModelDevice, presets: ModelPresets, cc: number, value: number): Update {
  const { values } = model;
  const apply: Update['apply'] = (store, running, time) => {
    if (!store.has(presets.bank) || admission(device, time, running) === undefined) return nothing;
    if (presets.facts.scheme !== 'both') store.set(presets.bank, values.id(value));
    else {
      const bank = values.number(store.get(presets.bank));
      store.set(
        presets.bank,
        values.id(cc === bankSelectMsb ? value * 128 + (bank % 128) : Math.floor(bank / 128) * 128 + value),
      );
    }
    return nothing;
  };
  return update(device.index, [presets.bank], apply, { isClosed: true });
}
