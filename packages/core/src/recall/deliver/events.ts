import type { MidiMessage } from '../../midi/message.ts';
import { type FootSwitch, restOf } from '../../model/anatomy.ts';
import { memoised } from '../../model/memo.ts';
import { PlannedSwitches } from '../../model/planned-switches.ts';
import type { CastAction, ControlRef } from '../../model/rig.ts';
import { assertNever } from '../../units/problem.ts';
import { foot } from '../device/foot.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import type { ModelDevice, ModelSlot, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import { leavesRest, setContact } from './contacts.ts';
import type { Delivery } from './delivery.ts';

/** Something that can happen to the rig between two silences. */
export type RigEvent =
  | { readonly kind: 'press'; readonly slot: ModelSlot }
  | { readonly kind: 'bank'; readonly controller: ModelDevice; readonly by: 1 | -1 }
  | { readonly kind: 'hold'; readonly controller: ModelDevice; readonly momentary: string }
  | { readonly kind: 'release'; readonly controller: ModelDevice; readonly momentary: string }
  | { readonly kind: 'foot'; readonly device: ModelDevice; readonly footSwitch: FootSwitch; readonly stray: boolean }
  | { readonly kind: 'cue'; readonly control: ControlRef; readonly variable: VariableId; readonly value: ValueId }
  | {
      readonly kind: 'outside';
      readonly device: ModelDevice;
      readonly message: Extract<MidiMessage, { readonly kind: 'program' }>;
    }
  | { readonly kind: 'restart'; readonly device: ModelDevice };

/** Whether a foot can do this now. Reads nothing that the store does not hold unless it must. */
export function enabled(model: StateModel, event: RigEvent, store: Store): boolean {
  const { values } = model;
  const isHeld = (variable: VariableId) => values.number(store.get(variable)) === 1;
  switch (event.kind) {
    case 'press': {
      const controller = model.device.get(event.slot.slot.controller)!.controller!;
      if (!controller.facts.firesWhileHeld && [...controller.held.values()].some(isHeld)) return false;
      const counts = controller.facts.bankMove === 'fires' || store.has(controller.bank);
      return !counts || values.number(store.get(controller.bank)) === event.slot.slot.bank;
    }
    case 'hold':
      return !isHeld(event.controller.controller!.held.get(event.momentary)!);
    case 'release':
      return isHeld(event.controller.controller!.held.get(event.momentary)!);
    case 'bank':
    case 'foot':
    case 'cue':
    case 'outside':
    case 'restart':
      return true;
    default:
      return assertNever(event, 'event');
  }
}

/** Starts an event in a delivery; it is over when the delivery has settled. Restarts are in power.ts. */
export function begin(model: StateModel, event: Exclude<RigEvent, { kind: 'restart' }>, delivery: Delivery): void {
  switch (event.kind) {
    case 'press':
      delivery.press(event.slot);
      return;
    case 'bank':
      delivery.moveBank(event.controller, event.by);
      return;
    case 'hold':
      momentary(model, event.controller, event.momentary, 1, delivery);
      return;
    case 'release':
      momentary(model, event.controller, event.momentary, 0, delivery);
      return;
    case 'foot':
      for (const action of event.footSwitch.actions) delivery.emit(foot(model, event.device, action), 0, []);
      return;
    case 'cue':
      delivery.write(event.variable, event.value, 0, []);
      return;
    case 'outside':
      delivery.arrive(event.device, event.message, 0, []);
      return;
    default:
      assertNever(event, 'event');
  }
}

function momentary(model: StateModel, device: ModelDevice, id: string, to: 0 | 1, delivery: Delivery): void {
  const controller = device.controller!;
  const actions = controller.momentaries.get(id) ?? { press: [], release: [] };
  delivery.write(controller.held.get(id)!, model.values.id(to), 0, []);
  if (to === 1) delivery.perform(device, controller, actions.press, 0, [], 'stay');
  else {
    for (const action of actions.press)
      if (action.kind === 'contact' && leavesRest(controller, action))
        setContact(delivery, controller, action.contact, restOf(controller.facts, action.contact), 0, []);
    delivery.perform(device, controller, actions.release, 0, [], 'stay');
  }
}

