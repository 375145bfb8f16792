import { assertNever } from '../units/problem.ts';
import type { Show } from '../model/documents.ts';
import { domainLabel, panelNumber } from '../model/labels.ts';
import type { Action, Slot } from '../model/rig.ts';
import { slotLabel, slotsOfController } from '../model/slots.ts';
import { loopsOf } from '../model/switching.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';
import { displayName } from '../program/display-name.ts';
import { compiler, type Step } from '../program/compile.ts';
import { withOrders } from '../program/stored-orders.ts';
import type { Sheet, SheetLine } from './sheet.ts';
import { settingGroups, slotGroup } from './worksheet.ts';

/**
 * The programming on as little paper as it takes: each device's settings, a matrix of slots by what they set and send,
 * and line by line only the slots that do not fit into it.
 */
export function programmingSheets(show: Show, wiring: Wiring): readonly Sheet[] {
  const settings: Sheet = {
    title: 'Settings',
    about: show.rig.name,
    look: 'list',
    columns: ['Set', 'To', 'Bytes', 'Why'],
    groups: settingGroups(show, wiring),
    notes: [
      'Global settings go back to factory after a repair: check them first.',
      'Numbers are given as the panel shows them; bytes as they are sent, channels 0 to 15 inside the byte.',
    ],
  };
  const matrices = wiring.devices
    .filter(({ device, anatomy }) => anatomy.controller && slotsOfController(show.rig, device.id).length > 0)
    .flatMap((wired) => slotSheets(show, wiring, wired));
  return [...(settings.groups.length > 0 ? [settings] : []), ...matrices];
}

/** A column of the matrix: one loop, contact or message of some kind. */
interface Column {
  readonly key: string;
  readonly label: string;
}

function slotSheets(show: Show, wiring: Wiring, wired: WiredDevice): readonly Sheet[] {
  const { device } = wired;
  const compile = compiler(wiring);
  const slots = slotsOfController(show.rig, device.id).map((slot) => ({
    slot,
    steps: withOrders(wired, compile(slot)),
  }));
  const regular = slots.filter(({ steps }) => isRegular(steps));
  const order = orderOf(regular.map(({ steps }) => keysOf(steps)));
  const fits = ({ steps }: (typeof slots)[number]): boolean =>
    isRegular(steps) && isAscending(keysOf(steps).map((key) => order.indexOf(key)));
  const inMatrix = slots.filter(fits);
  const others = slots.filter((each) => !fits(each));
  const holds = new Map(loopsOf(wiring).map((loop) => [loop.controller === device.id ? loop.control : '', loop.holds]));
  const idle = order.filter((key) => isIdle(key, inMatrix, holds));
  const columns = order
    .filter((key) => !idle.includes(key) && inMatrix.some(({ steps }) => keysOf(steps).includes(key)))
    .map((key): Column => ({ key, label: labelOf(wiring, wired, key, holds) }));
  const waits = new Map(
    inMatrix.flatMap(({ steps }) =>
      steps.flatMap(({ action, intent }) =>
        action.kind === 'wait' && intent.kind === 'loading' ? [[intent.device, action.ms] as const] : [],
      ),
    ),
  );
  const sheet: Sheet = {
    title: `Programming of ${device.name}`,
    about: show.rig.name,
    look: 'matrix',
    columns: ['Slot', 'Sound', ...columns.map(({ label }) => label)],
    groups: [
      {
        heading: `${inMatrix.length} ${inMatrix.length === 1 ? 'slot' : 'slots'}`,
        lines: inMatrix.map(({ slot, steps }) => rowOf(show, wiring, wired, slot, steps, columns)),
      },
    ],
    notes: [
      'Filled: on or closed. Hollow: off or open. A number as the panel shows it, or as it is sent. Empty: nothing is sent.',
      ...(idle.length > 0
        ? [
            `Off in every slot, with nothing in them: ${idle.map((key) => labelOf(wiring, wired, key, new Map())).join(', ')}.`,
          ]
        : []),
      ...[...waits].map(
        ([id, ms]) => `After its program, wait ${ms} ms for ${wiring.device.get(id)?.device.name ?? id} to load.`,
      ),
      ...(columns.length > 1 ? ['In each slot from left to right: that is the order in which it is done.'] : []),
    ],
  };
  const byLine: Sheet = {
    title: `What differs on ${device.name}`,
    about: show.rig.name,
    look: 'list',
    columns: ['Set', 'To', 'Bytes', 'Why'],
    groups: others.map(({ slot }) => slotGroup(show, wiring, wired, slot)),
    notes: [],
  };
  return [...(inMatrix.length > 0 ? [sheet] : []), ...(others.length > 0 ? [byLine] : [])];
}

