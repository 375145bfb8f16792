import {
  type Control,
  controlRef,
  type ControlValue,
  domainLabel,
  isByHand,
  loopsOf,
  listedOrder,
  memoised,
  movedBy,
  orderOf,
  orderRefs,
  orderWords,
  type Sound,
  type StoredOrder,
  switchingOf,
  type WiredDevice,
  type Wiring,
} from '@yunta/core';

/** A cell of the matrix: a sound, and a column. */
export interface Cell {
  readonly row: number;
  readonly column: number;
}

/** A column of the matrix: a piece that is on or off, a control that has a value, or an order. */
export type Column =
  | {
      readonly kind: 'pedal';
      readonly key: string;
      readonly device: string;
      readonly name: string;
      readonly note: string;
    }
  | {
      readonly kind: 'preset';
      readonly key: string;
      readonly device: string;
      readonly name: string;
      readonly note: string;
      readonly ref: string;
      readonly firstPresetNumber: 0 | 1;
    }
  | {
      readonly kind: 'control';
      readonly key: string;
      readonly device: string;
      readonly name: string;
      readonly note: string;
      readonly ref: string;
      readonly control: Control;
      readonly byHand: boolean;
    }
  | {
      readonly kind: 'order';
      readonly key: string;
      readonly device: string;
      readonly name: string;
      readonly note: string;
      readonly order: StoredOrder;
      readonly refs: readonly string[];
    };

/**
 * What a sound may ask for on this rig: every piece with a loop or a switch of its own, then presets and other
 * controls, last what hands do. Found once a wiring.
 */
export const columnsOf = memoised(({ displayMemo }: Wiring) => displayMemo, findColumns);

function findColumns(wiring: Wiring): readonly Column[] {
  const loops = loopsOf(wiring);
  const switching = switchingOf(wiring);
  const loopNumber = new Map(
    loops.map((loop) => [
      loop.ref,
      wiring.device.get(loop.controller)!.control.get(loop.control)!.label.replace('Loop ', 'L'),
    ]),
  );
  const pedals = wiring.devices.flatMap(({ device }): Column[] => {
    const { loop, own } = switching.get(device.id) ?? {};
    if (loop === undefined && own === undefined) return [];
    return [
      {
        kind: 'pedal',
        key: device.id,
        device: device.id,
        name: device.name,
        note: loop === undefined ? 'own' : (loopNumber.get(loop) ?? ''),
      },
    ];
  });
  const values = wiring.devices.flatMap((wired): Column[] => {
    const { device, anatomy } = wired;
    const presets: Column[] = anatomy.presets
      ? [
          {
            kind: 'preset',
            key: `${device.id}/preset`,
            device: device.id,
            name: device.name,
            note: 'PC',
            ref: controlRef(device.id, 'preset'),
            firstPresetNumber: device.firstPresetNumber,
          },
        ]
      : [];
    const orders = (anatomy.orders ?? [])
      .filter(({ of }) => wired.control.get(of[0].control)!.scope === 'slot')
      .map((order): Column => ({
        kind: 'order',
        key: controlRef(device.id, order.id),
        device: device.id,
        name: device.name,
        note: 'order',
        order,
        refs: orderRefs(device.id, order),
      }));
    const others = anatomy.controls
      .filter(
        (control) =>
          control.id !== anatomy.ownSwitch &&
          !anatomy.controller?.loops.includes(control.id) &&
          !orderOf(anatomy, control.id) &&
          isReached(wired, control) &&
          !(control.owner === 'foot' && control.weight === 'mute'),
      )
      .map((control): Column => ({
        kind: 'control',
        key: controlRef(device.id, control.id),
        device: device.id,
        name: device.name,
        note: control.label.toLowerCase(),
        ref: controlRef(device.id, control.id),
        control,
        byHand: isByHand(device, control),
      }));
    return [...presets, ...orders, ...others];
  });
  const hands = values.filter((column) => column.kind === 'control' && column.byHand);
  return [...pedals, ...values.filter((column) => !hands.includes(column)), ...hands];
}

/** Whether anything but a preset moves it: what a preset alone keeps is entered there and not asked for by a sound. */
const isReached = ({ device, anatomy }: WiredDevice, control: Control): boolean =>
  control.scope !== 'preset' ||
  isByHand(device, control) ||
  control.contacts !== undefined ||
  anatomy.messages.some((message) => message.control === control.id) ||
  anatomy.switches.some(({ actions }) => actions.some((action) => movedBy(action) === control.id));

/**
 * Pixels that a column needs: its longest word, or its longest value. Fixed, so that an edit lays out one cell and not
 * the table.
 */
export function widthOf(column: Column): number {
  const words = `${column.name} ${column.note}`.split(/\s+/).map((word) => word.length * 6.3 + 10);
  if (column.kind === 'order') return Math.round(Math.min(190, listedWords(column.order).length * 7.4 + 14));
  const values =
    column.kind === 'control' && column.control.domain.kind === 'choice'
      ? column.control.domain.values.map((value) => String(value).length * 7.4 + 12)
      : [];
  return Math.round(Math.min(110, Math.max(36, ...words, ...values)));
}

/** All columns, or those in which some sound differs from another. */
export const shownColumns = (
  columns: readonly Column[],
  sounds: readonly Sound[],
  onlyDiffering: boolean,
): readonly Column[] =>
  onlyDiffering && sounds.length > 1
    ? columns.filter((column) => sounds.some((sound) => valueIn(sound, column) !== valueIn(sounds[0], column)))
    : columns;

/** A cell's value; undefined where the sound don’t care. */
export const valueIn = (sound: Sound, column: Column): ControlValue | 'on' | 'off' | undefined =>
  column.kind === 'pedal'
    ? sound.pedals[column.device]
    : column.kind === 'order'
      ? orderIn(sound, column)
      : sound.wants[column.ref];

/** Whether a piece that is wanted off may be heard all the same. */
export const isTolerated = (sound: Sound, column: Column): boolean =>
  column.kind === 'pedal' &&
  sound.pedals[column.device] === 'off' &&
  (sound.tolerates?.some((device) => device === column.device) ?? false);

function orderIn(sound: Sound, { order, device }: Extract<Column, { kind: 'order' }>): string | undefined {
  return orderWords(order, (control) => sound.wants[controlRef(device, control)]);
}

/** An order as it is where nobody told anything. */
export function listedWords(order: StoredOrder): string {
  const listed = listedOrder(order);
  return orderWords(order, (control) => listed.get(control))!;
}

/** As people read it: presets by panel number, switches by word. */
export function shownValue(column: Column, value: ControlValue | undefined): string {
  if (value === undefined) return '–';
  if (column.kind === 'preset') return String(Number(value) + column.firstPresetNumber);
  return domainLabel(column.kind === 'control' ? column.control.domain : undefined, value);
}
