import { type Anatomy, type Control, type Jack, socketOf } from './anatomy.ts';
import { anatomiesOf } from './archetypes/registry.ts';
import { controlRef, inOrder, splitRef } from './documents.ts';
import { jackFacts } from './jack-kinds.ts';
import { jacksOf } from './jacks.ts';
import { Memo } from './memo.ts';
import { type Cable, type ControlRef, type Device, displayOnly, type Plug, type Rig } from './rig.ts';

/** A rig with its anatomies expanded and its cables sorted by what they carry: made once, asked often. */
export interface Wiring {
  readonly rig: Rig;
  /**
   * What is kept of what turns only on the ways of signal and messages, and on names: the very same for wirings that
   * differ in nothing else.
   */
  readonly wiringMemo: Memo;
  /** What is kept of what turns on how the devices are told, too. */
  readonly displayMemo: Memo;
  /** In document order. */
  readonly devices: readonly WiredDevice[];
  readonly device: ReadonlyMap<string, WiredDevice>;
  readonly controls: Controls;
  readonly signalCables: readonly Cable[];
  readonly midiLinks: readonly MidiLink[];
  readonly contactLinks: readonly ContactLink[];
}

/** Every control of a rig, presets among them, numbered in document order. */
export interface Controls {
  readonly refs: readonly ControlRef[];
  readonly numberOf: ReadonlyMap<string, number>;
}

export interface WiredDevice {
  readonly device: Device;
  /** Its place in document order. */
  readonly index: number;
  /** The number of its first control: the others follow in the order of the anatomy, its preset last. */
  readonly firstControl: number;
  readonly anatomy: Anatomy;
  readonly jack: ReadonlyMap<string, Jack>;
  readonly control: ReadonlyMap<string, Control>;
  /** Jacks that hold a plug. */
  readonly plugged: ReadonlySet<string>;
}

export interface MidiLink {
  readonly cable: string;
  readonly from: string;
  readonly port: 'out' | 'thru' | 'merge';
  readonly to: string;
}

export interface ContactLink {
  readonly cable: string;
  readonly controller: string;
  readonly contact: string;
  readonly device: string;
  readonly input: string;
}

/** A plug is in the whole socket, also where only one of its poles goes on. */
function inSockets({ jacks }: Anatomy, plugged: ReadonlySet<string>): ReadonlySet<string> {
  if (plugged.size === 0 || !jacks.some((jack) => jack.shares !== undefined)) return plugged;
  return new Set(
    jacks.filter((jack) => plugged.has(jack.id)).flatMap((jack) => socketOf(jacks, jack).map(({ id }) => id)),
  );
}

export function buildWiring(rig: Rig): Wiring {
  const plugged = new Map<string, Set<string>>();
  for (const cable of Object.values(wiredCables(rig)))
    for (const plug of cable.plugs) setOf(plugged, plug.device).add(plug.jack);
  const ordered = inOrder(rig.devices);
  const anatomies = anatomiesOf(ordered.map(({ type }) => type));
  const refs: ControlRef[] = [];
  const devices = ordered.map((device, index): WiredDevice => {
    const anatomy = anatomies[index];
    const firstControl = refs.length;
    for (const control of anatomy.controls) refs.push(controlRef(device.id, control.id));
    if (anatomy.presets) refs.push(controlRef(device.id, 'preset'));
    return {
      device,
      index,
      firstControl,
      anatomy,
      jack: jacksById(device, anatomy),
      control: namesIn(anatomy).control,
      plugged: inSockets(anatomy, plugged.get(device.id) ?? nothing),
    };
  });
  const device = new Map(devices.map((wired) => [wired.device.id, wired]));
  const cables = inOrder(rig.cables);
  return {
    rig,
    wiringMemo: new Memo(),
    displayMemo: new Memo(),
    devices,
    device,
    controls: { refs, numberOf: new Map(refs.map((ref, number) => [ref, number])) },
    signalCables: cables.filter((cable) => cable.kind === 'signal' || cable.kind === 'speaker'),
    midiLinks: cables.filter((cable) => cable.kind === 'midi').flatMap((cable) => midiLinksOf(cable, device)),
    contactLinks: cables.filter((cable) => cable.kind === 'contact').flatMap((cable) => contactLinksOf(cable, device)),
  };
}

