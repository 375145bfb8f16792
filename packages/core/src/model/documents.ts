import type { Literal, Owner, PowerUp } from './anatomy.ts';

/** Two documents, changed by the same steps: the rig, and the songbook that several rigs can cast. */
export const rigFormat = 'yunta-rig';
export const songbookFormat = 'yunta-songbook';
export const formatVersion = 1;

/** A fractional index: plain string comparison gives the order, and there is always room between two. */
export type Order = string;

/** `device/control`, with `device/preset` for the current preset's wire number (bank × bank size + program). */
export type ControlRef = string;

export interface DeviceType {
  readonly id: string;
  readonly revision: number;
  readonly name: string;
  readonly archetype: string;
  readonly params: Readonly<Record<string, unknown>>;
}

export interface StoredPreset {
  readonly name?: string;
  /** What a recall loads; null = nobody knows. A control not named here is unknown too. */
  readonly values: Readonly<Record<string, Literal | null>>;
  /** Controls that this preset does not store, so that a recall leaves them as they are. */
  readonly keeps?: readonly string[];
  /** A delay's time as a part of the beat that it is meant to keep. */
  readonly sync?: NoteValue;
}

/** Lengths that a synced delay keeps, of the quarter note. */
export const noteValues = {
  half: 2,
  'dotted-quarter': 1.5,
  quarter: 1,
  'quarter-triplet': 2 / 3,
  'dotted-eighth': 0.75,
  eighth: 0.5,
  'eighth-triplet': 1 / 3,
  sixteenth: 0.25,
} as const;
export type NoteValue = keyof typeof noteValues;

export interface Device {
  readonly id: string;
  readonly name: string;
  readonly order: Order;
  readonly place: string;
  readonly type: DeviceType;
  /** Receive channel 1–16, or 'omni'; null where it does not listen. */
  readonly channel: number | 'omni' | null;
  /** What the panel calls the first preset: 0 or 1. */
  readonly countsFrom: 0 | 1;
  readonly presets: Readonly<Record<string, StoredPreset>>;
  /** Foot switches that the player is meant to press. */
  readonly plannedFeet: readonly string[];
  /** Facts of this very unit that differ from its type's. */
  readonly owners: Readonly<Record<string, Owner>>;
  readonly powerUps: Readonly<Record<string, PowerUp>>;
  /** Said outright where the wiring does not tell which loop holds it, or which control is its own switch. */
  readonly switching?: { readonly loop?: ControlRef; readonly own?: ControlRef };
  /** Which of this controller's slots a received program change calls. */
  readonly calls?: { readonly channel: number; readonly programs: Readonly<Record<string, string>> };
  /** A slot that fires when this controller is powered up. */
  readonly powerUpSlot?: string;
  readonly momentaries: Readonly<Record<string, MomentaryActions>>;
  /** Sends and returns that are used alone on purpose (a return as an input, a send as a line out). */
  readonly oneWay?: readonly string[];
}

export interface MomentaryActions {
  readonly press: readonly Action[];
  readonly release: readonly Action[];
}

export interface Plug {
  readonly device: string;
  readonly jack: string;
}

export interface Cable {
  readonly id: string;
  readonly tag: string;
  readonly order: Order;
  readonly kind: 'signal' | 'speaker' | 'midi' | 'contact';
  /** Two or more; outputs drive, inputs receive, all of them joined pole to pole. */
  readonly plugs: readonly Plug[];
  /** Metres; null while nobody measured. */
  readonly length: number | null;
  readonly loom: string | null;
}

export interface Place {
  readonly id: string;
  readonly name: string;
  readonly order: Order;
}

export interface Sound {
  readonly id: string;
  readonly name: string;
  readonly order: Order;
  readonly role: string;
  readonly silence: boolean;
  readonly wants: Readonly<Record<ControlRef, Literal>>;
  /** Wanting a pedal on lays its loop in and its own switch on; off lays its own switch off, or its loop out. */
  readonly pedals: Readonly<Record<string, 'on' | 'off'>>;
}

/** One thing a slot does. Channels 1–16, programs and values as sent. */
export type Action =
  | { readonly kind: 'program'; readonly channel: number; readonly program: number }
  | { readonly kind: 'control'; readonly channel: number; readonly cc: number; readonly value: number }
  | { readonly kind: 'loop'; readonly loop: string; readonly to: 0 | 1 }
  | { readonly kind: 'contact'; readonly contact: string; readonly to: 0 | 1 }
  | { readonly kind: 'wait'; readonly ms: number }
  | { readonly kind: 'save'; readonly loop: string }
  | { readonly kind: 'restore'; readonly loop: string };

export interface Slot {
  readonly id: string;
  readonly controller: string;
  readonly bank: number;
  readonly position: number;
  readonly sound: string | null;
  /** null: generated from the sound and kept in step with it; else written by hand. */
  readonly actions: readonly Action[] | null;
}

export type CastAction =
  | { readonly kind: 'foot'; readonly device: string; readonly switch: string }
  | { readonly kind: 'cue'; readonly control: ControlRef; readonly value: Literal };

/** What a part of a song plays on this rig. */
export interface Cast {
  readonly id: string;
  readonly part: string;
  readonly slot: string;
  readonly before: readonly CastAction[];
  readonly after: readonly CastAction[];
  /** Press even where the part before left this very slot on. */
  readonly again: boolean;
}

