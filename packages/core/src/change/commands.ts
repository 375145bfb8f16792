import { anatomyOf } from '../model/archetypes/registry.ts';
import { slotOfCast, soundOfCast } from '../model/casting.ts';
import { followersOf } from '../model/based-on.ts';
import { castOf, controlRef, inOrder, jackRef, type Show, splitRef } from '../model/documents.ts';
import {
  type Action,
  type Cable,
  type Cast,
  type CastAction,
  type Device,
  type LengthUnit,
  type OutsideChange,
  type Place,
  type RigSettings,
  type DeviceType,
  type EndFacts,
  type MomentaryActions,
  type Plug,
  type Rig,
  type Slot,
  type Conventions,
  type Sound,
  type StoredPreset,
  type Waiver,
} from '../model/rig.ts';
import { type Part, type SetList, type Song } from '../model/songbook.ts';
import { chosenSetList } from '../model/set-order.ts';
import { jackFacts } from '../model/jack-kinds.ts';
import { jackOf } from '../model/jacks.ts';
import { slotPlace } from '../model/slots.ts';
import { isByHand } from '../model/wiring.ts';
import { layByRole, layBySong, type Layout } from '../program/layout.ts';
import type { ControlValue, StoredOrder } from '../model/anatomy.ts';
import { orderControls } from '../model/orders.ts';
import { sameData } from '../units/same-data.ts';
import { between } from './order.ts';
import { type Command, command, insert, remove, set } from './command.ts';
import type { Step } from './steps.ts';

export type { Command } from './command.ts';

const last = (record: Readonly<Record<string, { readonly order: string; readonly id: string }>>): string | null =>
  inOrder(record).at(-1)?.order ?? null;

export function addDevice(
  show: Show,
  id: string,
  type: DeviceType,
  name: string,
  place: string,
  facts: Partial<Device> = {},
): Command {
  const steps: Step[] = [];
  if (!show.rig.places[place])
    steps.push(insert(['places', place], { id: place, name: 'Board', order: between(last(show.rig.places), null) }));
  const device: Device = {
    id,
    name,
    place,
    type,
    order: between(last(show.rig.devices), null),
    channel: null,
    firstPresetNumber: 1,
    presets: {},
    plannedSwitches: [],
    owners: {},
    powerUps: {},
    momentaries: {},
    ...facts,
  };
  return command('add-device', { device: name }, [...steps, insert(['devices', id], device)]);
}

/** A second piece just like one: all that was entered of it, on a channel of its own, and nothing plugged in. */
export function copyDevice(show: Show, of: string, id: string, name: string, channel: Device['channel']): Command {
  const { order: _order, calls: _calls, powerUpSlot: _slot, switching: _switching, ...like } = show.rig.devices[of];
  return addDevice(show, id, like.type, name, like.place, { ...like, id: id as Device['id'], name, channel });
}

/** With its cables, its slots and whatever sounds want of it. */
export function removeDevice(show: Show, id: string): Command {
  const { rig } = show;
  const slots = Object.values(rig.slots).filter((slot) => slot.controller === id);
  const cables = Object.values(rig.cables).filter((cable) => cable.plugs.some((plug) => plug.device === id));
  const sounds = Object.values(rig.sounds).flatMap((sound) => {
    const wants = Object.fromEntries(Object.entries(sound.wants).filter(([ref]) => splitRef(ref).device !== id));
    const pedals = Object.fromEntries(Object.entries(sound.pedals).filter(([device]) => device !== id));
    return [
      ...(Object.keys(wants).length < Object.keys(sound.wants).length
        ? [set(['sounds', sound.id, 'wants'], wants, sound.wants)]
        : []),
      ...(Object.keys(pedals).length < Object.keys(sound.pedals).length
        ? [set(['sounds', sound.id, 'pedals'], pedals, sound.pedals)]
        : []),
    ];
  });
  const isGone = (action: CastAction) =>
    (action.kind === 'foot' ? action.device : splitRef(action.control).device) === id;
  const casting = Object.values(rig.casting).flatMap((cast): Step[] => {
    if (slots.some((slot) => slot.id === cast.slot)) {
      const left = withoutSlot(rig, cast);
      return left
        ? [
            remove(['casting', cast.id], cast),
            insert(['casting', cast.id], {
              ...left,
              before: cast.before.filter((action) => !isGone(action)),
              after: cast.after.filter((action) => !isGone(action)),
            }),
          ]
        : [remove(['casting', cast.id], cast)];
    }
    return (['before', 'after'] as const).flatMap((when) =>
      cast[when].some(isGone)
        ? [
            set(
              ['casting', cast.id, when],
              cast[when].filter((action) => !isGone(action)),
              cast[when],
            ),
          ]
        : [],
    );
  });
  return command('remove-device', { device: rig.devices[id].name }, [
    ...casting,
    ...Object.values(rig.outside)
      .filter((change) => change.device === id)
      .map((change) => remove(['outside', change.id], change)),
    ...slots.map((slot) => remove(['slots', slot.id], slot)),
    ...cables.map((cable) => remove(['cables', cable.id], cable)),
    ...sounds,
    ...Object.values(rig.devices).flatMap((device) => withoutEnd(device, id)),
    remove(['devices', id], rig.devices[id]),
  ]);
}

