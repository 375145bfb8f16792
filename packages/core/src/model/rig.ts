import type { Brand } from '../units/brand.ts';
import type { Metres, MidiChannel, Milliseconds, SevenBit } from '../units/quantities.ts';
import type { ControlValue } from './anatomy.ts';
import { boardShape, bodyShape, buyShape, reelShape, spotShape } from './body.ts';
import { packShape, shopShape } from './pack.ts';
import { powerLeadShape, powerSettingsShape, powerShape, unitPowerShape } from './power.ts';
import {
  anything,
  branded,
  constant,
  controlValue,
  type DataOf,
  decimal,
  either,
  id,
  integer,
  list,
  nullable,
  object,
  oneOf,
  record,
  type Shape,
  tagged,
  text,
  yesNo,
} from './shape.ts';

/** The rig: devices, cables, sounds, slots, and what plays which part. References are checked in validate.ts. */
export const rigFormat = 'yunta-rig';
export const formatVersion = 2;

/** Past these a document is refused. */
export const limits = {
  devices: 2_000,
  cables: 6_000,
  sounds: 2_000,
  slots: 4_000,
  parts: 10_000,
  actions: 400,
  places: 100,
  variants: 40,
  variantSteps: 4_000,
} as const;

export type DeviceId = Brand<string, 'device'>;
export type SoundId = Brand<string, 'sound'>;
export type SlotId = Brand<string, 'slot'>;
export type CableId = Brand<string, 'cable'>;
export type PartId = Brand<string, 'part'>;
export type SongId = Brand<string, 'song'>;

/** A fractional index: plain string comparison gives the order, and there is always room between two. */
export type Order = string;

/** `device/control`, with `device/preset` for the current preset's wire number (bank × bank size + program). */
export type ControlRef = string;

/** What anything is called. Shown, and never computed with. */
export const nameShape = text(200, 1);
export const orderShape: Shape<Order> = text(120, 1);
export const partId = branded<PartId>(id);
export const songId = branded<SongId>(id);
const deviceId = branded<DeviceId>(id);
const soundId = branded<SoundId>(id);
const slotId = branded<SlotId>(id);
const cableId = branded<CableId>(id);
const channel = branded<MidiChannel>(integer(1, 16));
const sevenBit = branded<SevenBit>(integer(0, 127));

const refPattern = /^[A-Za-z0-9][A-Za-z0-9._-]*\/[A-Za-z0-9][A-Za-z0-9._-]*$/;
const isRef = (key: string): boolean => refPattern.test(key) && key.length <= 130;
const ref: Shape<ControlRef> = {
  check: (value, at, into) => {
    if (typeof value !== 'string' || !isRef(value))
      into.push({ pointer: at, code: 'wrong-type', facts: { expected: 'device/control' } });
  },
  schema: { type: 'string', pattern: '^[^/]+/[^/]+$' },
};
const isPresetNumber = (key: string): boolean => /^(0|[1-9][0-9]{0,6})$/.test(key);

// ---- devices ----

export const powerUpShape = tagged('is', {
  value: object({ is: constant('value'), value: controlValue }),
  'last-state': object({ is: constant('last-state') }),
  any: object({ is: constant('any') }),
});
export const ownerShape = oneOf('programmed', 'foot', 'hand', 'live');

/** One thing a slot does. Channels 1–16, programs and values as sent. */
export const actionShape = tagged('kind', {
  program: object({ kind: constant('program'), channel, program: sevenBit }),
  control: object({ kind: constant('control'), channel, cc: sevenBit, value: sevenBit }),
  /** Puts a control that the controller's slots store (a loop, for example) on a value. */
  set: object({ kind: constant('set'), control: id, value: controlValue }),
  contact: object({ kind: constant('contact'), contact: id, to: oneOf(0, 1) }),
  wait: object({ kind: constant('wait'), ms: branded<Milliseconds>(decimal(0, 60_000)) }),
  /** Remembers what such a control is, and puts it back. */
  save: object({ kind: constant('save'), control: id }),
  restore: object({ kind: constant('restore'), control: id }),
});
export type Action = DataOf<typeof actionShape>;
const actions = list(actionShape, limits.actions);

const momentaryShape = object({ press: actions, release: actions });
export interface MomentaryActions extends DataOf<typeof momentaryShape> {}

