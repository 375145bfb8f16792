import { assertNever } from '../units/problem.ts';
import type { JackKind } from './jack-kinds.ts';
/**
 * What a device is made of, whatever its type: jacks, sections that join them, controls and how they answer.
 * An archetype (code) makes an anatomy from parameters (data); everything downstream reads anatomies only.
 */

/** A control's value: 0/1 for a switch, a word or a number otherwise. */
export type ControlValue = string | number;

export type Domain =
  | { readonly kind: 'switch' }
  | { readonly kind: 'choice'; readonly values: readonly ControlValue[] }
  | { readonly kind: 'range'; readonly min: number; readonly max: number }
  /** A place in an order of so many, counted from 1: of a block in a chain, for example. */
  | { readonly kind: 'position'; readonly count: number };

/** What a variable is after power-up: a value, what it was when the power went, or anything. */
export type PowerUp =
  { readonly is: 'value'; readonly value: ControlValue } | { readonly is: 'last-state' } | { readonly is: 'any' };

/** What a section does to the sound, as far as rules about order care. */
export const effectKinds = [
  'compressor',
  'boost',
  'drive',
  'equaliser',
  'modulation',
  'pitch',
  'delay',
  'reverb',
  'gate',
  'cabinet-simulation',
  'other',
] as const;
export type EffectKind = (typeof effectKinds)[number];

/** Who answers for a control: a slot must deliver it, or the player sets it and it is a cue. */
export type Owner = 'programmed' | 'foot' | 'hand' | 'live';

export interface Control {
  readonly id: string;
  readonly label: string;
  readonly domain: Domain;
  /** `preset`: loaded by a recall; `slot`: a loop or the like, kept by a controller; `global`: kept by the device. */
  readonly scope: 'preset' | 'slot' | 'global';
  readonly powerUp: PowerUp;
  readonly owner: Owner;
  /**
   * Contact inputs whose bits give this control its value. Keys of the table are the bits in order, '01' for example.
   */
  readonly contacts?: {
    readonly inputs: readonly string[];
    readonly table: Readonly<Record<string, ControlValue>>;
    /** `hold`: the inputs rule and nothing else moves it; `write`: it is written when a bit moves. */
    readonly mode: 'write' | 'hold';
    /** Inputs that hold do so only where something is plugged into one of their jacks. */
    readonly onlyWhilePlugged?: boolean;
  };
  /** Decides how grave a wrong value is. */
  readonly weight?: 'channel' | 'mute' | 'level';
  /** An expression pedal moves it: where it stands is where a foot left it. */
  readonly expression?: boolean;
  /** While it is on, a sound is held and rings on, whatever is played: a freeze, an infinite repeat. */
  readonly holds?: boolean;
}

export interface Jack {
  readonly id: string;
  readonly label: string;
  readonly kind: JackKind;
  /** Signal poles besides the sleeve, `tip` alone when absent. */
  readonly poles?: readonly string[];
  /** A loudspeaker connector: a plain instrument cable must not go here. */
  readonly speaker?: boolean;
  /** A power amp's output that comes in here goes on to this jack: what is plugged in there is the load. */
  readonly passesPowerTo?: string;
  /** Which side of a stereo pair the whole jack carries; the right one names the left as its twin. */
  readonly side?: Side;
  readonly twin?: string;
  /** Its tip is the left and its ring the right side. */
  readonly stereo?: boolean;
  /** A line for the desk: its two poles carry one signal. */
  readonly balanced?: boolean;
  /** The jack whose socket it is in: one sends on the tip, the other returns on the ring, and one plug serves both. */
  readonly shares?: string;
}

/** The jacks of the socket that one is in: itself, and what shares it. */
export const socketOf = (jacks: readonly Jack[], jack: Pick<Jack, 'id' | 'shares'>): readonly Jack[] =>
  jacks.filter((other) => other.id === jack.id || other.id === jack.shares || other.shares === jack.id);

export type Side = 'left' | 'right';

/** Which side of a pair a pole of a jack carries; undefined where it is mono. */
export const sideOfPole = (jack: Pick<Jack, 'side' | 'stereo'>, pole: string): Side | undefined =>
  jack.stereo ? (pole === 'ring' ? 'right' : 'left') : jack.side;

export interface Condition {
  /** Each named control, or the `preset`, must hold one of the values. */
  readonly controls?: Readonly<Record<string, readonly ControlValue[]>>;
  /** Plug presence, which counts even where the cable's far end is open. */
  readonly plugs?: Readonly<Record<string, boolean>>;
}