export interface OutsideChange {
  readonly id: string;
  readonly device: string;
  readonly channel: number;
  readonly program: number;
}

export type FaultKind = 'sent' | 'link' | 'receiver' | 'edge' | 'restart';
export const faultKinds: readonly FaultKind[] = ['sent', 'link', 'receiver', 'edge', 'restart'];

export interface RigSettings {
  /** Roles in the order of the switches under the foot. */
  readonly roles: readonly string[];
  readonly faults: readonly FaultKind[];
  /** Past this many messages one press is given up as *cannot be known*. */
  readonly messageLimit: number;
  /** The set list that *in set order* follows; null: the first. */
  readonly setList: string | null;
  /** Which side of a question of practice the rig is on; a question not answered takes the first side. */
  readonly schools?: Partial<Schools>;
}

/** Questions on which practitioners disagree, each with its sides. */
export const schools = {
  foot: ['stored sounds', 'pedal by pedal', 'mixed'],
  tempo: ['stored by song', 'tapped'],
  time: ['after the gain', 'in front'],
  gate: ['before the tails', 'last of the line'],
  gain: ['pedals in front', 'gain in the loop'],
} as const;
export type Schools = { readonly [K in keyof typeof schools]: (typeof schools)[K][number] };
export const schoolOf = <K extends keyof Schools>(rig: Rig, question: K): Schools[K] =>
  (rig.settings.schools?.[question] ?? schools[question][0]) as Schools[K];

/** A finding that somebody has looked at and decided to live with. */
export interface Waiver {
  readonly id: string;
  readonly rule: string;
  readonly at: { readonly sound?: string; readonly slot?: string; readonly device?: string; readonly part?: string };
  readonly reason: string;
}

export interface Rig {
  readonly format: typeof rigFormat;
  readonly version: number;
  readonly id: string;
  readonly name: string;
  readonly settings: RigSettings;
  readonly places: Readonly<Record<string, Place>>;
  readonly devices: Readonly<Record<string, Device>>;
  readonly cables: Readonly<Record<string, Cable>>;
  readonly sounds: Readonly<Record<string, Sound>>;
  readonly slots: Readonly<Record<string, Slot>>;
  readonly casting: Readonly<Record<string, Cast>>;
  readonly outside: Readonly<Record<string, OutsideChange>>;
  readonly waivers?: Readonly<Record<string, Waiver>>;
}

export interface Song {
  readonly id: string;
  readonly name: string;
  readonly order: Order;
  /** Quarter notes a minute; null where nobody set one. */
  readonly tempo: number | null;
  /** Beats in a bar and the note that a beat is; 4/4 where nobody said. */
  readonly meter?: { readonly beats: number; readonly unit: 2 | 4 | 8 | 16 };
  readonly instrument?: string;
  readonly tuning?: string;
}

export interface Part {
  readonly id: string;
  readonly song: string;
  readonly name: string;
  readonly order: Order;
  /** Bars that it lasts; unknown where absent. */
  readonly bars?: number;
  /** Where it differs from the song's. */
  readonly instrument?: string;
  readonly tuning?: string;
  /** Nothing of this rig is to be heard in it. */
  readonly silent?: boolean;
}

export interface SetList {
  readonly id: string;
  readonly name: string;
  readonly order: Order;
  readonly songs: readonly string[];
}

export interface Songbook {
  readonly format: typeof songbookFormat;
  readonly version: number;
  readonly id: string;
  readonly name: string;
  readonly songs: Readonly<Record<string, Song>>;
  readonly parts: Readonly<Record<string, Part>>;
  readonly setLists: Readonly<Record<string, SetList>>;
}

/** What every judgement is a function of. */
export interface Show {
  readonly rig: Rig;
  readonly songbook: Songbook;
}

/** What plays a part on this rig. */
export const castOf = (rig: Rig, part: string): Cast | undefined =>
  Object.values(rig.casting).find((cast) => cast.part === part);

export const controlRef = (device: string, control: string): ControlRef => `${device}/${control}`;

export function splitRef(ref: ControlRef): { readonly device: string; readonly control: string } {
  const at = ref.indexOf('/');
  return { device: ref.slice(0, at), control: ref.slice(at + 1) };
}

export const byOrder = (
  a: { readonly order: Order; readonly id: string },
  b: { readonly order: Order; readonly id: string },
): number => (a.order < b.order ? -1 : a.order > b.order ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

export function inOrder<T extends { readonly order: Order; readonly id: string }>(
  record: Readonly<Record<string, T>>,
): readonly T[] {
  const list = Object.values(record);
  // Mostly they are filed in order.
  for (let i = 1; i < list.length; i += 1) if (byOrder(list[i - 1], list[i]) > 0) return list.sort(byOrder);
  return list;
}

export const emptyRig = (id: string, name: string): Rig => ({
  format: rigFormat,
  version: formatVersion,
  id,
  name,
  settings: { roles: [], faults: faultKinds, messageLimit: 10_000, setList: null },
  places: {},
  devices: {},
  cables: {},
  sounds: {},
  slots: {},
  casting: {},
  outside: {},
});

export const emptySongbook = (id: string, name: string): Songbook => ({
  format: songbookFormat,
  version: formatVersion,
  id,
  name,
  songs: {},
  parts: {},
  setLists: {},
});
