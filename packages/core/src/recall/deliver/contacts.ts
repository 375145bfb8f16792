import { restOf } from '../../model/anatomy.ts';
import type { Action } from '../../model/rig.ts';
import type { ContactLink } from '../../model/wiring.ts';
import { moveBit } from '../device/contacts.ts';
import { type Update, update } from '../device/update.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { ModelController, ModelDevice, ModelInput, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { LossyPoint } from './losses.ts';

/** What a controller does at once, with no message: its own loops and contacts. */
export type LocalAct =
  | Extract<Action, { readonly kind: 'set' | 'contact' | 'save' | 'restore' }>
  /** A held contact goes back to how it rests. */
  | { readonly kind: 'rest'; readonly contact: string };

/** Whoever carries an event through: does updates, at their times, and says where they can be lost. */
export interface Carrier {
  readonly model: StateModel;
  emit(update: Update, time: number, points: readonly number[]): void;
  write(variable: VariableId, value: ValueId, time: number, points: readonly number[]): void;
  lossy(kind: LossyPoint['kind'], device: ModelDevice): { readonly id: number; readonly lost: boolean };
  actNow(device: ModelDevice, act: LocalAct, now: number, points: readonly number[]): void;
}

const isHeldContact = (controller: ModelController, id: string): boolean =>
  controller.facts.contacts.find((facts) => facts.id === id)?.kind === 'held';

/** Whether an action moves a held contact from its rest: it goes back when the press ends. */
export const leavesRest = (
  controller: ModelController,
  { contact, to }: { readonly contact: string; readonly to: 0 | 1 },
): boolean => isHeldContact(controller, contact) && to !== restOf(controller.facts, contact);

/** Moves a contact as an action says: a pulsed one gives a pulse, others open or close. */
export function moveContact(
  carrier: Carrier,
  controller: ModelController,
  id: string,
  to: 0 | 1,
  time: number,
  points: readonly number[],
): void {
  const facts = controller.facts.contacts.find((contact) => contact.id === id);
  if (!facts) return;
  if (facts.kind !== 'pulsed') return setContact(carrier, controller, id, to, time, points);
  const belief = controller.belief.get(id);
  for (const link of controller.wires.get(id) ?? []) pulse(carrier, link, belief, to, time, points);
  if (belief !== undefined) carrier.write(belief, carrier.model.values.id(to), time, points);
}

/** Opens or closes a latched or held contact: levels follow it, edges answer to its closing. */
export function setContact(
  carrier: Carrier,
  controller: ModelController,
  id: string,
  to: 0 | 1,
  time: number,
  points: readonly number[],
): void {
  const { model } = carrier;
  const contact = controller.contact.get(id);
  if (contact === undefined) return;
  for (const link of controller.wires.get(id) ?? []) {
    const target = model.device.get(link.device)!;
    const input = target.inputs.get(link.input)!;
    if (input.kind === 'level') carrier.emit(moveBit(model, target, input, to), time, points);
    else if (to === 1) closing(carrier, target, input, contact, time, points);
  }
  carrier.write(contact, model.values.id(to), time, points);
}

function pulse(
  carrier: Carrier,
  link: ContactLink,
  belief: number | undefined,
  to: 0 | 1,
  time: number,
  points: readonly number[],
): void {
  const { model } = carrier;
  const device = model.device.get(link.device)!;
  const input = device.inputs.get(link.input)!;
  const point = carrier.lossy('edge', device);
  if (point.lost) return;
  const believed = model.values.id(to);
  const moves =
    input.kind === 'edge'
      ? [moveBit(model, device, input, 'flip')]
      : [moveBit(model, device, input, 1), moveBit(model, device, input, 0)];
  for (const move of moves) {
    const made = belief === undefined ? move : onlyIf(move, (store) => store.get(belief) !== believed);
    carrier.emit(made, time, [...points, point.id]);
  }
}

function closing(
  carrier: Carrier,
  target: ModelDevice,
  input: ModelInput,
  contact: number,
  time: number,
  points: readonly number[],
): void {
  const point = carrier.lossy('edge', target);
  if (point.lost) return;
  const open = carrier.model.values.id(0);
  const move = onlyIf(moveBit(carrier.model, target, input, 'flip'), (store) => store.get(contact) === open);
  carrier.emit(move, time, [...points, point.id]);
}

/**
 * A move of an input that is made only where something else is so too, which is asked only where the move would be
 * seen.
 */
function onlyIf({ device, writes, apply }: Update, isSo: (store: Store) => boolean): Update {
  return update(device, writes, (store, running, time) =>
    writes.some((variable) => store.has(variable)) && isSo(store) ? apply(store, running, time) : undefined,
  );
}