/** Joins two points inside a device: a jack's pole (`in`, `in.ring`) or an inner point (`*bus1`). */
export interface Section {
  readonly id: string;
  readonly label: string;
  readonly from: string;
  readonly to: string;
  /** True where it does something to the sound; wires and bypasses are contracted in a sounding trace. */
  readonly active: boolean;
  /** Small-signal gain in dB; 0 where nobody said. */
  readonly gainDb?: number;
  readonly when?: Condition;
  /** Controls whose values are heard in it; `preset` stands for stored content that nobody entered. */
  readonly parameters?: readonly string[];
  /** What it does, where a rule about order may ask. */
  readonly effect?: EffectKind;
  /** Sections of one device that are the sides of one thing share this name: the signal passes them together. */
  readonly pair?: string;
}

/** A send with the return that belongs to it. */
export interface Insert {
  readonly send: string;
  readonly return: string;
}

export type BankScheme = 'none' | 'msb' | 'lsb' | 'both';

export type RepeatedRecall =
  | { readonly is: 'reload' }
  | { readonly is: 'ignored' }
  | { readonly is: 'alternates' }
  | { readonly is: 'flips'; readonly control: string };

export interface PresetFacts {
  /** The numbers that exist, as bank × bank size + program. */
  readonly numbers: { readonly from: number; readonly count: number } | { readonly list: readonly number[] };
  readonly powerUp: PowerUp;
  readonly scheme: BankScheme;
  readonly bankSize: number;
  /** A sticky device remembers its bank; another falls back to its home bank after each program change. */
  readonly sticky: boolean;
  readonly home: readonly [msb: number, lsb: number];
  readonly repeat: RepeatedRecall;
  /** The control that says which of the states inside a preset is on, where it has several. */
  readonly state?: string;
}

export interface ControlMessage {
  readonly cc: number;
  /** A control's id, or `preset` for a step through the presets. */
  readonly control: string;
  readonly mode: 'absolute' | 'switch' | 'toggle' | 'next';
  readonly by?: number;
  readonly wrap?: boolean;
  /** Switching this one on switches those off. */
  readonly exclusive?: readonly string[];
  /**
   * What each value sets, where an absolute message sets no number: by itself it sets the word at that place of the
   * domain, counted from 0.
   */
  readonly table?: Readonly<Record<string, ControlValue>>;
  readonly armed?: Armed;
}

/** The message or press works only while this control, or the `preset`, holds one of these values. */
export interface Armed {
  readonly control: string;
  readonly values: readonly ControlValue[];
}

export type FootAction =
  | { readonly toggle: string; readonly armed?: Armed }
  | { readonly next: string; readonly by?: number; readonly wrap?: boolean; readonly armed?: Armed }
  /** Puts a control on a value, whatever it was. */
  | { readonly put: string; readonly to: ControlValue; readonly armed?: Armed }
  /** Moves a control from each value to the one that the table has for it; from any other it does not move. */
  | { readonly turn: string; readonly table: Readonly<Record<string, ControlValue>>; readonly armed?: Armed }
  | { readonly flip: string };

/** The control, or the `preset`, that a press moves; undefined where it flips a contact's bit. */
export function movedBy(action: FootAction): string | undefined {
  if ('flip' in action) return undefined;
  if ('toggle' in action) return action.toggle;
  if ('put' in action) return action.put;
  return 'turn' in action ? action.turn : action.next;
}

export interface FootSwitch {
  readonly id: string;
  readonly label: string;
  readonly actions: readonly FootAction[];
}

export interface ContactInput {
  /** The jack's id. */
  readonly id: string;
  /** `level` copies the contact, `edge` flips its bit on closing. */
  readonly kind: 'level' | 'edge';
  readonly powerUp: 0 | 1 | 'last-state';
}

export interface ContactOutput {
  readonly id: string;
  readonly kind: 'latched' | 'held' | 'pulsed';
  /** When a pulsed contact pulses: at every press, or only when its believed state changes. */
  readonly policy: 'every' | 'belief';
  /** 1: it is closed at rest, without power too, and a held one opens while it is held. Open at rest where absent. */
  readonly rests?: 0 | 1;
}

/** Things that stand in an order which is stored: a control says of each its place, counted from 1. */
export interface StoredOrder {
  /** No control's id. */
  readonly id: string;
  readonly label: string;
  /** In the order that they are told in. */
  readonly of: readonly { readonly control: string; readonly name: string }[];
  /**
   * Where the line may part in two: beside each thing the control that says on which side it stands, and the places
   * before which the other side leaves (0: nowhere) and after which it comes back.
   */
  readonly branch?: { readonly sides: readonly string[]; readonly leaves: string; readonly joins: string };
}

/** The sides of a line that parts: the one that goes on, and the one beside it. */
export const lineSides = ['line', 'beside'] as const;

