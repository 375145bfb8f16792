import { accept, pointer, problem, type Problem, type Result } from '../units/problem.ts';
import { type Anatomy, type ControlValue, inDomain, presetExists } from './anatomy.ts';
import { anatomyOf } from './archetypes/registry.ts';
import { typeProblems } from './check-type.ts';
import type { Show } from './documents.ts';
import { splitRef } from './documents.ts';
import { cableCarries, jackFacts } from './jack-kinds.ts';
import { jackOf } from './jacks.ts';
import type { Cable, Device, Plug, Rig, Sound } from './rig.ts';
import { rigShape } from './rig.ts';
import { enoughProblems } from './shape.ts';
import { slotPlace } from './slots.ts';
import type { Songbook } from './songbook.ts';
import { songbookShape } from './songbook.ts';

/** Checks a rig of unknown origin: shape first, then what it refers to. At most the first 50 problems are told. */
export function validateRig(value: unknown, at = ''): Result<Rig> {
  const problems: Problem[] = [];
  rigShape.check(value, at, problems);
  if (problems.length === 0) problems.push(...referProblems(value as Rig, at));
  return problems.length === 0 ? accept(value as Rig) : { ok: false, problems: problems.slice(0, enoughProblems) };
}

export function validateSongbook(value: unknown, at = ''): Result<Songbook> {
  const problems: Problem[] = [];
  songbookShape.check(value, at, problems);
  if (problems.length === 0) problems.push(...songbookProblems(value as Songbook, at));
  return problems.length === 0 ? accept(value as Songbook) : { ok: false, problems: problems.slice(0, enoughProblems) };
}

/** What a rig casts must be in the songbook it is shown with. */
export function showProblems(show: Show): readonly Problem[] {
  return Object.values(show.rig.casting).flatMap((cast) =>
    Object.hasOwn(show.songbook.parts, cast.part)
      ? []
      : [problem(pointer('rig', 'casting', cast.id, 'part'), 'not-found', { what: 'part', id: cast.part })],
  );
}

function referProblems(rig: Rig, at: string): Problem[] {
  const problems: Problem[] = [
    ...keyProblems(
      rig as unknown as Record<string, unknown>,
      [
        'places',
        'devices',
        'cables',
        'sounds',
        'slots',
        'casting',
        'outside',
        ...(rig.waivers ? ['waivers'] : []),
        ...(rig.variants ? ['variants'] : []),
      ],
      at,
    ),
  ];
  for (const device of Object.values(rig.devices)) {
    problems.push(
      ...remembered(devicesSeen, device, [rig.places], () =>
        deviceProblems(rig, device, at + pointer('devices', device.id)),
      ),
    );
    if (device.calls || device.powerUpSlot !== undefined)
      problems.push(
        ...remembered(callsSeen, device, [rig.slots], () =>
          callProblems(rig, device, at + pointer('devices', device.id)),
        ),
      );
  }
  if (problems.length > 0) return problems;
  const types = typesOf(rig.devices);
  return [
    ...remembered(cablesSeen, rig.cables, [types], () => cableProblems(rig, at)),
    ...Object.values(rig.sounds).flatMap((sound) =>
      remembered(soundsSeen, sound, [types], () => soundProblems(rig, sound, at)),
    ),
    ...baseProblems(rig, at),
    ...remembered(slotsSeen, rig.slots, [types, rig.sounds], () => slotProblems(rig, at)),
    ...remembered(castingSeen, rig.casting, [rig.slots, rig.sounds, types], () => castProblems(rig, at)),
  ];
}

/** Whether something was found in order before, seen beside the very same other things. */
function seenBefore(memo: WeakMap<object, readonly unknown[]>, what: object, beside: readonly unknown[]): boolean {
  const known = memo.get(what);
  return known !== undefined && known.length === beside.length && known.every((item, i) => item === beside[i]);
}

/** Looks anew only where the thing, or what it refers to, is another object than the last time. */
function remembered(
  memo: WeakMap<object, readonly unknown[]>,
  what: object,
  beside: readonly unknown[],
  look: () => Problem[],
): Problem[] {
  if (seenBefore(memo, what, beside)) return [];
  const problems = look();
  if (problems.length === 0) memo.set(what, beside);
  return problems;
}
const keysSeen = new WeakMap<object, readonly unknown[]>();
const presetsSeen = new WeakMap<object, readonly unknown[]>();
const devicesSeen = new WeakMap<object, readonly unknown[]>();
const callsSeen = new WeakMap<object, readonly unknown[]>();
const cablesSeen = new WeakMap<object, readonly unknown[]>();
const soundsSeen = new WeakMap<object, readonly unknown[]>();
const slotsSeen = new WeakMap<object, readonly unknown[]>();
const castingSeen = new WeakMap<object, readonly unknown[]>();

