import { type Anatomy, type Literal, presetExists } from '../model/anatomy.ts';
import type { Action, ControlRef, Slot, Sound } from '../model/documents.ts';
import { controlRef, splitRef } from '../model/documents.ts';
import { loopsOf, switchingOf, wantsOf } from '../model/switching.ts';
import { ownerOf, type WiredDevice, type Wiring } from '../model/wiring.ts';
import { bankSelectLsb, bankSelectMsb } from '../midi/message.ts';

/** Why an action is there. */
export type Intent =
  | { readonly kind: 'by-hand' }
  | { readonly kind: 'loop'; readonly wanted: boolean; readonly holds: readonly string[] }
  | { readonly kind: 'want'; readonly ref: ControlRef; readonly value: Literal }
  | { readonly kind: 'bank'; readonly device: string; readonly preset: number }
  | { readonly kind: 'loading'; readonly device: string };

/** One action with the intent that it came from. */
export interface Step {
  readonly action: Action;
  readonly intent: Intent;
}
export type SlotActions = readonly Step[];

/**
 * Compiles slots to actions: loops, contacts, then for each device bank → program → wait → overrides.
 * A slot written by hand is taken as it stands.
 */
export function compiler(wiring: Wiring): (slot: Slot) => SlotActions {
  const loops = loopsOf(wiring);
  const switching = switchingOf(wiring, loops);
  const { sounds } = wiring.rig;
  return (slot) => {
    if (slot.actions !== null) return slot.actions.map((action) => ({ action, intent: { kind: 'by-hand' } }));
    const sound: Sound | undefined = slot.sound === null ? undefined : sounds[slot.sound];
    const controller = wiring.device.get(slot.controller);
    if (!sound || !controller) return [];
    const wants = wantsOf(sound, switching);
    return [...loopSteps(controller, wants, loops), ...contactSteps(wiring, controller, wants), ...midiSteps(wiring, controller, wants)];
  };
}

/** Every loop of the controller, in or out; one that the sound says nothing about is taken out. */
function loopSteps(controller: WiredDevice, wants: ReadonlyMap<ControlRef, Literal>, loops: ReturnType<typeof loopsOf>): Step[] {
  return (controller.anatomy.controller?.loops ?? []).map((loop) => {
    const ref = controlRef(controller.device.id, loop);
    const to = wants.get(ref) === 1 ? 1 : 0;
    return { action: { kind: 'loop', loop, to }, intent: { kind: 'loop', wanted: wants.has(ref), holds: loops.find((one) => one.ref === ref)?.holds ?? [] } };
  });
}

/** Contacts that bring a wanted value about: the bits of the device's table, through the contacts wired to its inputs. */
function contactSteps(wiring: Wiring, controller: WiredDevice, wants: ReadonlyMap<ControlRef, Literal>): Step[] {
  return [...wants].flatMap(([ref, value]): Step[] => {
    const { device, control: id } = splitRef(ref);
    const control = wiring.device.get(device)?.control.get(id);
    const bits = Object.entries(control?.contacts?.table ?? {}).find(([, wanted]) => wanted === value)?.[0];
    if (!control?.contacts || bits === undefined) return [];
    return control.contacts.inputs.flatMap((input, i): Step[] => {
      const link = wiring.contactLinks.find((one) => one.controller === controller.device.id && one.device === device && one.input === input);
      return link ? [{ action: { kind: 'contact', contact: link.contact, to: bits[i] === '1' ? 1 : 0 }, intent: { kind: 'want', ref, value } }] : [];
    });
  });
}

function midiSteps(wiring: Wiring, controller: WiredDevice, wants: ReadonlyMap<ControlRef, Literal>): Step[] {
  const reach = midiReach(wiring, controller.device.id);
  return wiring.devices.filter((wired) => reach.has(wired.device.id)).flatMap((wired) => deviceSteps(wired, wants));
}

const reaches = new WeakMap<Wiring, Map<string, ReadonlySet<string>>>();

