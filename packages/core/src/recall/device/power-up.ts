import { type PowerUp, restOf } from '../../model/anatomy.ts';
import { powerUpOf } from '../../model/wiring.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noValue } from '../state/ids.ts';
import type { ModelControl, ModelDevice, ModelInput, ModelPresets, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import { ruledBy } from './contacts.ts';
import { homeBank } from './presets.ts';

/**
 * Power-up, of the whole rig (everything unplugged before, so contacts are open) or of one device while the
 * others stay on. Each choice that it leaves open (as left, any) is asked: which of these values a variable comes up
 * with.
 */
export type Choose = (values: readonly ValueId[], variable: VariableId) => number;

/** Puts a device's variables as they are after its own power-up; reads the contacts that are closed at that moment. */
export function powerUp(model: StateModel, device: ModelDevice, store: Store, first: boolean, fork: Choose): void {
  inputs(model, device, store, first, fork);
  presets(model, device, store, first, fork);
  for (const control of device.controls.values()) powerUpControl(model, device, control, store, first, fork);
  controller(model, device, store);
}

function inputs(model: StateModel, device: ModelDevice, store: Store, first: boolean, fork: Choose): void {
  for (const input of device.inputs.values()) {
    if (!store.has(input.bit)) continue;
    const bit = bitAfterPowerUp(model, input, store, first);
    if (bit !== 'last-state') store.set(input.bit, model.values.id(bit));
    else if (first)
      store.set(
        input.bit,
        fork(
          [0, 1].map((open) => model.values.id(open)),
          input.bit,
        ),
      );
  }
}

function bitAfterPowerUp(model: StateModel, input: ModelInput, store: Store, first: boolean): ModelInput['powerUp'] {
  if (input.kind !== 'level' || input.wires.length === 0) return input.powerUp;
  if (first) return input.wires.some((link) => restsClosed(model, link)) ? 1 : 0;
  const closed = input.wires.some((link) => {
    const contact = model.device.get(link.controller)?.controller?.contact.get(link.contact);
    return contact !== undefined && model.values.number(store.get(contact)) === 1;
  });
  return closed ? 1 : 0;
}

/** Whether the contact at the other end of a cable is closed at rest. */
function restsClosed(model: StateModel, link: ModelInput['wires'][number]): boolean {
  const controller = model.device.get(link.controller)?.controller;
  return controller !== undefined && restOf(controller.facts, link.contact) === 1;
}

function presets(model: StateModel, device: ModelDevice, store: Store, first: boolean, fork: Choose): void {
  const { presets: own } = device;
  if (!own) return;
  if (own.bank >= 0) store.set(own.bank, model.values.id(homeBank(own)));
  if (!store.has(own.variable) && !(own.previous >= 0 && store.has(own.previous)) && !loadsAny(device, own, store))
    return;
  const number = presetAfterPowerUp(model, device, own.facts.powerUp, store, first, fork);
  store.set(own.variable, number);
  if (own.previous >= 0) store.set(own.previous, number);
  for (const control of own.loads) {
    if (!store.has(control.variable) || !loadedAtPowerUp(device, control)) continue;
    const content = own.content(model.values.number(number), control);
    store.set(control.variable, content ?? literalPowerUp(model, device, control));
  }
}

/** Whether a control is followed that comes up as the preset says. */
function loadsAny(device: ModelDevice, { loads }: ModelPresets, store: Store): boolean {
  for (let i = 0; i < loads.length; i += 1)
    if (store.has(loads[i].variable) && loadedAtPowerUp(device, loads[i])) return true;
  return false;
}

function presetAfterPowerUp(
  model: StateModel,
  device: ModelDevice,
  after: PowerUp,
  store: Store,
  first: boolean,
  fork: Choose,
): number {
  const { presets: own } = device;
  const override = device.wired.device.powerUps['preset'] ?? after;
  if (override.is === 'value') return model.values.id(override.value);
  if (override.is === 'last-state' && !first) return store.get(own!.variable);
  return fork(own!.numberIds(), own!.variable);
}

/** A stored control comes up with its preset's value unless the type says that edits survive the power going. */
export const loadedAtPowerUp = (device: ModelDevice, control: ModelControl): boolean =>
  powerUpOf(device.wired, control.control).is !== 'last-state';

function literalPowerUp(model: StateModel, device: ModelDevice, control: ModelControl): number {
  const after = powerUpOf(device.wired, control.control);
  return after.is === 'value' ? model.values.id(after.value) : control.options[0];
}

const isLoaded = (device: ModelDevice, control: ModelControl): boolean =>
  (device.presets?.loads.includes(control) ?? false) && loadedAtPowerUp(device, control);

/**
 * The value that a control surely comes up with, whatever else does; negative where there is a choice, or something
 * else decides.
 */
export function comesUpAs({ values, variables, devices }: StateModel, variable: VariableId): number {
  const { kind, owner, part } = variables[variable];
  const device = devices[owner];
  const control = kind === 'control' ? device.controls.get(part) : undefined;
  if (!control || control.bits.length > 0 || isLoaded(device, control)) return noValue;
  const after = powerUpOf(device.wired, control.control);
  return after.is === 'value' ? values.id(after.value) : noValue;
}

function powerUpControl(
  model: StateModel,
  device: ModelDevice,
  control: ModelControl,
  store: Store,
  first: boolean,
  fork: Choose,
): void {
  if (!store.has(control.variable) || isLoaded(device, control)) return;
  if (control.bits.length > 0) {
    store.set(control.variable, ruledBy(model.values, store, control));
    return;
  }
  const after = powerUpOf(device.wired, control.control);
  if (after.is === 'value') store.set(control.variable, model.values.id(after.value));
  else if (after.is === 'any' || first) store.set(control.variable, fork(control.options, control.variable));
}

function controller(model: StateModel, device: ModelDevice, store: Store): void {
  const own = device.controller;
  if (!own) return;
  const { values } = model;
  const none = values.id('');
  const clear = (variable: VariableId, value: ValueId) => {
    if (variable >= 0) store.set(variable, value);
  };
  clear(own.bank, values.id(0));
  clear(own.currentSlot, none);
  clear(own.previousSlot, none);
  for (const variable of own.held.values()) clear(variable, values.id(0));
  for (const variable of own.belief.values()) clear(variable, values.id(0));
  for (const variable of own.saved.values()) clear(variable, none);
  for (const [id, variable] of own.contact) clear(variable, values.id(restOf(own.facts, id)));
}
