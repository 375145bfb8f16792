import { bankSelectLsb, bankSelectMsb } from '../midi/message.ts';
import { type Anatomy, type Control, type ControlValue, presetExists, valueSetBy } from '../model/anatomy.ts';
import { controlRef } from '../model/documents.ts';
import { memoised } from '../model/memo.ts';
import type { Action, ControlRef, Slot, Sound } from '../model/rig.ts';
import { type Loop, loopsOf } from '../model/switching.ts';
import { type Wants, wantsOf } from '../model/wants.ts';
import { numberIn, ownerOf, powerUpOf, type WiredDevice, type Wiring } from '../model/wiring.ts';
import { assertNever } from '../units/problem.ts';

/** Why an action is there. */
export type Intent =
  | { readonly kind: 'by-hand' }
  | { readonly kind: 'loop'; readonly wanted: boolean; readonly holds: readonly string[] }
  | { readonly kind: 'want'; readonly ref: ControlRef; readonly value: ControlValue }
  /** Stored in every slot, and the sound does not care: put as the type comes up. */
  | { readonly kind: 'unsaid' }
  /** All places of an order at once. */
  | { readonly kind: 'order'; readonly device: string; readonly wanted: boolean }
  | { readonly kind: 'bank'; readonly device: string; readonly preset: number }
  | { readonly kind: 'loading'; readonly device: string };

/** One action with the intent that it came from. */
export interface Step {
  readonly action: Action;
  readonly intent: Intent;
}
export type SlotActions = readonly Step[];

const byHand: Intent = { kind: 'by-hand' };

/**
 * Compiles slots to actions: loops and what else the slots store, contacts, then for each device bank → program →
 * wait → overrides. A slot written by hand is taken as it stands. What is the same in many slots is the same object.
 */
export function compiler(wiring: Wiring): (slot: Slot) => SlotActions {
  const { sounds } = wiring.rig;
  const steps = new Steps();
  return (slot) => {
    if (slot.actions !== null) return slot.actions.map((action) => ({ action, intent: byHand }));
    const sound: Sound | undefined = slot.sound === null ? undefined : sounds[slot.sound];
    const controller = wiring.device.get(slot.controller);
    if (!sound || !controller) return [];
    const wants = wantsOf(wiring, sound);
    const plan = planOf(wiring, controller);
    steps.begin();
    const [from, to] = plan.loopsOf(slot.position);
    for (let i = from; i < to; i += 1) {
      const loop = plan.loops[i];
      const wanted = wants.of(loop.number);
      steps.push(wanted === undefined ? loop.unsaid : wanted === 1 ? loop.in : loop.out);
    }
    for (const { number, ref, control, unsaid } of plan.stored) {
      const value = wants.of(number);
      if (value !== undefined)
        steps.push({ action: { kind: 'set', control, value }, intent: { kind: 'want', ref, value } });
      else if (unsaid) steps.push(unsaid);
    }
    if (plan.contacts.length > 0)
      for (let i = 0; i < wants.controls.length; i += 1)
        for (const step of plan.contacts[wants.controls[i]]?.get(wants.controlValues[i]) ?? none) steps.push(step);
    for (let i = 0; i < plan.devices.length; i += 1) pushDeviceSteps(steps, plan.devices[i], wants);
    return steps.list();
  };
}

/** Room for the steps of one slot at a time. */
class Steps {
  private readonly room: Step[] = [];
  private count = 0;

  begin(): void {
    this.count = 0;
  }

  push(step: Step): void {
    this.room[this.count++] = step;
  }

  list(): SlotActions {
    return this.room.slice(0, this.count);
  }
}

const none: readonly never[] = [];

/** What a controller can do, and how it is said. */
interface ControllerPlan {
  /** Every loop of the controller, in or out; one that the sound says nothing about is taken out. */
  readonly loops: readonly { readonly number: number; readonly in: Step; readonly out: Step; readonly unsaid: Step }[];
  /** Which of them the slots at a position store: all, or those of its group. */
  readonly loopsOf: (position: number) => readonly [from: number, to: number];
  /** Other controls of its own that its slots store; one that the sound says nothing about is put as it comes up. */
  readonly stored: readonly {
    readonly number: number;
    readonly ref: ControlRef;
    readonly control: string;
    readonly unsaid: Step | undefined;
  }[];
  /**
   * By control, contacts that bring a wanted value about: the bits of the device's table, through the contacts wired to
   * its inputs.
   */
  readonly contacts: readonly (ReadonlyMap<ControlValue, readonly Step[]> | undefined)[];
  /** Devices that its messages arrive at. */
  readonly devices: readonly DevicePlan[];
}

