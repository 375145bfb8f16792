import type { ControlMessage } from '../../model/anatomy.ts';
import { assertNever } from '../../units/problem.ts';
import type { VariableId } from '../state/ids.ts';
import type { ModelControl, ModelDevice, ModelPresets, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';
import { admission, beginLoading, blockedBy } from './loading.ts';
import { flip } from './moves.ts';
import { constant, nothing, noUpdates, type Update, update } from './update.ts';

export function homeBank(presets: ModelPresets): number {
  const [msb, lsb] = presets.facts.home;
  return presets.facts.scheme === 'msb' ? msb : presets.facts.scheme === 'lsb' ? lsb : msb * 128 + lsb;
}

export function recall(
  model: StateModel,
  device: ModelDevice,
  presets: ModelPresets,
  program: number,
): readonly Update[] {
  const { values } = model;
  const { facts } = presets;
  const flips = facts.repeat.is === 'flips' ? device.controls.get(facts.repeat.control) : undefined;
  const listens = device.wired.anatomy.busy !== undefined || device.wired.anatomy.emits !== undefined;
  const plain = facts.repeat.is === 'reload' || (facts.repeat.is === 'ignored' && presets.loads.length === 0);
  if (plain && facts.scheme === 'none' && !listens && presets.loads.length === 0)
    return presets.exists(program) ? [constant(model, presets.variable, values.id(program))] : noUpdates;
  const { writes } = presets;
  const apply: Update['apply'] = (store, running, time) => {
    const at = admission(device, time, running);
    if (at === undefined) return nothing;
    if (!listens && !holdsAny(writes, presets.bank, store)) {
      fallHome(store, presets, values);
      return nothing;
    }
    const bank = presets.bank >= 0 ? values.number(store.get(presets.bank)) : 0;
    fallHome(store, presets, values);
    const number = bank * facts.bankSize + program;
    if (!presets.exists(number)) return nothing;
    const loaded = recallNumber(model, presets, number, store, flips, listens);
    if (!loaded) return nothing;
    beginLoading(device, at, running);
    if (!device.wired.anatomy.emits) return nothing;
    // What goes out is the preset that it went to: of a repeat that alternates, the one before.
    const emits =
      facts.repeat.is === 'alternates' ? values.number(store.get(presets.variable)) % facts.bankSize : program;
    return { emits, time: at };
  };
  return [
    update(device.index, writes, apply, {
      isClosed: true,
      mayEmit: device.wired.anatomy.emits !== undefined,
      mayBlock: blockedBy(device),
    }),
  ];
}

/** Whether any of some variables is held, but for one. */
function holdsAny(variables: readonly VariableId[], but: number, store: Store): boolean {
  for (let i = 0; i < variables.length; i += 1) if (variables[i] !== but && store.has(variables[i])) return true;
  return false;
}

function fallHome(store: Store, presets: ModelPresets, values: Values): void {
  if (presets.bank >= 0 && !presets.facts.sticky && store.has(presets.bank))
    store.set(presets.bank, values.id(homeBank(presets)));
}

/** Recalls a preset that exists; false where the device ignores it, since it is the current one. */
function recallNumber(
  model: StateModel,
  presets: ModelPresets,
  number: number,
  store: Store,
  flips: ModelControl | undefined,
  mustKnow: boolean,
): boolean {
  const { values } = model;
  switch (presets.facts.repeat.is) {
    case 'reload':
      load(model, presets, number, store);
      return true;
    case 'ignored':
      if ((mustKnow || holdsLoads(presets, store)) && repeats(values, presets, number, store)) return false;
      load(model, presets, number, store);
      return true;
    case 'flips':
      if (
        (mustKnow || holdsLoads(presets, store) || (flips && store.has(flips.variable))) &&
        repeats(values, presets, number, store)
      ) {
        if (flips) flip(store, values, flips);
        return false;
      }
      load(model, presets, number, store);
      return true;
    case 'alternates':
      load(
        model,
        presets,
        repeats(values, presets, number, store) ? values.number(store.get(presets.previous)) : number,
        store,
      );
      return true;
    default:
      return assertNever(presets.facts.repeat, 'repeat');
  }
}

const repeats = (values: Values, presets: ModelPresets, number: number, store: Store): boolean =>
  values.number(store.get(presets.variable)) === number;

function holdsLoads({ loads }: ModelPresets, store: Store): boolean {
  for (let i = 0; i < loads.length; i += 1) if (store.has(loads[i].variable)) return true;
  return false;
}

/** Loads a preset's stored values into the working ones and makes it the current one. */
export function load(model: StateModel, presets: ModelPresets, number: number, store: Store): void {
  if (presets.previous >= 0) store.set(presets.previous, store.get(presets.variable));
  store.set(presets.variable, model.values.id(number));
  for (const control of presets.loads) {
    if (!store.has(control.variable) || control.held) continue;
    const content = presets.content(number, control);
    if (content !== undefined) store.set(control.variable, content);
  }
}

/** A step through the presets that exist, the remembered bank untouched; one that ends where it began loads nothing. */
function stepPreset(model: StateModel, presets: ModelPresets, by: number, wrap: boolean, store: Store): boolean {
  const { numbers } = presets;
  const now = model.values.number(store.get(presets.variable));
  const at = numbers.indexOf(now) + by;
  const count = numbers.length;
  const next = numbers[wrap ? ((at % count) + count) % count : Math.min(count - 1, Math.max(0, at))];
  if (next === now) return false;
  load(model, presets, next, store);
  return true;
}

export function presetStep(
  model: StateModel,
  device: ModelDevice,
  answer: ControlMessage,
  isArmed: (store: Store) => boolean,
): Update {
  const { presets } = device;
  const writes = presets
    ? [
        presets.variable,
        ...presets.loads.map((control) => control.variable),
        ...(presets.previous >= 0 ? [presets.previous] : []),
      ]
    : [];
  const listens = device.wired.anatomy.busy !== undefined || device.wired.anatomy.emits !== undefined;
  return update(
    device.index,
    writes,
    (store, running, time) => {
      if (!presets || !(listens || writes.some((variable) => store.has(variable)))) return nothing;
      const at = admission(device, time, running);
      if (at === undefined || !isArmed(store)) return nothing;
      if (!stepPreset(model, presets, answer.by ?? 1, answer.wrap ?? false, store)) return nothing;
      beginLoading(device, at, running);
      return device.wired.anatomy.emits
        ? { emits: model.values.number(store.get(presets.variable)) % presets.facts.bankSize, time: at }
        : nothing;
    },
    { mayEmit: device.wired.anatomy.emits !== undefined, mayBlock: blockedBy(device) },
  );
}