export const typeShape = object(
  {
    id: text(120, 1),
    revision: integer(1, 1_000_000),
    name: nameShape,
    archetype: id,
    params: record(anything, 60),
  },
  {
    /** What it takes and gives of power; absent while nobody said. */
    power: powerShape,
    /** Its outline and weight; absent while nobody said. */
    body: bodyShape,
    buy: buyShape,
  },
);
export interface DeviceType extends DataOf<typeof typeShape> {}

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

const presetShape = object(
  {
    /** What a recall loads; null = nobody knows. A control not named here is unknown too. */
    values: record(nullable(controlValue), 200),
  },
  {
    name: text(200),
    /** Controls that this preset does not store, so that a recall leaves them as they are. */
    keeps: list(id, 200),
    /** A delay's time as a part of the beat that it is meant to keep. */
    sync: oneOf(...(Object.keys(noteValues) as NoteValue[])),
    /** From its input to its output, as measured or as its papers say. */
    latencyMs: branded<Milliseconds>(decimal(0, 1_000)),
    /** The same in one of its states, where that is another than the preset's: filed by what the state is called. */
    latencyInState: record(branded<Milliseconds>(decimal(0, 1_000)), 100),
  },
);
export interface StoredPreset extends DataOf<typeof presetShape> {}

/**
 * Where a piece may be wanted beside a loop of a number. `wet`: on the line beside, which a tap of the loudspeaker line
 * or a box feeds; `kept`: it stays as it is wired.
 */
export const wantedPlaces = ['front', 'loop', 'insert', 'after', 'wet', 'left out', 'kept'] as const;
/** What can switch a piece: a loop, the slot by message or contact, its own foot switch; or it is left on. */
export const switchingMeans = ['loop', 'message', 'foot', 'always'] as const;

export type SwitchingMeans = (typeof switchingMeans)[number];

const intentShape = object(
  {},
  {
    /** Where the piece is wanted; wherever it is best where absent. */
    place: either(oneOf(...wantedPlaces), integer(1, 200)),
    /** What may switch it; what its type allows where absent. None: it is never off. */
    means: list(oneOf(...switchingMeans), 4),
  },
);
export interface DeviceIntent extends DataOf<typeof intentShape> {}

const deviceShape = object(
  {
    id: deviceId,
    name: nameShape,
    order: orderShape,
    place: id,
    type: typeShape,
    /** Receive channel 1–16, or 'omni'; null where it does not listen. */
    channel: nullable(either(constant('omni'), channel)),
    /** What the panel calls the first preset. */
    firstPresetNumber: oneOf(0, 1),
    presets: record(presetShape, 4_000, isPresetNumber),
    /** Foot switches that the player is meant to press. */
    plannedSwitches: list(id, 40),
    /** Facts of this very unit that differ from its type's. */
    owners: record(ownerShape, 200),
    powerUps: record(powerUpShape, 200),
    momentaries: record(momentaryShape, 20),
  },
  {
    /** Said outright where the wiring does not tell which loop holds it, or which control is its own switch. */
    switching: object({}, { loop: ref, own: ref }),
    /** Which of this controller's slots a received program change calls. */
    calls: object({ channel, programs: record(slotId, 128, isPresetNumber) }),
    /** A slot that fires when this controller is powered up. */
    powerUpSlot: slotId,
    /** Sends and returns that are used alone on purpose (a return as an input, a send as a line out). */
    oneWay: list(id, 400),
    /** What it does, or what one of its controls does, is to be heard at these ends of the line and at no other. */
    onlyFor: list(object({ to: list(deviceId, 40, 1) }, { control: id }), 40, 1),
    /** The case that it travels in. */
    case: id,
    /** Where it stands on the board of its place. */
    at: spotShape,
    /** How this very unit is powered. */
    power: unitPowerShape,
    /** What is wanted of it where loops are given out; a guess from its type where nothing is said. */
    intent: intentShape,
  },
);
export interface Device extends DataOf<typeof deviceShape> {}

// ---- cables ----

const plugShape = object({ device: deviceId, jack: id });
export interface Plug extends DataOf<typeof plugShape> {}

/** One pole of one of a cable's plugs, that counted from 0. */
const poleShape = object({ plug: integer(0, 63), pole: id });
export interface CablePole extends DataOf<typeof poleShape> {}