/** By controller. */
const plansOf = memoised(
  ({ wiringMemo }: Wiring) => wiringMemo,
  () => new Map<string, ControllerPlan>(),
);

/** Made once for a controller that is wired as it is. */
function planOf(wiring: Wiring, controller: WiredDevice): ControllerPlan {
  const known = plansOf(wiring);
  let plan = known.get(controller.device.id);
  if (!plan) known.set(controller.device.id, (plan = planned(wiring, controller, loopsOf(wiring))));
  return plan;
}

function planned(wiring: Wiring, controller: WiredDevice, loops: readonly Loop[]): ControllerPlan {
  const { id } = controller.device;
  const holds = new Map(loops.map((loop) => [loop.ref, loop.holds]));
  const reach = midiReach(wiring, id);
  const own = new Set(controller.anatomy.controller?.loops);
  return {
    loops: [...own].map((loop) => {
      const ref = controlRef(id, loop);
      const step = (to: 0 | 1, wanted: boolean): Step => ({
        action: { kind: 'set', control: loop, value: to },
        intent: { kind: 'loop', wanted, holds: holds.get(ref) ?? none },
      });
      return {
        number: wiring.controls.numberOf.get(ref)!,
        in: step(1, true),
        out: step(0, true),
        unsaid: step(0, false),
      };
    }),
    loopsOf: (position) => {
      const group = controller.anatomy.controller?.secondGroup;
      if (!group) return [0, own.size];
      return position < group.position ? [0, group.loop] : [group.loop, own.size];
    },
    stored: controller.anatomy.controls
      .filter(({ id: control, scope }) => scope === 'slot' && !own.has(control))
      .map((control) => ({
        number: numberIn(controller, control.id),
        ref: controlRef(id, control.id),
        control: control.id,
        unsaid: unsaidStep(controller, control),
      })),
    contacts: contactsFrom(wiring, id),
    devices: wiring.devices.flatMap((wired) =>
      reach.has(wired.device.id) && wired.device.channel !== null
        ? [devicePlan(wired, wired.device.channel === 'omni' ? 1 : wired.device.channel)]
        : [],
    ),
  };
}

function unsaidStep(controller: WiredDevice, control: Control): Step | undefined {
  const after = powerUpOf(controller, control);
  return after.is === 'value'
    ? { action: { kind: 'set', control: control.id, value: after.value }, intent: { kind: 'unsaid' } }
    : undefined;
}

function contactsFrom(wiring: Wiring, controller: string): ControllerPlan['contacts'] {
  const plan: (ReadonlyMap<ControlValue, readonly Step[]> | undefined)[] = [];
  for (const wired of wiring.devices)
    for (const { id, contacts } of wired.anatomy.controls) {
      if (!contacts) continue;
      const ref = controlRef(wired.device.id, id);
      const links = contacts.inputs.map((input) =>
        wiring.contactLinks.find(
          (contactLink) =>
            contactLink.controller === controller &&
            contactLink.device === wired.device.id &&
            contactLink.input === input,
        ),
      );
      if (!links.some(Boolean)) continue;
      const values = new Map<ControlValue, readonly Step[]>();
      for (const [bits, value] of Object.entries(contacts.table))
        if (!values.has(value))
          values.set(
            value,
            links.flatMap((link, i): Step[] =>
              link
                ? [
                    {
                      action: { kind: 'contact', contact: link.contact, to: bits[i] === '1' ? 1 : 0 },
                      intent: { kind: 'want', ref, value },
                    },
                  ]
                : [],
            ),
          );
      plan[wiring.controls.numberOf.get(ref)!] = values;
    }
  return plan;
}

/** By controller. */
const reachesOf = memoised(
  ({ wiringMemo }: Wiring) => wiringMemo,
  () => new Map<string, ReadonlySet<string>>(),
);

/**
 * Devices that a controller's messages arrive at, whoever passes them on; found once for devices that are wired as they
 * are.
 */
export function midiReach(wiring: Wiring, controller: string): ReadonlySet<string> {
  const known = reachesOf(wiring);
  let reach = known.get(controller);
  if (!reach) known.set(controller, (reach = findReach(wiring, controller)));
  return reach;
}

function findReach(wiring: Wiring, controller: string): ReadonlySet<string> {
  const reached = new Set<string>();
  const queue = wiring.midiLinks
    .filter((link) => link.from === controller && link.port !== 'thru')
    .map((link) => link.to);
  while (queue.length > 0) {
    const here = queue.shift()!;
    if (reached.has(here)) continue;
    reached.add(here);
    queue.push(...wiring.midiLinks.filter((link) => link.from === here && link.port !== 'out').map((link) => link.to));
  }
  return reached;
}