/** What is meant for an end that goes is meant for the others that it named; for none, for all again. */
function withoutEnd({ id, onlyFor }: Device, end: string): Step[] {
  if (id === end || !onlyFor?.some(({ to }) => to.some((meant) => meant === end))) return [];
  const left = onlyFor
    .map((promise) => ({ ...promise, to: promise.to.filter((meant) => meant !== end) }))
    .filter(({ to }) => to.length > 0);
  return [set(['devices', id, 'onlyFor'], left.length > 0 ? left : undefined, onlyFor)];
}

export function setDevice<K extends keyof Device>(show: Show, id: string, field: K, value: Device[K]): Command {
  const device = show.rig.devices[id];
  return command('set-device', { device: device.name, field: String(field) }, [
    set(['devices', id, field], value, device[field]),
  ]);
}

export function setParam(show: Show, id: string, name: string, value: unknown): Command {
  const device = show.rig.devices[id];
  return command('set-device', { device: device.name, field: name }, [
    set(['devices', id, 'type', 'params', name], value, device.type.params[name]),
  ]);
}

/** A new cable with these plugs, at least two; its kind is that of the first. */
export function connect(
  show: Show,
  id: string,
  plugs: readonly Plug[],
  length: number | null = null,
  poles?: Cable['poles'],
): Command {
  const kind = cableKind(show.rig, plugs[0]);
  const number = Object.keys(show.rig.cables).length + 1;
  const prefix = { signal: 'C', speaker: 'S', midi: 'M', contact: 'K', expression: 'E', power: 'P', mains: 'W' }[kind];
  const cable: Cable = {
    id,
    tag: `${prefix}${String(number).padStart(2, '0')}`,
    order: between(last(show.rig.cables), null),
    kind,
    plugs,
    length,
    loom: null,
    ...(poles ? { poles } : {}),
  };
  const names = {
    from: show.rig.devices[plugs[0].device].name,
    to: plugs
      .slice(1)
      .map((plug) => show.rig.devices[plug.device].name)
      .join(' and '),
  };
  return command('connect', names, [insert(['cables', id], cable)]);
}

export function cableKind(rig: Rig, plug: Plug): Cable['kind'] {
  const jack = jackOf(rig.devices[plug.device], plug.jack);
  const carries = jack ? jackFacts(jack.kind).carries : 'signal';
  return carries !== 'signal' ? carries : jack?.speaker ? 'speaker' : 'signal';
}

export const disconnect = (show: Show, id: string): Command =>
  command('disconnect', { cable: show.rig.cables[id].tag }, [remove(['cables', id], show.rig.cables[id])]);

/**
 * Other plugs unmake wires of poles that they have not: the cable is straight again. What is on an end goes with it to
 * another jack.
 */
export function setCable<K extends keyof Cable>(show: Show, id: string, field: K, value: Cable[K]): Command {
  const cable = show.rig.cables[id];
  const ends = field === 'plugs' ? endsMoved(cable, value as readonly Plug[]) : cable.ends;
  const named = command('set-cable', { cable: cable.tag, field: String(field) }, [
    set(['cables', id, field], value, cable[field]),
    ...(ends === cable.ends ? [] : [set(['cables', id, 'ends'], ends, cable.ends)]),
  ]);
  const { poles } = cable;
  if (field !== 'plugs' || !poles || holds(show.rig, value as readonly Plug[], poles)) return named;
  return { ...named, steps: [set(['cables', id, 'poles'], undefined, poles), ...named.steps] };
}

/** What is on the ends of a cable after its plugs have changed. */
function endsMoved({ plugs, ends }: Cable, next: readonly Plug[]): Cable['ends'] {
  if (!ends || next.length !== plugs.length) return ends;
  const moved = new Map(plugs.map((plug, i) => [jackRef(plug), jackRef(next[i])]));
  if ([...moved].every(([from, to]) => from === to)) return ends;
  return Object.fromEntries(Object.entries(ends).map(([at, end]) => [moved.get(at) ?? at, end]));
}