const nothing: ReadonlySet<string> = new Set();

interface Names extends Pick<WiredDevice, 'jack' | 'control'> {
  /** The places of controls among the device's own, its preset's last. */
  readonly place: ReadonlyMap<string, number>;
}
const named = new WeakMap<Anatomy, Names>();

/** Jacks and controls by id, found once for all devices of a kind. */
function namesIn(anatomy: Anatomy): Names {
  let names = named.get(anatomy);
  if (!names) {
    const { jacks, controls, presets } = anatomy;
    const place = new Map(controls.map((control, i) => [control.id, i]));
    if (presets) place.set('preset', controls.length);
    named.set(
      anatomy,
      (names = {
        jack: new Map(jacks.map((jack) => [jack.id, jack])),
        control: new Map(controls.map((control) => [control.id, control])),
        place,
      }),
    );
  }
  return names;
}

/**
 * Whether two rigs are the same to signal and messages: what differs is only shown (`displayOnly`).
 */
export function isWiredAlike(a: Rig, b: Rig): boolean {
  if (a.devices === b.devices && a.cables === b.cables) return true;
  return (
    sameEntries(a.devices, b.devices, (before, after) => sameBut(before, after, displayOnly.devices, isTypeAlike)) &&
    sameEntries(wiredCables(a), wiredCables(b), (before, after) => sameBut(before, after, displayOnly.cables))
  );
}

/** Cables other than those of power, in whose plugs no signal and no message has a part. */
function wiredCables({ cables }: Rig): Rig['cables'] {
  let wired = withoutPower.get(cables);
  if (!wired) {
    const all = Object.entries(cables);
    const rest = all.filter(([, { kind }]) => kind !== 'power' && kind !== 'mains');
    withoutPower.set(cables, (wired = rest.length === all.length ? cables : Object.fromEntries(rest)));
  }
  return wired;
}
const withoutPower = new WeakMap<Rig['cables'], Rig['cables']>();

/** Whether two types are the same but for their power. */
const isTypeAlike = (a: Device, b: Device): boolean =>
  a.type.archetype === b.type.archetype && a.type.params === b.type.params && a.type.name === b.type.name;

/** Whether two entries have the very same fields, some aside; `mayDiffer` looks at types that are not the same. */
function sameBut<T extends object>(
  a: T,
  b: T,
  aside: ReadonlySet<keyof T>,
  mayDiffer: (a: T, b: T) => boolean = () => false,
): boolean {
  const fields = (of: T) => (Object.keys(of) as (keyof T)[]).filter((field) => !aside.has(field));
  const mine = fields(a);
  return (
    mine.length === fields(b).length &&
    mine.every((field) => a[field] === b[field] || (field === 'type' && mayDiffer(a, b)))
  );
}

function sameEntries<T>(
  a: Readonly<Record<string, T>>,
  b: Readonly<Record<string, T>>,
  same: (first: T, second: T) => boolean,
): boolean {
  if (a === b) return true;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => Object.hasOwn(b, key) && (a[key] === b[key] || same(a[key], b[key])))
  );
}

/** The wiring of a rig that is wired alike: everything found is taken over, with the devices as they are told now. */
export function relabelled(before: Wiring, rig: Rig): Wiring {
  if (before.rig.devices === rig.devices && before.rig.cables === rig.cables) return { ...before, rig };
  const now = (cable: Cable): Cable => rig.cables[cable.id];
  const signalCables = before.rig.cables === rig.cables ? before.signalCables : before.signalCables.map(now);
  if (before.rig.devices === rig.devices) return { ...before, rig, signalCables };
  const devices = before.devices.map((wired) =>
    wired.device === rig.devices[wired.device.id] ? wired : toldAs(wired, rig.devices[wired.device.id]),
  );
  return {
    ...before,
    rig,
    displayMemo: new Memo(),
    devices,
    device: new Map(devices.map((wired) => [wired.device.id, wired])),
    signalCables,
  };
}