type Types = readonly (readonly [id: string, type: Device['type']])[];

/** By the first of the types: the list that was seen with it last. */
const typesSeen = new WeakMap<object, Types>();
const noTypes: Types = [];

/**
 * The ids and types of the devices: the very same list where an edit changed none of them, since nothing else of a
 * device is referred to.
 */
function typesOf(devices: Rig['devices']): Types {
  const ids = Object.keys(devices);
  if (ids.length === 0) return noTypes;
  const first = devices[ids[0]].type;
  const seen = typesSeen.get(first);
  const isSame =
    seen?.length === ids.length && seen.every(([id, type]) => Object.hasOwn(devices, id) && devices[id].type === type);
  if (isSame) return seen;
  const types: Types = ids.map((id) => [id, devices[id].type]);
  typesSeen.set(first, types);
  return types;
}

/** Entries are filed under their own ids. */
function keyProblems(
  document: Readonly<Record<string, unknown>>,
  collections: readonly string[],
  at: string,
): Problem[] {
  return collections.flatMap((collection) => {
    const entries = document[collection] as Record<string, { id: string }>;
    return remembered(keysSeen, entries, [], () =>
      Object.entries(entries).flatMap(([key, entry]) =>
        entry.id === key
          ? []
          : [problem(at + pointer(collection, key, 'id'), 'out-of-domain', { value: entry.id, expected: key })],
      ),
    );
  });
}

function deviceProblems(rig: Rig, device: Device, at: string): Problem[] {
  const problems = typeProblems(device.type, `${at}/type`);
  if (!Object.hasOwn(rig.places, device.place))
    problems.push(problem(`${at}/place`, 'not-found', { what: 'place', id: device.place }));
  if (problems.length > 0) return problems;
  const anatomy = anatomyOf(device.type);
  for (const id of device.oneWay ?? [])
    if (!anatomy.jacks.some((jack) => jack.id === id))
      problems.push(problem(`${at}/oneWay`, 'not-found', { what: 'jack', id }));
  for (const [i, { to, control }] of (device.onlyFor ?? []).entries()) {
    const here = `${at}/onlyFor/${i}`;
    if (control !== undefined && !anatomy.controls.some((each) => each.id === control))
      problems.push(problem(`${here}/control`, 'not-found', { what: 'control', id: control }));
    for (const end of to)
      if (!Object.hasOwn(rig.devices, end))
        problems.push(problem(`${here}/to`, 'not-found', { what: 'device', id: end }));
  }
  for (const id of device.plannedSwitches)
    if (!anatomy.switches.some((footSwitch) => footSwitch.id === id))
      problems.push(problem(`${at}/plannedSwitches`, 'not-found', { what: 'foot switch', id }));
  for (const [id] of [...Object.entries(device.owners), ...Object.entries(device.powerUps)])
    if (id !== 'preset' && !anatomy.controls.some((control) => control.id === id))
      problems.push(problem(`${at}/owners`, 'not-found', { what: 'control', id }));
  for (const [number, preset] of Object.entries(device.presets))
    problems.push(
      ...remembered(presetsSeen, preset, [anatomy], () =>
        Object.entries(preset.values).flatMap(([id, value]) =>
          valueProblems(anatomy, id, value, () => at + pointer('presets', number, 'values', id)),
        ),
      ),
    );
  for (const [id, after] of Object.entries(device.powerUps))
    if (id !== 'preset' && after.is === 'value')
      problems.push(...valueProblems(anatomy, id, after.value, () => at + pointer('powerUps', id)));
  for (const id of Object.keys(device.momentaries))
    if (!anatomy.controller?.momentaries.some((momentary) => momentary.id === id))
      problems.push(problem(`${at}/momentaries`, 'not-found', { what: 'momentary', id }));
  return problems;
}

/** Slots that a device calls, or fires by itself at power-up. */
function callProblems(rig: Rig, device: Device, at: string): Problem[] {
  return [
    ...Object.values(device.calls?.programs ?? {}),
    ...(device.powerUpSlot === undefined ? [] : [device.powerUpSlot]),
  ].flatMap((slot) =>
    Object.hasOwn(rig.slots, slot) ? [] : [problem(`${at}/calls`, 'not-found', { what: 'slot', id: slot })],
  );
}