/** What is on one end of a cable; undefined: nobody has said. */
export function setEnd(show: Show, id: string, plug: Plug, end: EndFacts | undefined): Command {
  const { tag, ends } = show.rig.cables[id];
  const { [jackRef(plug)]: _, ...others } = ends ?? {};
  const next = end ? { ...others, [jackRef(plug)]: end } : others;
  return command('set-cable', { cable: tag, field: 'ends' }, [
    set(['cables', id, 'ends'], Object.keys(next).length > 0 ? next : undefined, ends),
  ]);
}

/** Whether every pole of some wires is one of the plugs' jacks. */
const holds = ({ devices }: Rig, plugs: readonly Plug[], poles: NonNullable<Cable['poles']>): boolean =>
  poles.flat().every(({ plug, pole }) => {
    const end = plugs[plug] as Plug | undefined;
    const jack = end && jackOf(devices[end.device], end.jack);
    return (jack?.poles ?? ['tip']).includes(pole) && end !== undefined;
  });

export function addSound(show: Show, id: string, name: string, like?: Sound): Command {
  const sound: Sound = {
    id,
    name,
    order: between(like?.order ?? last(show.rig.sounds), null),
    role: like?.role ?? '',
    silence: like?.silence ?? false,
    wants: like?.wants ?? {},
    pedals: like?.pedals ?? {},
  };
  return command('add-sound', { sound: name }, [insert(['sounds', id], sound)]);
}

/** Its slots stay, without a sound; parts that were cast to the sound itself are cast to nothing. */
export function removeSound(show: Show, id: string): Command {
  const slots = Object.values(show.rig.slots).filter((slot) => slot.sound === id);
  return command('remove-sound', { sound: show.rig.sounds[id].name }, [
    ...Object.values(show.rig.casting)
      .filter((cast) => cast.sound === id)
      .map((cast) => remove(['casting', cast.id], cast)),
    ...slots.map((slot) => set(['slots', slot.id, 'sound'], null, id)),
    // What builds on it stands on its own: it holds all that it wants.
    ...followersOf(show.rig, id).map((sound) => set(['sounds', sound.id, 'basedOn'], undefined, sound.basedOn)),
    remove(['sounds', id], show.rig.sounds[id]),
  ]);
}

export const setSound = <K extends 'name' | 'role' | 'silence' | 'order'>(
  show: Show,
  id: string,
  field: K,
  value: Sound[K],
): Command =>
  command('set-sound', { sound: show.rig.sounds[id].name, field }, [
    set(['sounds', id, field], value, show.rig.sounds[id][field]),
  ]);

/** `undefined`: don’t care. What hands do is put into the cues of the parts that play the sound, too. */
export function want(show: Show, sound: string, ref: string, value: ControlValue | undefined): Command {
  const { device, control } = splitRef(ref);
  const { rig } = show;
  const old = rig.sounds[sound];
  return command('want', { sound: old.name, device: rig.devices[device].name, control }, [
    set(['sounds', sound, 'wants', ref], value, old.wants[ref]),
    ...cueSteps(rig, { ...old, wants: withWant(old.wants, ref, value) }, ref),
  ]);
}

/** What the controls of a device’s order are, in each of some sounds, as one edit; `undefined`: don’t care. */
export function wantOrder(
  show: Show,
  sounds: readonly string[],
  device: string,
  order: StoredOrder,
  values: ReadonlyMap<string, ControlValue> | undefined,
): Command {
  const controls = orderControls(order);
  const { name } = show.rig.devices[device];
  return command(
    sounds.length === 1 ? 'want' : 'want-in-all',
    {
      ...(sounds.length === 1 ? { sound: show.rig.sounds[sounds[0]].name } : { count: sounds.length }),
      device: name,
      control: order.label.toLowerCase(),
    },
    sounds.flatMap((id) =>
      controls.flatMap((control) => {
        const ref = controlRef(device, control);
        const old = show.rig.sounds[id].wants[ref];
        const value = values?.get(control);
        return old === value ? [] : [set(['sounds', id, 'wants', ref], value, old)];
      }),
    ),
  );
}

function withWant(wants: Sound['wants'], ref: string, value: ControlValue | undefined): Sound['wants'] {
  const { [ref]: _, ...rest } = wants;
  return value === undefined ? rest : { ...rest, [ref]: value };
}

/** The cues of the parts that play a sound by a slot, where what hands do in it has changed. */
export function cueSteps(rig: Rig, sound: Sound, ref: string): Step[] {
  if (!isHandRef(rig, ref)) return [];
  return Object.values(rig.casting).flatMap((cast) =>
    slotOfCast(rig, cast)?.sound === sound.id
      ? [set(['casting', cast.id, 'before'], recued(rig, cast.before, sound), cast.before)]
      : [],
  );
}

export const wantPedal = (show: Show, sound: string, device: string, state: 'on' | 'off' | undefined): Command =>
  command('want', { sound: show.rig.sounds[sound].name, device: show.rig.devices[device].name, control: 'on' }, [
    set(['sounds', sound, 'pedals', device], state, show.rig.sounds[sound].pedals[device]),
  ]);