export interface ControllerFacts {
  readonly banks: number;
  readonly positions: number;
  /** Ids of the controls that are this controller's loops, in signal order. */
  readonly loops: readonly string[];
  readonly contacts: readonly ContactOutput[];
  readonly momentaries: readonly { readonly id: string; readonly label: string }[];
  /** Whether slots answer while a momentary is held. */
  readonly firesWhileHeld: boolean;
  readonly bankMove: 'silent' | 'fires';
  readonly repeatPress: 'fires' | 'ignored' | 'alternates';
  readonly callRepeat: 'fires' | 'ignored';
  /** How its switches lie under the foot: this many in a row, that far apart. */
  readonly floor?: { readonly perRow: number; readonly pitchMm: number };
  /** Switches from a position on, and loops from one on, are a group of their own: slots of one leave the other. */
  readonly secondGroup?: { readonly position: number; readonly loop: number };
  /** How many characters of a slot's name its display shows. */
  readonly nameLength?: number;
}

/** How a contact stands while nobody moves it, without power too: 0 open, 1 closed. */
export const restOf = ({ contacts }: Pick<ControllerFacts, 'contacts'>, id: string): 0 | 1 =>
  contacts.find((contact) => contact.id === id)?.rests ?? 0;

export interface Anatomy {
  readonly jacks: readonly Jack[];
  readonly sections: readonly Section[];
  readonly controls: readonly Control[];
  readonly presets?: PresetFacts;
  readonly messages: readonly ControlMessage[];
  readonly inputs: readonly ContactInput[];
  readonly switches: readonly FootSwitch[];
  readonly controller?: ControllerFacts;
  /** From the last byte of a recall; messages meanwhile are dropped or queued. */
  readonly busy?: { readonly ms: number; readonly policy: 'drop' | 'queue' };
  /** Sends its own recall on, on this channel. */
  readonly emits?: { readonly channel: number };
  /** The control that is this pedal's own on/off switch. */
  readonly ownSwitch?: string;
  /** Inner point or pole where sound is born (an instrument). */
  readonly source?: string;
  /** Controls that are places in an order, each of them in one order at most. */
  readonly orders?: readonly StoredOrder[];
  /** Sends and returns that belong together; loops of a switcher are found from its sections. */
  readonly inserts?: readonly Insert[];
  /** Global settings of the unit that no message reaches: set by hand, back at factory after a repair. */
  readonly settings?: readonly { readonly label: string; readonly value: string }[];
  /** Where sound leaves the rig (a cabinet, a line to the desk). */
  readonly destination?: string;
}

export const emptyAnatomy: Anatomy = { jacks: [], sections: [], controls: [], messages: [], inputs: [], switches: [] };

export function domainValues(domain: Domain): readonly ControlValue[] {
  switch (domain.kind) {
    case 'switch':
      return [0, 1];
    case 'choice':
      return domain.values;
    case 'position':
      return counted(1, domain.count);
    case 'range':
      return counted(domain.min, Math.floor(domain.max - domain.min) + 1);
    default:
      return assertNever(domain, 'domain');
  }
}

/** The first of a domain's values. */
export function firstValue(domain: Domain): ControlValue {
  switch (domain.kind) {
    case 'switch':
      return 0;
    case 'choice':
      return domain.values[0];
    case 'position':
      return 1;
    case 'range':
      return domain.min;
    default:
      return assertNever(domain, 'domain');
  }
}

export function inDomain(domain: Domain, value: unknown): value is ControlValue {
  switch (domain.kind) {
    case 'switch':
      return value === 0 || value === 1;
    case 'choice':
      return domain.values.includes(value as ControlValue);
    case 'position':
      return typeof value === 'number' && Number.isInteger(value) && value >= 1 && value <= domain.count;
    case 'range':
      return typeof value === 'number' && Number.isInteger(value) && value >= domain.min && value <= domain.max;
    default:
      return assertNever(domain, 'domain');
  }
}

/**
 * What an absolute control change of this value sets: what the message's table says, else the number where the domain
 * is of numbers, else the word at that place. Undefined where it sets nothing.
 */
export function valueSetBy(
  { table }: Pick<ControlMessage, 'table'>,
  domain: Domain,
  value: number,
): ControlValue | undefined {
  if (table) return table[String(value)];
  if (domain.kind !== 'choice' || domain.values.every((option) => typeof option === 'number')) return value;
  return domain.values[value];
}

export function presetExists(facts: PresetFacts, number: number): boolean {
  const { numbers } = facts;
  return 'list' in numbers
    ? numbers.list.includes(number)
    : number >= numbers.from && number < numbers.from + numbers.count;
}

export function presetNumbers(facts: PresetFacts): readonly number[] {
  const { numbers } = facts;
  return 'list' in numbers ? [...numbers.list].sort((a, b) => a - b) : counted(numbers.from, numbers.count);
}

function counted(from: number, count: number): number[] {
  const numbers: number[] = [];
  for (let i = 0; i < count; i += 1) numbers.push(from + i);
  return numbers;
}