/** A stored or power-up value: unknown, or inside its control's domain. */
function valueProblems(anatomy: Anatomy, id: string, value: ControlValue | null, at: () => string): Problem[] {
  const control = anatomy.controls.find((control) => control.id === id);
  if (!control) return [problem(at(), 'not-found', { what: 'control', id })];
  return value === null || inDomain(control.domain, value)
    ? []
    : [problem(at(), 'out-of-domain', { value, expected: `a value of ${control.label}` })];
}

function cableProblems(rig: Rig, at: string): Problem[] {
  const taken = new Set<string>();
  /** The cable in each socket that two jacks share. */
  const sockets = new Map<string, string>();
  return Object.values(rig.cables).flatMap((cable) => [
    ...poleProblems(rig, cable, at),
    ...cable.plugs.flatMap((plug, i): Problem[] => {
      const here = () => at + pointer('cables', cable.id, 'plugs', i);
      const device = Object.hasOwn(rig.devices, plug.device) ? rig.devices[plug.device] : undefined;
      if (!device) return [problem(here(), 'not-found', { what: 'device', id: plug.device })];
      const jack = jackOf(device, plug.jack);
      if (!jack) return [problem(here(), 'jack-missing', { device: device.name, jack: plug.jack })];
      const key = `${plug.device}:${plug.jack}`;
      if (taken.has(key)) return [problem(here(), 'jack-taken', { device: device.name, jack: jack.label })];
      taken.add(key);
      const socket = jack.shares ?? jack.id;
      const inSocket = sockets.get(`${plug.device}:${socket}`);
      if (inSocket !== undefined && inSocket !== cable.id)
        return [problem(here(), 'jack-taken', { device: device.name, jack: jack.label })];
      sockets.set(`${plug.device}:${socket}`, cable.id);
      return jackFacts(jack.kind).carries === cableCarries[cable.kind]
        ? []
        : [problem(here(), 'jack-kind', { device: device.name, jack: jack.label, cable: cable.kind, kind: jack.kind })];
    }),
  ]);
}

/** A wire joins poles that are there, and no pole hangs on two wires. */
function poleProblems(rig: Rig, { id, plugs, poles }: Cable, at: string): Problem[] {
  const taken = new Set<string>();
  return (poles ?? []).flatMap((wire, w) =>
    wire.flatMap(({ plug, pole }, i): Problem[] => {
      const here = at + pointer('cables', id, 'poles', w, i);
      const end = plugs[plug] as Plug | undefined;
      const device = end && Object.hasOwn(rig.devices, end.device) ? rig.devices[end.device] : undefined;
      if (!end) return [problem(here, 'not-found', { what: 'plug', id: String(plug) })];
      const jack = jackOf(device, end.jack);
      if (jack && !(jack.poles ?? ['tip']).includes(pole))
        return [problem(here, 'not-found', { what: 'pole', id: `${jack.label} ${pole}` })];
      const key = `${plug} ${pole}`;
      if (taken.has(key)) return [problem(here, 'out-of-domain', { value: pole, expected: 'each pole on one wire' })];
      taken.add(key);
      return [];
    }),
  );
}

/** What a sound builds on is there, and is not, however far along, the sound itself. */
function baseProblems({ sounds }: Rig, at: string): Problem[] {
  return Object.values(sounds).flatMap((sound) => {
    if (!sound.basedOn) return [];
    const where = at + pointer('sounds', sound.id, 'basedOn', 'sound');
    const seen = new Set<string>([sound.id]);
    let base: Sound | undefined = sound;
    while (base?.basedOn) {
      const next: string = base.basedOn.sound;
      if (!Object.hasOwn(sounds, next))
        return base === sound ? [problem(where, 'not-found', { what: 'sound', id: next })] : [];
      if (seen.has(next))
        return [problem(where, 'out-of-domain', { value: next, expected: 'a sound that does not build on it' })];
      seen.add(next);
      base = sounds[next];
    }
    return [];
  });
}

function soundProblems(rig: Rig, sound: Sound, at: string): Problem[] {
  return [
    ...Object.keys(sound.pedals).flatMap((device) =>
      Object.hasOwn(rig.devices, device)
        ? []
        : [problem(at + pointer('sounds', sound.id, 'pedals', device), 'not-found', { what: 'device', id: device })],
    ),
    ...Object.entries(sound.wants).flatMap(([ref, value]) =>
      wantProblems(rig, ref, value, () => at + pointer('sounds', sound.id, 'wants', ref)),
    ),
  ];
}