/**
 * Slots by role or by song into banks; null where the sounds do not fit. What used a slot that goes uses one that its
 * sound has then.
 */
export function layOut(show: Show, controller: string, by: 'role' | 'song' = 'role'): Command | null {
  const { rig } = show;
  const layout = by === 'role' ? layByRole(rig, controller) : layBySong(show, controller);
  if (!layout || 'needsBanks' in layout) return null;
  const { slots: laid, recast }: Layout = 'slots' in layout ? layout : { slots: layout, recast: new Map() };
  const kept = new Set(laid.map((slot) => slot.id));
  const old = Object.values(rig.slots).filter(
    (slot) => slot.controller === controller && slot.sound !== null && !kept.has(slot.id),
  );
  const changed = laid.filter((slot) => JSON.stringify(rig.slots[slot.id]) !== JSON.stringify(slot));
  const instead = new Map(old.map((slot) => [slot.id, laid.find((item) => item.sound === slot.sound)!.id]));
  return command('lay-out', { controller: rig.devices[controller].name, by }, [
    ...Object.values(rig.casting).flatMap((cast) => {
      const sound = soundOfCast(rig, cast);
      const slot = recast.get(cast.id) ?? (cast.slot === null ? null : (instead.get(cast.slot) ?? cast.slot));
      const hasOne = slotOfCast(rig, cast) === undefined && laid.some((item) => item.sound === sound?.id);
      return [
        ...(slot === cast.slot ? [] : [set(['casting', cast.id, 'slot'], slot, cast.slot)]),
        ...(slot === null || cast.sound === undefined
          ? []
          : [set(['casting', cast.id, 'sound'], undefined, cast.sound)]),
        ...(hasOne && sound ? cuesOf(rig, cast, sound) : []),
      ];
    }),
    ...Object.values(rig.devices).flatMap((device) => reslotted(device, instead)),
    ...old.map((slot) => remove(['slots', slot.id], slot)),
    ...changed.filter((slot) => rig.slots[slot.id]).map((slot) => remove(['slots', slot.id], rig.slots[slot.id])),
    ...changed.map((slot) => insert(['slots', slot.id], slot)),
  ]);
}

/** A switch of a controller, in one of its banks. */
export interface SlotPlace {
  readonly controller: string;
  readonly bank: number;
  readonly position: number;
}

const slotAt = (rig: Rig, place: SlotPlace): Slot | undefined =>
  Object.values(rig.slots).find(
    (slot) => slot.controller === place.controller && slot.bank === place.bank && slot.position === place.position,
  );

/** The same slot under another switch. */
const movedTo = (slot: Slot, { controller, bank, position }: SlotPlace): Slot => ({
  ...slot,
  controller,
  bank,
  position,
});

/**
 * A slot to another switch, with what it does; a slot that lies there takes its place. Null where it lies there
 * already.
 */
export function moveSlot(show: Show, id: string, place: SlotPlace): Command | null {
  const slot = show.rig.slots[id];
  const there = slotAt(show.rig, place);
  if (there?.id === id) return null;
  const moved = [movedTo(slot, place), ...(there ? [movedTo(there, slot)] : [])];
  return command('move-slot', { from: slotPlace(slot), to: slotPlace(place) }, [
    ...[slot, ...(there ? [there] : [])].map((old) => remove(['slots', old.id], old)),
    ...moved.map((now) => insert(['slots', now.id], now)),
  ]);
}

/**
 * A sound to a switch: its slot on that controller moves there (the slot that lies there takes its place), or it has
 * its first one. Where it has none and a slot lies there, that one moves to the next free switch; null where there is
 * none, or nothing to do.
 */
export function placeSound(show: Show, sound: string, place: SlotPlace): Command | null {
  const { rig } = show;
  const own = Object.values(rig.slots).filter((slot) => slot.sound === sound && slot.controller === place.controller);
  const there = slotAt(rig, place);
  if (there?.sound === sound) return null;
  if (own.length > 0) return moveSlot(show, own[0].id, place);
  const aside = there ? nextFree(rig, place) : null;
  if (there && !aside) return null;
  let id = `slot-${sound}`;
  for (let n = 2; Object.hasOwn(rig.slots, id); n += 1) id = `slot-${sound}-${n}`;
  return command('place-sound', { sound: rig.sounds[sound].name, to: slotPlace(place) }, [
    ...Object.values(rig.casting).flatMap((cast) =>
      cast.slot === null && cast.sound === sound && !slotOfCast(rig, cast) ? cuesOf(rig, cast, rig.sounds[sound]) : [],
    ),
    ...(there && aside ? [remove(['slots', there.id], there), insert(['slots', there.id], movedTo(there, aside))] : []),
    insert(['slots', id], { id, ...place, sound, actions: null } satisfies Slot),
  ]);
}