/** What a device can be told by messages. */
interface DevicePlan {
  readonly wired: WiredDevice;
  readonly channel: number;
  readonly preset: number;
  readonly recalls: Map<number, readonly Step[]>;
  readonly overrides: readonly {
    readonly control: Control;
    readonly number: number;
    readonly ref: ControlRef;
    readonly steps: Map<ControlValue, Step | null>;
  }[];
  readonly wait: Step | null;
}

function devicePlan(wired: WiredDevice, channel: number): DevicePlan {
  const { id } = wired.device;
  const { busy } = wired.anatomy;
  return {
    wired,
    channel,
    preset: numberIn(wired, 'preset'),
    recalls: new Map(),
    overrides: wired.anatomy.controls
      .filter((control) => ownerOf(wired, control) === 'programmed')
      .map((control) => ({
        control,
        number: numberIn(wired, control.id),
        ref: controlRef(id, control.id),
        steps: new Map(),
      })),
    wait: busy ? { action: { kind: 'wait', ms: busy.ms }, intent: { kind: 'loading', device: id } } : null,
  };
}

function pushDeviceSteps(steps: Steps, plan: DevicePlan, wants: Wants): void {
  const { wired, wait } = plan;
  const preset = wants.of(plan.preset);
  let isRecalled = false;
  if (typeof preset === 'number') {
    let recall = plan.recalls.get(preset);
    if (!recall) plan.recalls.set(preset, (recall = recallSteps(wired, plan.channel, preset)));
    for (let i = 0; i < recall.length; i += 1) steps.push(recall[i]);
    isRecalled = recall.length > 0;
  }
  for (let i = 0; i < plan.overrides.length; i += 1) {
    const override = plan.overrides[i];
    const value = wants.of(override.number);
    if (value === undefined) continue;
    const { control } = override;
    if (control.scope === 'preset' && typeof preset === 'number' && storedSurely(wired, preset, control.id, value))
      continue;
    let step = override.steps.get(value);
    if (step === undefined) override.steps.set(value, (step = overrideStep(plan, override.ref, control, value)));
    if (!step) continue;
    if (isRecalled && wait) steps.push(wait);
    isRecalled = false;
    steps.push(step);
  }
}

function overrideStep(
  { wired, channel }: DevicePlan,
  ref: ControlRef,
  control: Control,
  value: ControlValue,
): Step | null {
  const message = overrideFor(wired.anatomy, control.id, value);
  return message ? { action: { kind: 'control', channel, ...message }, intent: { kind: 'want', ref, value } } : null;
}

/** The stored value is the wanted one, and a repeated program change reloads it. */
const storedSurely = (wired: WiredDevice, preset: number, control: string, value: ControlValue): boolean =>
  wired.anatomy.presets?.repeat.is === 'reload' && wired.device.presets[String(preset)]?.values[control] === value;

function overrideFor(
  anatomy: Anatomy,
  control: string,
  value: ControlValue,
): { cc: number; value: number } | undefined {
  const message = anatomy.messages.find(
    (message) => message.control === control && (message.mode === 'absolute' || message.mode === 'switch'),
  );
  if (!message) return undefined;
  if (message.mode === 'switch') return { cc: message.cc, value: value === 0 ? 0 : 127 };
  const domain = anatomy.controls.find(({ id }) => id === control)?.domain;
  for (let data = 0; domain !== undefined && data < 128; data += 1)
    if (valueSetBy(message, domain, data) === value) return { cc: message.cc, value: data };
  return undefined;
}

function recallSteps(wired: WiredDevice, channel: number, preset: number): Step[] {
  const facts = wired.anatomy.presets;
  if (!facts || !presetExists(facts, preset))
    return facts ? [programStep(wired, channel, preset, preset % facts.bankSize)] : [];
  const bank = Math.floor(preset / facts.bankSize);
  const select = (cc: number, value: number): Step => ({
    action: { kind: 'control', channel, cc, value },
    intent: { kind: 'bank', device: wired.device.id, preset },
  });
  const program = programStep(wired, channel, preset, preset % facts.bankSize);
  switch (facts.scheme) {
    case 'none':
      return [program];
    case 'msb':
      return [select(bankSelectMsb, bank & 0x7f), program];
    case 'lsb':
      return [select(bankSelectLsb, bank & 0x7f), program];
    case 'both':
      return [select(bankSelectMsb, (bank >> 7) & 0x7f), select(bankSelectLsb, bank & 0x7f), program];
    default:
      return assertNever(facts.scheme, 'scheme');
  }
}

const programStep = (wired: WiredDevice, channel: number, preset: number, program: number): Step => ({
  action: { kind: 'program', channel, program: program & 0x7f },
  intent: { kind: 'want', ref: controlRef(wired.device.id, 'preset'), value: preset },
});