const cableEndShape = object(
  {},
  {
    /** The connector, as people call it. */
    plug: text(60, 1),
    /** Straight or at an angle. */
    bent: yesNo,
  },
);
export interface EndFacts extends DataOf<typeof cableEndShape> {}

const cableShape = object(
  {
    id: cableId,
    /** Shown and printed, and never computed with. */
    tag: text(40),
    order: orderShape,
    kind: oneOf('signal', 'speaker', 'midi', 'contact', 'expression', 'power', 'mains'),
    /** Two or more; outputs drive, inputs receive, all of them joined pole to pole, unless `poles` says otherwise. */
    plugs: list(plugShape, 64, 2),
    /** Null while nobody measured. */
    length: nullable(branded<Metres>(decimal(0, 500))),
    loom: nullable(text(80)),
  },
  {
    /** Which poles it joins, wire by wire, where it is not straight: an adapter, a cord from one stereo jack to two. */
    poles: list(list(poleShape, 64, 2), 64, 1),
    /** Of a power cable: what is special about it. */
    lead: powerLeadShape,
    /** What is on its ends, where somebody has said, by the jack that each is in; of other jacks passed over. */
    ends: record(cableEndShape, 64, isRef),
  },
);
export interface Cable extends DataOf<typeof cableShape> {}

/**
 * Fields that people read, and that nothing is wired or worked out by: an edit of one changes no trace and no verdict.
 */
export const displayOnly = {
  devices: new Set<keyof Device>(['firstPresetNumber', 'place', 'intent', 'power', 'at', 'case']),
  cables: new Set<keyof Cable>(['tag', 'length', 'loom', 'lead', 'ends']),
} as const;

const placeShape = object(
  { id, name: nameShape, order: orderShape },
  { /** What its pieces stand on. */ board: boardShape },
);
export interface Place extends DataOf<typeof placeShape> {}

// ---- sounds and slots ----

const soundShape = object(
  {
    id: soundId,
    name: nameShape,
    order: orderShape,
    role: text(80),
    silence: yesNo,
    wants: record<ControlValue, ControlRef>(controlValue, 1_000, isRef),
    /** Wanting a pedal on lays its loop in and its own switch on; off lays its own switch off, or its loop out. */
    pedals: record(oneOf('on', 'off'), limits.devices),
  },
  {
    /**
     * The sound that it builds on: what it wants otherwise is its own, all else it holds too and follows that sound.
     * `only`: it is that sound’s twin, and may be otherwise in these alone (controls, or devices for their pedals).
     */
    basedOn: object({ sound: soundId }, { only: list(text(130, 1), 200) }),
    /** Pieces that it wants off, but that may be heard all the same; those that are gone are passed over. */
    tolerates: list(deviceId, limits.devices),
  },
);
export interface Sound extends DataOf<typeof soundShape> {}

const slotShape = object(
  {
    id: slotId,
    controller: deviceId,
    bank: integer(0, 399),
    position: integer(0, 199),
    sound: nullable(soundId),
    /** null: generated from the sound and kept in step with it; else written by hand. */
    actions: nullable(actions),
  },
  {
    /** What the unit’s display is to show, where that is not the sound’s own name in short. */
    name: text(40, 1),
    /** Written by hand, and meant to do what another slot does, which may be gone: it follows that one. */
    copyOf: slotId,
  },
);
export interface Slot extends DataOf<typeof slotShape> {}

// ---- casting ----

const castActionShape = tagged('kind', {
  /** `meant`: what the press is to bring its control to, where people say so; never computed with. */
  foot: object({ kind: constant('foot'), device: deviceId, switch: id }, { meant: controlValue }),
  cue: object({ kind: constant('cue'), control: ref, value: controlValue }),
});
export type CastAction = DataOf<typeof castActionShape>;

/** What a part of a song plays on this rig: a slot, or a sound. */
const castShape = object(
  {
    id,
    part: partId,
    /** Null: a sound is played, by the first slot that it has, or by feet and hands where it has none. */
    slot: nullable(slotId),
    before: list(castActionShape, 40),
    after: list(castActionShape, 40),
    /** Press even where the part before left this very slot on. */
    again: yesNo,
  },
  {
    /** Where `slot` is null: what is played. */
    sound: soundId,
  },
);
export interface Cast extends DataOf<typeof castShape> {}