/** The first free switch after a place, round from the last bank to the first. Null where none is free. */
export function nextFree(rig: Rig, { controller, bank, position }: SlotPlace): SlotPlace | null {
  const facts = anatomyOf(rig.devices[controller].type).controller;
  if (!facts) return null;
  const count = facts.banks * facts.positions;
  const taken = new Set(
    Object.values(rig.slots).flatMap((slot) =>
      slot.controller === controller ? [slot.bank * facts.positions + slot.position] : [],
    ),
  );
  const from = bank * facts.positions + position;
  for (let i = 1; i < count; i += 1) {
    const at = (from + i) % count;
    if (!taken.has(at)) return { controller, bank: Math.floor(at / facts.positions), position: at % facts.positions };
  }
  return null;
}

/** What a part plays once its slot is gone: the slot's sound. */
function withoutSlot(rig: Rig, cast: Cast): Cast | null {
  const sound = soundOfCast(rig, cast);
  return sound ? { ...cast, slot: null, sound: sound.id } : null;
}

/** With the calls that press it. Parts that it played play its sound from then on. */
export function removeSlot(show: Show, id: string): Command {
  const { rig } = show;
  const slot = rig.slots[id];
  return command('remove-slot', { slot: slotPlace(slot) }, [
    ...Object.values(rig.casting)
      .filter((cast) => cast.slot === id)
      .flatMap((cast) => {
        const left = withoutSlot(rig, cast);
        return [remove(['casting', cast.id], cast), ...(left ? [insert(['casting', cast.id], left)] : [])];
      }),
    ...Object.values(rig.devices).flatMap((device): Step[] => {
      const programs = Object.entries(device.calls?.programs ?? {});
      const left = programs.filter(([, called]) => called !== id);
      return [
        ...(device.powerUpSlot === id ? [set(['devices', device.id, 'powerUpSlot'], undefined, id)] : []),
        ...(left.length === programs.length
          ? []
          : [
              set(
                ['devices', device.id, 'calls'],
                left.length === 0 ? undefined : { ...device.calls!, programs: Object.fromEntries(left) },
                device.calls,
              ),
            ]),
      ];
    }),
    remove(['slots', id], slot),
  ]);
}

/** A device fires and calls other slots instead of some. */
function reslotted({ id, powerUpSlot, calls }: Device, instead: ReadonlyMap<string, string>): Step[] {
  const steps: Step[] = [];
  if (powerUpSlot !== undefined && instead.has(powerUpSlot))
    steps.push(set(['devices', id, 'powerUpSlot'], instead.get(powerUpSlot), powerUpSlot));
  for (const [program, slot] of Object.entries(calls?.programs ?? {}))
    if (instead.has(slot)) steps.push(set(['devices', id, 'calls', 'programs', program], instead.get(slot), slot));
  return steps;
}

/** What a momentary switch does when it is pressed and when it is let go. */
export function setMomentary(
  show: Show,
  id: string,
  momentary: string,
  when: keyof MomentaryActions,
  actions: readonly Action[],
): Command {
  const { name, momentaries } = show.rig.devices[id];
  const old: MomentaryActions | undefined = momentaries[momentary];
  const both: MomentaryActions = { ...(old ?? { press: [], release: [] }), [when]: actions };
  const isIdle = both.press.length === 0 && both.release.length === 0;
  return command('set-device', { device: name, field: 'momentaries' }, [
    set(['devices', id, 'momentaries', momentary], isIdle ? undefined : both, old),
  ]);
}

export function setSlotActions(show: Show, id: string, actions: Slot['actions']): Command {
  const slot = show.rig.slots[id];
  return command('set-slot', { slot: slotPlace(slot) }, [set(['slots', id, 'actions'], actions, slot.actions)]);
}

/** What a unit’s display is to show for a slot; empty: its sound’s name in short. */
export function setSlotName(show: Show, id: string, name: string): Command {
  const slot = show.rig.slots[id];
  return command('set-slot', { slot: slotPlace(slot) }, [
    set(['slots', id, 'name'], name === '' ? undefined : name, slot.name),
  ]);
}

/** A slot written by hand does what another does, and follows it; `undefined`: it goes its own way, as it is. */
export function copySlot(
  show: Show,
  id: string,
  of: { readonly slot: string; readonly actions: readonly Action[] } | undefined,
): Command {
  const slot = show.rig.slots[id];
  return command('set-slot', { slot: slotPlace(slot) }, [
    ...(of && !sameData(of.actions, slot.actions) ? [set(['slots', id, 'actions'], of.actions, slot.actions)] : []),
    set(['slots', id, 'copyOf'], of?.slot, slot.copyOf),
  ]);
}