/** What an action sets or sends, its value aside; null for what has no place in a matrix. */
function keyOf(action: Action): string | null {
  switch (action.kind) {
    case 'set':
      return `set ${action.control}`;
    case 'contact':
      return `contact ${action.contact}`;
    case 'program':
      return `program ${action.channel}`;
    case 'control':
      return `control ${action.channel} ${action.cc}`;
    case 'wait':
    case 'save':
    case 'restore':
      return null;
    default:
      return assertNever(action, 'action');
  }
}

const keysOf = (steps: readonly Step[]): readonly string[] => steps.flatMap(({ action }) => keyOf(action) ?? []);

/** Each thing once, and no waits but those for a program to load. */
const isRegular = (steps: readonly Step[]): boolean =>
  new Set(keysOf(steps)).size === keysOf(steps).length &&
  steps.every(({ action, intent }) => keyOf(action) !== null || (action.kind === 'wait' && intent.kind === 'loading'));

const isAscending = (numbers: readonly number[]): boolean => numbers.every((n, i) => i === 0 || n > numbers[i - 1]);

/** An order of columns that each slot's own order agrees with, as far as they agree with one another (Kahn 1962). */
function orderOf(lists: readonly (readonly string[])[]): readonly string[] {
  const after = new Map<string, Set<string>>();
  for (const list of lists)
    list.forEach((key, i) => {
      const next = after.get(key) ?? new Set();
      after.set(key, next);
      if (i + 1 < list.length) next.add(list[i + 1]);
    });
  const left = new Set(after.keys());
  const order: string[] = [];
  while (left.size > 0) {
    const waits = (key: string) => [...left].some((other) => other !== key && after.get(other)!.has(key));
    const next = [...left].find((key) => !waits(key)) ?? [...left][0];
    left.delete(next);
    order.push(next);
  }
  return order;
}

/** A loop with nothing in it that is off in every slot. */
const isIdle = (
  key: string,
  slots: readonly { readonly steps: readonly Step[] }[],
  holds: ReadonlyMap<string, readonly string[]>,
): boolean =>
  key.startsWith('set loop-') &&
  (holds.get(key.slice(4)) ?? []).length === 0 &&
  slots.every(({ steps }) =>
    steps.every(({ action }) => keyOf(action) !== key || (action.kind === 'set' && action.value === 0)),
  );

function labelOf(
  wiring: Wiring,
  wired: WiredDevice,
  key: string,
  holds: ReadonlyMap<string, readonly string[]>,
): string {
  const [kind, first, second] = key.split(' ');
  const names = (channel: string): string =>
    wiring.devices
      .filter(({ device }) => device.channel === Number(channel) || device.channel === 'omni')
      .map(({ device }) => device.name)
      .join(', ') || `channel ${channel}`;
  switch (kind) {
    case 'set': {
      const inside = (holds.get(first) ?? []).map((id) => wiring.device.get(id)?.device.name ?? id).join(' + ');
      const label =
        wired.control.get(first)?.label ?? wired.anatomy.orders?.find(({ id }) => id === first)?.label ?? first;
      return inside === '' ? label : `${label} ${inside}`;
    }
    case 'contact':
      return wired.jack.get(first)?.label ?? first;
    case 'program':
      return `${names(first)} preset`;
    default:
      return `${names(first)} CC ${second}`;
  }
}

function rowOf(
  show: Show,
  wiring: Wiring,
  wired: WiredDevice,
  slot: Slot,
  steps: readonly Step[],
  columns: readonly Column[],
): SheetLine {
  const actions = new Map(steps.map(({ action }) => [keyOf(action) ?? '', action]));
  const cell = (action: Action | undefined): string => {
    switch (action?.kind) {
      case 'set':
        return mark(domainLabel(wired.control.get(action.control)?.domain, action.value));
      case 'contact':
        return action.to === 1 ? '●' : '○';
      case 'program': {
        const heard = wiring.devices.filter(({ device }) => device.channel === action.channel);
        return String(heard.length === 1 ? panelNumber(wiring, heard[0].device.id, action.program) : action.program);
      }
      case 'control':
        return String(action.value);
      default:
        return '';
    }
  };
  return {
    id: `slot/${slot.id}`,
    cells: [
      slotLabel(slot),
      (slot.sound === null ? 'no sound' : show.rig.sounds[slot.sound].name) + shownWords(show, wired, slot),
      ...columns.map(({ key }) => cell(actions.get(key))),
    ],
  };
}

/** Where the display shows something else than the sound’s name. */
function shownWords(show: Show, { anatomy }: WiredDevice, slot: Slot): string {
  const length = anatomy.controller?.nameLength;
  const name = length === undefined ? null : displayName(show.rig, slot, length);
  return name === null || name === (slot.sound === null ? '' : show.rig.sounds[slot.sound].name) ? '' : ` “${name}”`;
}

const mark = (value: string): string => (value === 'on' ? '●' : value === 'off' ? '○' : value);