/** Devices that a controller's messages arrive at, whoever passes them on; found once a wiring. */
export function midiReach(wiring: Wiring, controller: string): ReadonlySet<string> {
  let known = reaches.get(wiring);
  if (!known) reaches.set(wiring, (known = new Map()));
  let reach = known.get(controller);
  if (!reach) known.set(controller, (reach = findReach(wiring, controller)));
  return reach;
}

function findReach(wiring: Wiring, controller: string): ReadonlySet<string> {
  const reached = new Set<string>();
  const queue = wiring.midiLinks.filter((link) => link.from === controller && link.port !== 'thru').map((link) => link.to);
  while (queue.length > 0) {
    const here = queue.shift()!;
    if (reached.has(here)) continue;
    reached.add(here);
    queue.push(...wiring.midiLinks.filter((link) => link.from === here && link.port !== 'out').map((link) => link.to));
  }
  return reached;
}

function deviceSteps(wired: WiredDevice, wants: ReadonlyMap<ControlRef, Literal>): Step[] {
  const { id, channel } = wired.device;
  if (channel === null) return [];
  const sendsOn = channel === 'omni' ? 1 : channel;
  const preset = wants.get(controlRef(id, 'preset'));
  const recall = typeof preset === 'number' ? recallSteps(wired, sendsOn, preset) : [];
  const overrides = wired.anatomy.controls.flatMap((control): Step[] => {
    const ref = controlRef(id, control.id);
    const value = wants.get(ref);
    if (value === undefined || ownerOf(wired, control) !== 'programmed') return [];
    if (control.scope === 'preset' && typeof preset === 'number' && storedSurely(wired, preset, control.id, value)) return [];
    const message = overrideFor(wired.anatomy, control.id, value);
    return message ? [{ action: { kind: 'control', channel: sendsOn, ...message }, intent: { kind: 'want', ref, value } }] : [];
  });
  const wait = wired.anatomy.busy && recall.length > 0 && overrides.length > 0 ? [{ action: { kind: 'wait' as const, ms: wired.anatomy.busy.ms }, intent: { kind: 'loading' as const, device: id } }] : [];
  return [...recall, ...wait, ...overrides];
}

/** The stored value is the wanted one, and a repeated program change reloads it. */
const storedSurely = (wired: WiredDevice, preset: number, control: string, value: Literal): boolean =>
  wired.anatomy.presets?.repeat.is === 'reload' && wired.device.presets[String(preset)]?.values[control] === value;

function overrideFor(anatomy: Anatomy, control: string, value: Literal): { cc: number; value: number } | undefined {
  const message = anatomy.messages.find((one) => one.control === control && (one.mode === 'absolute' || one.mode === 'switch'));
  if (!message) return undefined;
  if (message.mode === 'switch') return { cc: message.cc, value: value === 0 ? 0 : 127 };
  return typeof value === 'number' && value >= 0 && value <= 127 ? { cc: message.cc, value } : undefined;
}

function recallSteps(wired: WiredDevice, channel: number, preset: number): Step[] {
  const facts = wired.anatomy.presets;
  if (!facts || !presetExists(facts, preset)) return facts ? [programStep(wired, channel, preset, preset % facts.bankSize)] : [];
  const bank = Math.floor(preset / facts.bankSize);
  const select = (cc: number, value: number): Step => ({ action: { kind: 'control', channel, cc, value }, intent: { kind: 'bank', device: wired.device.id, preset } });
  const banks: Record<typeof facts.scheme, Step[]> = {
    none: [],
    msb: [select(bankSelectMsb, bank & 0x7f)],
    lsb: [select(bankSelectLsb, bank & 0x7f)],
    both: [select(bankSelectMsb, (bank >> 7) & 0x7f), select(bankSelectLsb, bank & 0x7f)],
  };
  return [...banks[facts.scheme], programStep(wired, channel, preset, preset % facts.bankSize)];
}

const programStep = (wired: WiredDevice, channel: number, preset: number, program: number): Step => ({
  action: { kind: 'program', channel, program: program & 0x7f },
  intent: { kind: 'want', ref: controlRef(wired.device.id, 'preset'), value: preset },
});
