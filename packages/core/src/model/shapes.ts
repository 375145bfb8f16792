import {
  anything,
  constant,
  decimal,
  either,
  id,
  integer,
  list,
  literal,
  nullable,
  object,
  oneOf,
  record,
  type Shape,
  tagged,
  text,
  yesNo,
} from './shape.ts';
import { formatVersion, noteValues, rigFormat, schools, songbookFormat } from './documents.ts';

/** Shapes of the two documents, field by field; what refers to what is checked in validate.ts. */
export const limits = {
  devices: 2_000,
  cables: 6_000,
  sounds: 2_000,
  slots: 4_000,
  parts: 10_000,
  actions: 400,
  places: 100,
} as const;

/** What anything is called. */
export const nameShape = text(200, 1);
const name = nameShape;
const order = text(120, 1);
const channel = integer(1, 16);
const sevenBit = integer(0, 127);
const refKey = (key: string): boolean =>
  /^[A-Za-z0-9][A-Za-z0-9._-]*\/[A-Za-z0-9][A-Za-z0-9._-]*$/.test(key) && key.length <= 130;
const ref: Shape = {
  check: (value, at, into) => {
    if (typeof value !== 'string' || !refKey(value)) literalProblem(value, at, into);
  },
  schema: { type: 'string', pattern: '^[^/]+/[^/]+$' },
};
const literalProblem: Shape['check'] = (_, at, into) =>
  into.push({ pointer: at, code: 'wrong-type', facts: { expected: 'device/control' } });
const presetKey = (key: string): boolean => /^(0|[1-9][0-9]{0,6})$/.test(key);

export const powerUpShape = tagged('is', {
  value: object({ is: constant('value'), value: literal }),
  'as-left': object({ is: constant('as-left') }),
  any: object({ is: constant('any') }),
});
export const ownerShape = oneOf('programmed', 'foot', 'hand', 'live');

export const actionShape = tagged('kind', {
  program: object({ kind: constant('program'), channel, program: sevenBit }),
  control: object({ kind: constant('control'), channel, cc: sevenBit, value: sevenBit }),
  loop: object({ kind: constant('loop'), loop: id, to: oneOf(0, 1) }),
  contact: object({ kind: constant('contact'), contact: id, to: oneOf(0, 1) }),
  wait: object({ kind: constant('wait'), ms: decimal(0, 60_000) }),
  save: object({ kind: constant('save'), loop: id }),
  restore: object({ kind: constant('restore'), loop: id }),
});
const actions = list(actionShape, limits.actions);

const typeShape = object({
  id: text(120, 1),
  revision: integer(1, 1_000_000),
  name,
  archetype: id,
  params: record(anything, 60),
});

const deviceShape = object(
  {
    id,
    name,
    order,
    place: id,
    type: typeShape,
    channel: nullable(either(constant('omni'), channel)),
    countsFrom: oneOf(0, 1),
    presets: record(
      object(
        { values: record(nullable(literal), 200) },
        { name: text(200), keeps: list(id, 200), sync: oneOf(...Object.keys(noteValues)) },
      ),
      4_000,
      presetKey,
    ),
    plannedFeet: list(id, 40),
    owners: record(ownerShape, 200),
    powerUps: record(powerUpShape, 200),
    momentaries: record(object({ press: actions, release: actions }), 20),
  },
  {
    switching: object({}, { loop: ref, own: ref }),
    calls: object({ channel, programs: record(id, 128, presetKey) }),
    powerUpSlot: id,
    oneWay: list(id, 400),
  },
);

const cableShape = object({
  id,
  tag: text(40),
  order,
  kind: oneOf('signal', 'speaker', 'midi', 'contact'),
  plugs: list(object({ device: id, jack: id }), 64, 2),
  length: nullable(decimal(0, 500)),
  loom: nullable(text(80)),
});

const castAction = tagged('kind', {
  foot: object({ kind: constant('foot'), device: id, switch: id }),
  cue: object({ kind: constant('cue'), control: ref, value: literal }),
});

const waiver = object({
  id,
  rule: text(80, 1),
  at: object({}, { sound: id, slot: id, device: id, part: id }),
  reason: text(500, 1),
});

export const rigShape: Shape = object(
  {
    format: constant(rigFormat),
    version: constant(formatVersion),
    id,
    name,
    settings: object(
      {
        roles: list(text(80, 1), 60),
        faults: list(oneOf('sent', 'link', 'receiver', 'edge', 'restart'), 5),
        messageLimit: integer(1, 1_000_000),
        setList: nullable(id),
      },
      {
        schools: object(
          {},
          Object.fromEntries(Object.entries(schools).map(([question, sides]) => [question, oneOf(...sides)])),
        ),
      },
    ),
    places: record(object({ id, name, order }), limits.places),
    devices: record(deviceShape, limits.devices),
    cables: record(cableShape, limits.cables),
    sounds: record(
      object({
        id,
        name,
        order,
        role: text(80),
        silence: yesNo,
        wants: record(literal, 1_000, refKey),
        pedals: record(oneOf('on', 'off'), limits.devices),
      }),
      limits.sounds,
    ),
    slots: record(
      object({
        id,
        controller: id,
        bank: integer(0, 399),
        position: integer(0, 199),
        sound: nullable(id),
        actions: nullable(actions),
      }),
      limits.slots,
    ),
    casting: record(
      object({ id, part: id, slot: id, before: list(castAction, 40), after: list(castAction, 40), again: yesNo }),
      limits.parts,
    ),
    outside: record(object({ id, device: id, channel, program: sevenBit }), 400),
  },
  { waivers: record(waiver, 4_000) },
);

export const songbookShape: Shape = object({
  format: constant(songbookFormat),
  version: constant(formatVersion),
  id,
  name,
  songs: record(
    object(
      { id, name, order, tempo: nullable(decimal(20, 400)) },
      {
        meter: object({ beats: integer(1, 32), unit: oneOf(2, 4, 8, 16) }),
        instrument: text(80, 1),
        tuning: text(80, 1),
      },
    ),
    2_000,
  ),
  parts: record(
    object(
      { id, song: id, name, order },
      { bars: integer(1, 2_000), instrument: text(80, 1), tuning: text(80, 1), silent: yesNo },
    ),
    limits.parts,
  ),
  setLists: record(object({ id, name, order, songs: list(id, 400) }), 400),
});

/** What an export file holds: both documents. */
export const showShape: Shape = object({
  format: constant('yunta-show'),
  version: constant(formatVersion),
  rig: rigShape,
  songbook: songbookShape,
});