export const renameRig = (show: Show, name: string): Command =>
  command('rename', { name }, [set(['name'], name, show.rig.name)]);

/** In what lengths are shown and typed on this rig. */
export const setLengthUnit = (show: Show, unit: LengthUnit): Command =>
  command('set-length-unit', { unit }, [
    set(['settings', 'lengthUnit'], unit === 'm' ? undefined : unit, show.rig.settings.lengthUnit),
  ]);

export function addSong(show: Show, id: string, name: string): Command {
  const song: Song = { id, name, order: between(last(show.songbook.songs), null), tempo: null };
  const list = chosenSetList(show);
  const listed = list
    ? [set(['setLists', list.id, 'songs'], [...list.songs, id], list.songs, 'songbook')]
    : [insert(['setLists', 'set'], { id: 'set', name: 'Set', order: 'i', songs: [id] }, 'songbook')];
  return command('add-song', { song: name }, [insert(['songs', id], song, 'songbook'), ...listed]);
}

/**
 * What a sound asks of the hands, as cues of a part: instruments' selectors and volumes, knobs, what the player holds
 * live.
 */
function handCues(rig: Rig, sound: Sound | undefined): CastAction[] {
  return Object.entries(sound?.wants ?? {}).flatMap(([ref, value]): CastAction[] =>
    isHandRef(rig, ref) ? [{ kind: 'cue', control: ref, value }] : [],
  );
}

function isHandRef(rig: Rig, ref: string): boolean {
  const { device: id, control: name } = splitRef(ref);
  const device = rig.devices[id];
  const control = device && anatomyOf(device.type).controls.find((control) => control.id === name);
  return control !== undefined && isByHand(device, control);
}

/** A part's own actions with the cues of another sound in place of the last one's. */
const recued = (rig: Rig, before: readonly CastAction[], sound: Sound | undefined): CastAction[] => [
  ...before.filter((action) => action.kind === 'foot' || !isHandRef(rig, action.control)),
  ...handCues(rig, sound),
];

/** What a part is cast to: a slot, or a sound. */
export type Plays = { readonly slot: string } | { readonly sound: string };

/** A sound by its first slot; by itself, for feet and hands, where it has none. */
export function playsSound(rig: Rig, sound: string): Plays {
  const slot = slotOfCast(rig, castTo('', { sound }));
  return slot ? { slot: slot.id } : { sound };
}

const castTo = (part: string, plays: Plays): Cast => ({
  id: part,
  part,
  ...('slot' in plays ? { slot: plays.slot } : { slot: null, sound: plays.sound }),
  before: [],
  after: [],
  again: false,
});

export function addPart(show: Show, id: string, song: string, name: string, plays: Plays | null): Command {
  const part: Part = { id, song, name, order: between(last(show.songbook.parts), null) };
  return command('add-part', { part: name }, [
    insert(['parts', id], part, 'songbook'),
    ...(plays ? castSteps(show.rig, id, plays) : []),
  ]);
}

/**
 * With the cues that a slot's sound asks of the hands; what feet and hands do for a sound without a slot is derived.
 */
export function castPart(show: Show, part: string, plays: Plays | null): Command {
  const old = castOf(show.rig, part);
  const facts = { part: show.songbook.parts[part].name };
  if (!plays) return command('cast', facts, old ? [remove(['casting', old.id], old)] : []);
  return command('cast', facts, castSteps(show.rig, part, plays));
}

export function castSteps(rig: Rig, part: string, plays: Plays): Step[] {
  const old = castOf(rig, part);
  const now = castTo(part, plays);
  const before = recued(rig, old?.before ?? [], slotOfCast(rig, now) ? soundOfCast(rig, now) : undefined);
  if (!old) return [insert(['casting', part], { ...now, before })];
  return [
    ...(old.slot === now.slot ? [] : [set(['casting', old.id, 'slot'], now.slot, old.slot)]),
    ...(old.sound === now.sound ? [] : [set(['casting', old.id, 'sound'], now.sound, old.sound)]),
    ...cueChange(old, before),
  ];
}

/** A part's hand cues, where a slot plays its sound from now on. */
const cuesOf = (rig: Rig, cast: Cast, sound: Sound): Step[] => cueChange(cast, recued(rig, cast.before, sound));

const cueChange = (cast: Cast, before: readonly CastAction[]): Step[] =>
  JSON.stringify(before) === JSON.stringify(cast.before)
    ? []
    : [set(['casting', cast.id, 'before'], before, cast.before)];