const toldAs = (wired: WiredDevice, device: Device): WiredDevice => ({
  ...wired,
  device,
  jack: device.type === wired.device.type ? wired.jack : jacksById(device, wired.anatomy),
});

/** With the jacks by which it takes and gives power. */
function jacksById({ type }: Device, anatomy: Anatomy): WiredDevice['jack'] {
  const own = namesIn(anatomy).jack;
  if (!type.power) return own;
  let jacks = withPower.get(type);
  if (!jacks) withPower.set(type, (jacks = new Map(jacksOf(type).map((jack) => [jack.id, jack]))));
  return jacks;
}
const withPower = new WeakMap<Device['type'], WiredDevice['jack']>();

function midiLinksOf(cable: Cable, devices: ReadonlyMap<string, WiredDevice>): MidiLink[] {
  const jackOf = (plug: Plug) => devices.get(plug.device)?.jack.get(plug.jack);
  return cable.plugs.flatMap((from) => {
    const jack = jackOf(from);
    const port = jack && jackFacts(jack.kind).midi;
    if (!port) return [];
    return cable.plugs
      .filter((to) => jackOf(to)?.kind === 'midi-in')
      .map((to) => ({ cable: cable.id, from: from.device, port, to: to.device }));
  });
}

function contactLinksOf(cable: Cable, devices: ReadonlyMap<string, WiredDevice>): ContactLink[] {
  const jackOf = (plug: Plug) => devices.get(plug.device)?.jack.get(plug.jack);
  return cable.plugs
    .filter((from) => jackOf(from)?.kind === 'contact-out')
    .flatMap((from) =>
      cable.plugs
        .filter((to) => jackOf(to)?.kind === 'contact-in')
        .map((to) => ({
          cable: cable.id,
          controller: from.device,
          contact: from.jack,
          device: to.device,
          input: to.jack,
        })),
    );
}

function setOf<K>(map: Map<K, Set<string>>, key: K): Set<string> {
  let set = map.get(key);
  if (!set) map.set(key, (set = new Set()));
  return set;
}

/** Stands where there is no such control. */
export const noControl = -1;

/** The place of a control, or of the `preset`, among the device's own, or `noControl`. */
export const placeIn = (anatomy: Anatomy, control: string): number => namesIn(anatomy).place.get(control) ?? noControl;

/** The number of a device's control, or of its `preset`, or `noControl`. */
export const numberIn = ({ firstControl, anatomy }: WiredDevice, control: string): number =>
  numberAt(firstControl, placeIn(anatomy, control));

/** The number of the control at a place of a device whose first is this. */
export const numberAt = (firstControl: number, place: number): number =>
  place === noControl ? noControl : firstControl + place;

export const controlAt = (wiring: Wiring, ref: ControlRef): Control | undefined => {
  const { device, control } = splitRef(ref);
  return wiring.device.get(device)?.control.get(control);
};

/** What the player sets, looking: a cue, never sent. */
export const isByHand = (device: Device, control: Control): boolean =>
  ['hand', 'live'].includes(device.owners[control.id] ?? control.owner);

/** Whether contact inputs rule a control, so that nothing else moves it. */
export const isHeldByContacts = ({ plugged }: WiredDevice, { contacts }: Control): boolean =>
  contacts?.mode === 'hold' &&
  (contacts.onlyWhilePlugged !== true || contacts.inputs.some((input) => plugged.has(input)));

export const ownerOf = (wired: WiredDevice, control: Control) => wired.device.owners[control.id] ?? control.owner;
export const powerUpOf = (wired: WiredDevice, control: Control) => wired.device.powerUps[control.id] ?? control.powerUp;