const outsideShape = object({ id, device: deviceId, channel, program: sevenBit });
export interface OutsideChange extends DataOf<typeof outsideShape> {}

// ---- settings ----

/** Questions on which practitioners disagree, each with its sides. */
export const conventions = {
  foot: ['stored sounds', 'pedal by pedal', 'mixed'],
  tempo: ['stored by song', 'tapped'],
  time: ['after the gain', 'in front'],
  gate: ['before the tails', 'last of the line'],
  gain: ['pedals in front', 'gain in the loop'],
  order: ['as it is heard', 'as it is wired'],
} as const;
export type Conventions = { readonly [K in keyof typeof conventions]: (typeof conventions)[K][number] };

const conventionShapes = Object.fromEntries(
  Object.entries(conventions).map(([question, sides]) => [question, oneOf(...sides)]),
) as { readonly [K in keyof Conventions]: Shape<Conventions[K]> };

export const faultKinds = ['sent', 'link', 'receiver', 'edge', 'restart'] as const;
export type FaultKind = (typeof faultKinds)[number];

const settingsShape = object(
  {
    /** Roles in the order of the switches under the foot. */
    roles: list(text(80, 1), 60),
    faults: list(oneOf(...faultKinds), 5),
    /** Past this many messages one press is given up as *cannot be known*. */
    messageLimit: integer(1, 1_000_000),
    /** The set list that *in set order* follows; null: the first. */
    setList: nullable(id),
  },
  {
    /** Which side of a question of practice the rig is on; a question not answered takes the first side. */
    conventions: object({}, conventionShapes),
    /** What it plays to tonight; where nobody said, stereo that there is counts as meant. */
    width: oneOf('mono', 'stereo'),
    /** In what lengths are shown and typed; metres where absent. They are stored in metres always. */
    lengthUnit: oneOf('m', 'ft'),
    /** Pieces in the order in which the signal is wanted to pass them; those not named stand where their kind does. */
    wantedOrder: list(deviceId, limits.devices),
    /** Where it is plugged in, for how long, and which special leads there are. */
    power: powerSettingsShape,
    /** Cable by the reel, to be cut. */
    reels: list(reelShape, 60),
    /** Cases, and what is packed besides the devices. */
    pack: packShape,
    /** What is to be bought, and for when. */
    shop: shopShape,
  },
);
export interface RigSettings extends DataOf<typeof settingsShape> {}

export type LengthUnit = NonNullable<RigSettings['lengthUnit']>;

export const conventionOf = <K extends keyof Conventions>(rig: Rig, question: K): Conventions[K] =>
  (rig.settings.conventions?.[question] ?? conventions[question][0]) as Conventions[K];

/** A finding that somebody has looked at and accepted. */
const waiverShape = object({
  id,
  rule: text(80, 1),
  at: object({}, { sound: soundId, slot: slotId, device: deviceId, part: partId }),
  reason: text(500, 1),
});
export interface Waiver extends DataOf<typeof waiverShape> {}

/** One step of a variant over the rig that it is of; what it does not name stays as that has it. */
const variantStepShape = object(
  { op: oneOf('insert', 'remove', 'set'), at: list(text(200), 12, 1) },
  { value: anything, old: anything },
);
/** Tonight without the amp, in mono, with a piece that is broken: what is otherwise than in the rig. */
const variantShape = object({
  id,
  name: nameShape,
  order: orderShape,
  steps: list(variantStepShape, limits.variantSteps),
});
export interface Variant extends DataOf<typeof variantShape> {}
export type VariantStep = DataOf<typeof variantStepShape>;

export const rigShape = object(
  {
    format: constant(rigFormat),
    version: constant(formatVersion),
    id,
    name: nameShape,
    settings: settingsShape,
    places: record(placeShape, limits.places),
    devices: record(deviceShape, limits.devices),
    cables: record(cableShape, limits.cables),
    sounds: record(soundShape, limits.sounds),
    slots: record(slotShape, limits.slots),
    casting: record(castShape, limits.parts),
    outside: record(outsideShape, 400),
  },
  { waivers: record(waiverShape, 4_000), variants: record(variantShape, limits.variants) },
);
export interface Rig extends DataOf<typeof rigShape> {}