/** Models that differ only in what slots do are cast alike. */
const plannedSwitches = memoised(
  ({ modelMemo }: StateModel) => modelMemo,
  ({ wiring }) => new PlannedSwitches(wiring.rig),
);

/** Whether a foot is planned on a switch: by the device itself, or before or after some part. */
const isPlanned = (
  model: StateModel,
  device: ModelDevice,
  footSwitch: FootSwitch,
  derived: readonly CastAction[],
): boolean =>
  plannedSwitches(model).has(device.wired.device, footSwitch.id) ||
  derived.some((action) => action.kind === 'foot' && action.device === device.id && action.switch === footSwitch.id);

const castActions = (model: StateModel): readonly CastAction[] =>
  Object.values(model.wiring.rig.casting).flatMap((cast) => [...cast.before, ...cast.after]);

export function eventOfCast(model: StateModel, action: CastAction): RigEvent | undefined {
  if (action.kind === 'cue') {
    const variable = model.variableOf.get(action.control);
    return variable === undefined
      ? undefined
      : { kind: 'cue', control: action.control, variable, value: model.values.id(action.value) };
  }
  const device = model.device.get(action.device);
  const footSwitch = device?.wired.anatomy.switches.find((footSwitch) => footSwitch.id === action.switch);
  return device && footSwitch ? { kind: 'foot', device, footSwitch, stray: false } : undefined;
}

/** A foot on a switch that nobody planned. */
export const isStray = (event: RigEvent): boolean => event.kind === 'foot' && event.stray;

/**
 * Everything that level 2 allows, in document order by kind; slots set aside are left out by the caller. `derived`:
 * what feet and hands do for parts without a slot, which is planned too.
 */
export function ordinaryEvents(model: StateModel, derived: readonly CastAction[]): readonly RigEvent[] {
  const controllers = model.devices.filter((device) => device.controller);
  const feet = model.devices.flatMap((device) =>
    device.wired.anatomy.switches.map((footSwitch) => ({ device, footSwitch })),
  );
  const cues = new Map<string, RigEvent>();
  for (const action of [...castActions(model), ...derived]) {
    const event = action.kind === 'cue' ? eventOfCast(model, action) : undefined;
    if (event?.kind === 'cue') cues.set(`${event.control}=${event.value}`, event);
  }
  return [
    ...model.slots.map((slot): RigEvent => ({ kind: 'press', slot })),
    ...controllers
      .filter((controller) => controller.controller!.facts.banks > 1)
      .flatMap((controller): RigEvent[] => [
        { kind: 'bank', controller, by: 1 },
        { kind: 'bank', controller, by: -1 },
      ]),
    ...controllers.flatMap((controller) =>
      [...controller.controller!.held.keys()].flatMap((id): RigEvent[] => [
        { kind: 'hold', controller, momentary: id },
        { kind: 'release', controller, momentary: id },
      ]),
    ),
    ...feet
      .filter(({ device, footSwitch }) => isPlanned(model, device, footSwitch, derived))
      .map((item): RigEvent => ({ kind: 'foot', ...item, stray: false })),
    ...cues.values(),
    ...Object.values(model.wiring.rig.outside).flatMap((change): RigEvent[] => {
      const device = model.device.get(change.device);
      return device
        ? [{ kind: 'outside', device, message: { kind: 'program', channel: change.channel, program: change.program } }]
        : [];
    }),
  ];
}

export function strayEvents(model: StateModel, derived: readonly CastAction[]): readonly RigEvent[] {
  return model.devices.flatMap((device) =>
    device.wired.anatomy.switches
      .filter((footSwitch) => !isPlanned(model, device, footSwitch, derived))
      .map((footSwitch): RigEvent => ({ kind: 'foot', device, footSwitch, stray: true })),
  );
}

export const restartEvents = (model: StateModel): readonly RigEvent[] =>
  model.devices.map((device): RigEvent => ({ kind: 'restart', device }));