/** With its parts, their casting, and its place in every set list. */
export function removeSong(show: Show, id: string): Command {
  const { songbook } = show;
  const parts = Object.values(songbook.parts).filter((part) => part.song === id);
  const lists = Object.values(songbook.setLists).filter((list) => list.songs.includes(id));
  return command('remove-song', { song: songbook.songs[id].name }, [
    ...parts.flatMap((part) => removePart(show, part.id).steps),
    ...lists.map((list) =>
      set(
        ['setLists', list.id, 'songs'],
        list.songs.filter((song) => song !== id),
        list.songs,
        'songbook',
      ),
    ),
    remove(['songs', id], songbook.songs[id], 'songbook'),
  ]);
}

export function removePart(show: Show, id: string): Command {
  const casts = Object.values(show.rig.casting).filter((cast) => cast.part === id);
  return command('remove-part', { part: show.songbook.parts[id].name }, [
    ...casts.map((cast) => remove(['casting', cast.id], cast)),
    remove(['parts', id], show.songbook.parts[id], 'songbook'),
  ]);
}

/** `undefined` takes an optional field away. */
export const setSong = <K extends Exclude<keyof Song, 'id'>>(
  show: Show,
  id: string,
  field: K,
  value: Song[K],
): Command =>
  command('set-song', { song: show.songbook.songs[id].name, field }, [
    set(['songs', id, field], value, show.songbook.songs[id][field], 'songbook'),
  ]);

export const setPart = <K extends Exclude<keyof Part, 'id'>>(
  show: Show,
  id: string,
  field: K,
  value: Part[K],
): Command =>
  command('set-part', { part: show.songbook.parts[id].name, field }, [
    set(['parts', id, field], value, show.songbook.parts[id][field], 'songbook'),
  ]);

/** Moves a part among those of its song: before `next`, or to the end. */
export function movePart(show: Show, id: string, next: string | null): Command {
  const { parts } = show.songbook;
  const siblings = inOrder(parts).filter((part) => part.song === parts[id].song && part.id !== id);
  return command('move-part', { part: parts[id].name }, [
    set(['parts', id, 'order'], orderBefore(siblings, next), parts[id].order, 'songbook'),
  ]);
}

/** Moves a sound in the list: before `next`, or to the end. */
export function moveSound(show: Show, id: string, next: string | null): Command {
  const { sounds } = show.rig;
  return command('move-sound', { sound: sounds[id].name }, [
    set(
      ['sounds', id, 'order'],
      orderBefore(
        inOrder(sounds).filter((sound) => sound.id !== id),
        next,
      ),
      sounds[id].order,
    ),
  ]);
}

function orderBefore(others: readonly { readonly id: string; readonly order: string }[], next: string | null): string {
  const at = next === null ? others.length : others.findIndex((other) => other.id === next);
  return between(others[at - 1]?.order ?? null, others[at]?.order ?? null);
}

/** With `chosen`, it is the one that is played from now on. */
export function addSetList(
  show: Show,
  id: string,
  name: string,
  songs: readonly string[] = [],
  chosen = false,
): Command {
  const list: SetList = { id, name, order: between(last(show.songbook.setLists), null), songs };
  return command('add-set-list', { list: name }, [
    insert(['setLists', id], list, 'songbook'),
    ...(chosen ? [set(['settings', 'setList'], id, show.rig.settings.setList)] : []),
  ]);
}

export function setSetList<K extends Exclude<keyof SetList, 'id'>>(
  show: Show,
  id: string,
  field: K,
  value: SetList[K],
): Command {
  const list = show.songbook.setLists[id];
  return command('set-set-list', { list: list.name }, [set(['setLists', id, field], value, list[field], 'songbook')]);
}

export function removeSetList(show: Show, id: string): Command {
  const list = show.songbook.setLists[id];
  const chosen = show.rig.settings.setList === id ? [set(['settings', 'setList'], null, id)] : [];
  return command('remove-set-list', { list: list.name }, [...chosen, remove(['setLists', id], list, 'songbook')]);
}

/** The list that *in set order* follows. */
export const chooseSetList = (show: Show, id: string | null): Command =>
  command('choose-set-list', { list: id === null ? 'the first' : show.songbook.setLists[id].name }, [
    set(['settings', 'setList'], id, show.rig.settings.setList),
  ]);

export function setConvention<K extends keyof Conventions>(show: Show, question: K, side: Conventions[K]): Command {
  const old = show.rig.settings.conventions;
  return command('set-school', { question, side }, [
    set(['settings', 'conventions'], { ...old, [question]: side }, old),
  ]);
}

/** Says that a finding is known and why it may stay. */
export function waive(show: Show, id: string, rule: string, at: Waiver['at'], reason: string, title: string): Command {
  const waiver: Waiver = { id, rule, at, reason };
  const { waivers } = show.rig;
  return command('waive', { title }, [
    waivers ? insert(['waivers', id], waiver) : set(['waivers'], { [id]: waiver }, undefined),
  ]);
}