function wantProblems(rig: Rig, ref: string, value: string | number, at: () => string): Problem[] {
  const { device: id, control: name } = splitRef(ref);
  const device = Object.hasOwn(rig.devices, id) ? rig.devices[id] : undefined;
  if (!device) return [problem(at(), 'not-found', { what: 'device', id })];
  const anatomy = anatomyOf(device.type);
  if (name === 'preset') {
    if (!anatomy.presets) return [problem(at(), 'not-found', { what: 'control', id: name })];
    return typeof value === 'number' && Number.isInteger(value) && value >= 0
      ? []
      : [problem(at(), 'wrong-type', { expected: 'a preset number as sent' })];
  }
  const control = anatomy.controls.find((control) => control.id === name);
  if (!control) return [problem(at(), 'not-found', { what: 'control', id: name })];
  return inDomain(control.domain, value)
    ? []
    : [problem(at(), 'out-of-domain', { value, expected: `a value of ${control.label}` })];
}

function slotProblems(rig: Rig, at: string): Problem[] {
  const places = new Set<string>();
  return Object.values(rig.slots).flatMap((slot): Problem[] => {
    const here = () => at + pointer('slots', slot.id);
    const device = Object.hasOwn(rig.devices, slot.controller) ? rig.devices[slot.controller] : undefined;
    const facts = device && anatomyOf(device.type).controller;
    if (!facts) return [problem(`${here()}/controller`, 'not-found', { what: 'controller', id: slot.controller })];
    const problems: Problem[] = [];
    if (slot.bank >= facts.banks)
      problems.push(
        problem(`${here()}/bank`, 'out-of-domain', { value: slot.bank, expected: `0 to ${facts.banks - 1}` }),
      );
    if (slot.position >= facts.positions)
      problems.push(
        problem(`${here()}/position`, 'out-of-domain', {
          value: slot.position,
          expected: `0 to ${facts.positions - 1}`,
        }),
      );
    const key = `${slot.controller}.${slot.bank}.${slot.position}`;
    if (places.has(key)) problems.push(problem(here(), 'duplicate', { what: 'slot', id: slotPlace(slot) }));
    places.add(key);
    if (slot.sound !== null && !Object.hasOwn(rig.sounds, slot.sound))
      problems.push(problem(`${here()}/sound`, 'not-found', { what: 'sound', id: slot.sound }));
    return problems;
  });
}

function castProblems(rig: Rig, at: string): Problem[] {
  const parts = new Set<string>();
  return Object.values(rig.casting).flatMap((cast) => {
    const here = at + pointer('casting', cast.id);
    const problems: Problem[] = [];
    if (cast.slot !== null) {
      if (!Object.hasOwn(rig.slots, cast.slot))
        problems.push(problem(`${here}/slot`, 'not-found', { what: 'slot', id: cast.slot }));
      if (cast.sound !== undefined)
        problems.push(
          problem(`${here}/sound`, 'wrong-type', { expected: 'no sound beside a slot, which has its own' }),
        );
    } else if (cast.sound === undefined)
      problems.push(problem(`${here}/sound`, 'wrong-type', { expected: 'a sound, where there is no slot' }));
    else if (!Object.hasOwn(rig.sounds, cast.sound))
      problems.push(problem(`${here}/sound`, 'not-found', { what: 'sound', id: cast.sound }));
    if (parts.has(cast.part)) problems.push(problem(`${here}/part`, 'duplicate', { what: 'part', id: cast.part }));
    parts.add(cast.part);
    for (const action of [...cast.before, ...cast.after]) {
      if (action.kind === 'cue') problems.push(...wantProblems(rig, action.control, action.value, () => here));
      else if (
        !Object.hasOwn(rig.devices, action.device) ||
        !anatomyOf(rig.devices[action.device].type).switches.some((footSwitch) => footSwitch.id === action.switch)
      )
        problems.push(problem(here, 'not-found', { what: 'foot switch', id: `${action.device}/${action.switch}` }));
    }
    return problems;
  });
}

function songbookProblems(book: Songbook, at: string): Problem[] {
  return [
    ...keyProblems(book as unknown as Record<string, unknown>, ['songs', 'parts', 'setLists'], at),
    ...Object.values(book.parts).flatMap((part) =>
      Object.hasOwn(book.songs, part.song)
        ? []
        : [problem(at + pointer('parts', part.id, 'song'), 'not-found', { what: 'song', id: part.song })],
    ),
    ...Object.values(book.setLists).flatMap((set) =>
      set.songs.flatMap((song, i) =>
        Object.hasOwn(book.songs, song)
          ? []
          : [problem(at + pointer('setLists', set.id, 'songs', i), 'not-found', { what: 'song', id: song })],
      ),
    ),
  ];
}

/** Whether a number can be recalled at all, for those who only have the device. */
export function presetIsThere(device: Device, number: number): boolean {
  const facts = anatomyOf(device.type).presets;
  return facts !== undefined && presetExists(facts, number);
}
