import { encode, hex, wireMicroseconds } from '../midi/message.ts';
import { splitRef } from '../model/documents.ts';
import { deviceName, domainLabel, panelNumber, valueLabel } from '../model/labels.ts';
import type { Action, Slot } from '../model/rig.ts';
import { loopsOf } from '../model/switching.ts';
import type { Wiring } from '../model/wiring.ts';
import { assertNever } from '../units/problem.ts';
import { compiler, type Intent, type Step } from './compile.ts';
import { withOrders } from './stored-orders.ts';

/** One line of what a slot does: hex where it is sent, plain words, and why it is there. */
export interface ListedAction {
  readonly action: Action;
  readonly hex: string;
  readonly words: string;
  readonly why: string;
  /** The device that it is for, where that is known: wanted of it, or the first in the loop. */
  readonly about: string | null;
  readonly microseconds: number;
}

export interface ListedSlot {
  readonly actions: readonly ListedAction[];
  readonly bytes: number;
  readonly microseconds: number;
}

/** `asWritten`: action by action, as a slot that was written by hand is edited; else an order of many places is one. */
export function listSlot(wiring: Wiring, slot: Slot, asWritten = false): ListedSlot {
  const controller = wiring.device.get(slot.controller);
  const steps = compiler(wiring)(slot);
  const actions = (asWritten || !controller ? steps : withOrders(controller, steps)).map((step) =>
    listed(wiring, slot.controller, step),
  );
  const bytes = actions.reduce((sum, action) => sum + (action.hex === '' ? 0 : action.hex.split(' ').length), 0);
  return { actions, bytes, microseconds: wireMicroseconds(bytes) };
}

/** What actions of a controller that somebody wrote by hand say and send. */
export const listActions = (wiring: Wiring, controller: string, actions: readonly Action[]): readonly ListedAction[] =>
  actions.map((action) => listed(wiring, controller, { action, intent: { kind: 'by-hand' } }));

function listed(wiring: Wiring, controller: string, { action, intent }: Step): ListedAction {
  const bytes = action.kind === 'program' || action.kind === 'control' ? encode(action) : [];
  return {
    action,
    hex: hex(bytes),
    words: wordsOf(wiring, controller, action),
    why: whyOf(wiring, intent),
    about: aboutOf(wiring, controller, action, intent),
    microseconds: wireMicroseconds(bytes.length),
  };
}

const listeners = (wiring: Wiring, channel: number): string =>
  wiring.devices
    .filter((wired) => wired.device.channel === channel || wired.device.channel === 'omni')
    .map((wired) => wired.device.name)
    .join(', ') || 'nobody';

function wordsOf(wiring: Wiring, controller: string, action: Action): string {
  const own = wiring.device.get(controller);
  const label = (id: string) =>
    own?.control.get(id)?.label ?? own?.anatomy.orders?.find((order) => order.id === id)?.label ?? id;
  switch (action.kind) {
    case 'program': {
      const heard = wiring.devices.filter(
        (wired) => wired.device.channel === action.channel || wired.device.channel === 'omni',
      );
      const panel = heard.length === 1 ? ` (panel ${action.program + heard[0].device.firstPresetNumber})` : '';
      return `Program ${action.program}${panel}, channel ${action.channel}: ${listeners(wiring, action.channel)}`;
    }
    case 'control':
      return `Control ${action.cc} = ${action.value}, channel ${action.channel}: ${listeners(wiring, action.channel)}`;
    case 'set':
      return `${label(action.control)} ${domainLabel(own?.control.get(action.control)?.domain, action.value)}`;
    case 'contact':
      return `${own?.jack.get(action.contact)?.label ?? action.contact} ${action.to === 1 ? 'closed' : 'open'}`;
    case 'wait':
      return `Wait ${action.ms} ms`;
    case 'save':
      return `Remember ${label(action.control)}`;
    case 'restore':
      return `${label(action.control)} as remembered`;
    default:
      return assertNever(action, 'action');
  }
}

function aboutOf(wiring: Wiring, controller: string, action: Action, intent: Intent): string | null {
  if (intent.kind === 'want') return splitRef(intent.ref).device;
  if (intent.kind === 'order') return intent.device;
  if (intent.kind === 'unsaid') return controller;
  if (intent.kind === 'bank' || intent.kind === 'loading') return intent.device;
  if (intent.kind === 'loop') return intent.holds[0] ?? null;
  if (action.kind === 'program' || action.kind === 'control')
    return wiring.devices.find((wired) => wired.device.channel === action.channel)?.device.id ?? null;
  if (action.kind === 'set')
    return (
      loopsOf(wiring).find((loop) => loop.controller === controller && loop.control === action.control)?.holds[0] ??
      null
    );
  if (action.kind === 'contact')
    return (
      wiring.contactLinks.find((link) => link.controller === controller && link.contact === action.contact)?.device ??
      null
    );
  return null;
}

function whyOf(wiring: Wiring, intent: Intent): string {
  switch (intent.kind) {
    case 'by-hand':
      return 'written by hand';
    case 'loop':
      return intent.holds.length === 0
        ? 'nothing in this loop'
        : `${intent.holds.map((id) => deviceName(wiring, id)).join(', ')}: ${intent.wanted ? 'on' : 'off'}`;
    case 'want': {
      const { device, control } = splitRef(intent.ref);
      const wired = wiring.device.get(device);
      const value = valueLabel(wiring, intent.ref, intent.value);
      if (control === 'preset') return `${deviceName(wiring, device)} wanted on preset ${value}`;
      if (control === wired?.anatomy.ownSwitch) return `${deviceName(wiring, device)} wanted ${value}`;
      const label = wired?.control.get(control)?.label ?? control;
      return `${deviceName(wiring, device)} wanted with ${label.toLowerCase()} ${value}`;
    }
    case 'unsaid':
      return 'as it powers up';
    case 'order':
      return intent.wanted ? `${deviceName(wiring, intent.device)} wanted in this order` : 'as it powers up';
    case 'bank':
      return `bank of ${deviceName(wiring, intent.device)} preset ${panelNumber(wiring, intent.device, intent.preset)}`;
    case 'loading':
      return `${deviceName(wiring, intent.device)} is loading`;
    default:
      return assertNever(intent, 'intent');
  }
}