export const unwaive = (show: Show, id: string, title: string): Command =>
  command('unwaive', { title }, [remove(['waivers', id], show.rig.waivers![id])]);

/** Several sounds at once: the same value in each; those that have it already are left alone. */
export function wantInAll(
  show: Show,
  sounds: readonly string[],
  ref: string,
  value: ControlValue | undefined,
): Command {
  const { device, control } = splitRef(ref);
  const changed = sounds.filter((id) => show.rig.sounds[id].wants[ref] !== value);
  return command(
    'want-in-all',
    { count: changed.length, device: show.rig.devices[device].name, control },
    changed.flatMap((id) => want(show, id, ref, value).steps),
  );
}

export function wantPedalInAll(
  show: Show,
  sounds: readonly string[],
  device: string,
  state: 'on' | 'off' | undefined,
): Command {
  const changed = sounds.filter((id) => show.rig.sounds[id].pedals[device] !== state);
  return command(
    'want-in-all',
    { count: changed.length, device: show.rig.devices[device].name, control: 'on' },
    changed.map((id) => set(['sounds', id, 'pedals', device], state, show.rig.sounds[id].pedals[device])),
  );
}

/** What a preset holds and what it is called; null forgets it. */
export function setPreset(show: Show, device: string, number: number, preset: StoredPreset | null): Command {
  const { presets, name } = show.rig.devices[device];
  return command('set-preset', { device: name, number }, [
    set(['devices', device, 'presets', String(number)], preset ?? undefined, presets[String(number)]),
  ]);
}

/** Several of a device’s presets at once; null forgets one. */
export function setPresets(
  show: Show,
  device: string,
  changes: readonly (readonly [number: number, preset: StoredPreset | null])[],
): Command {
  const { presets, name } = show.rig.devices[device];
  return command(
    'set-presets',
    { device: name, count: changes.length },
    changes.map(([number, preset]) =>
      set(['devices', device, 'presets', String(number)], preset ?? undefined, presets[String(number)]),
    ),
  );
}

export function addPlace(show: Show, id: string, name: string): Command {
  return command('add-place', { place: name }, [
    insert(['places', id], { id, name, order: between(last(show.rig.places), null) }),
  ]);
}

export const setPlace = <K extends 'name' | 'order'>(show: Show, id: string, field: K, value: Place[K]): Command =>
  command('set-place', { place: show.rig.places[id].name }, [
    set(['places', id, field], value, show.rig.places[id][field]),
  ]);

/** Refused while a device stands there. */
export const removePlace = (show: Show, id: string): Command =>
  command('remove-place', { place: show.rig.places[id].name }, [remove(['places', id], show.rig.places[id])]);

/** A setting of the rig that has no command of its own; `undefined` takes an optional one away. */
export const setSetting = <K extends keyof RigSettings>(show: Show, field: K, value: RigSettings[K]): Command =>
  command('set-setting', { field: String(field) }, [set(['settings', field], value, show.rig.settings[field])]);

/** A slot as it is given: with or without a sound, generated or written by hand. */
export const addSlot = (show: Show, slot: Slot): Command =>
  command('add-slot', { slot: slotPlace(slot), controller: show.rig.devices[slot.controller].name }, [
    insert(['slots', slot.id], slot),
  ]);

/** The sound that a slot brings up; null: none. */
export function setSlotSound(show: Show, id: string, sound: string | null): Command {
  const slot = show.rig.slots[id];
  return command('set-slot', { slot: slotPlace(slot) }, [set(['slots', id, 'sound'], sound, slot.sound)]);
}

/** What plays a part, as it is given. */
export const addCast = (show: Show, cast: Cast): Command =>
  command('cast', { part: show.songbook.parts[cast.part].name }, [insert(['casting', cast.id], cast)]);

/** A program change that may come into a device from elsewhere. */
export const addOutside = (show: Show, change: OutsideChange): Command =>
  command('add-outside', { device: show.rig.devices[change.device].name }, [insert(['outside', change.id], change)]);

export function removeOutside(show: Show, id: string): Command {
  const change = show.rig.outside[id];
  return command('remove-outside', { device: show.rig.devices[change.device].name }, [remove(['outside', id], change)]);
}

export const renameSongbook = (show: Show, name: string): Command =>
  command('rename-songbook', { name }, [set(['name'], name, show.songbook.name, 'songbook')]);

/** A part's planned feet and cues. */
export function setCast<K extends 'before' | 'after' | 'again'>(
  show: Show,
  id: string,
  field: K,
  value: Cast[K],
): Command {
  const cast = show.rig.casting[id];
  return command('set-cast', { part: show.songbook.parts[cast.part].name }, [
    set(['casting', id, field], value, cast[field]),
  ]);
}
