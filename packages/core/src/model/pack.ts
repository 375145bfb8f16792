import { type DataOf, decimal, id, integer, list, object, oneOf, text } from './shape.ts';

/** How a case travels: in the hold of an aircraft, in its cabin, or on the ground. */
export const travels = ['ground', 'hold', 'cabin'] as const;

const caseShape = object(
  { id, name: text(80, 1) },
  {
    /** Empty. */
    grams: integer(0, 200_000),
    /** Outer size in mm. */
    size: list(integer(1, 5_000), 3, 3),
    travels: oneOf(...travels),
    /** The colour of its tape, as people call it. */
    tape: text(30, 1),
    packer: text(60, 1),
    /** What the carrier allows, in kg. */
    mostKg: decimal(0.1, 500),
  },
);
export interface PackCase extends DataOf<typeof caseShape> {}

const itemShape = object(
  { id, name: text(80, 1), count: integer(1, 1_000) },
  {
    /** Of one. */
    grams: integer(0, 200_000),
    case: id,
    packer: text(60, 1),
    /** A battery or power bank that is not mounted in a device: what one holds. */
    wh: decimal(0.1, 5_000),
  },
);
export interface PackItem extends DataOf<typeof itemShape> {}

/** What goes into which case, and what may be lifted. */
export const packShape = object(
  {},
  {
    cases: list(caseShape, 200),
    items: list(itemShape, 2_000),
    /** What one may lift with one hand, one with two, and two people together, in kg. */
    oneHand: decimal(0.5, 100),
    twoHands: decimal(0.5, 200),
    twoPeople: decimal(0.5, 400),
  },
);
export interface Packing extends DataOf<typeof packShape> {}

const partShape = object(
  { name: text(120, 1) },
  {
    have: integer(0, 100_000),
    spares: integer(0, 10_000),
    low: decimal(0, 1_000_000),
    high: decimal(0, 1_000_000),
    days: integer(0, 2_000),
    substitute: text(200, 1),
    /** Bought though nothing in the rig asks for it. */
    wanted: integer(0, 100_000),
  },
);
export interface PartRow extends DataOf<typeof partShape> {}

const date = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
export const isDate = (value: string): boolean => date.test(value);

/** What is to be bought, against the date of the first show. */
export const shopShape = object(
  {},
  {
    firstShow: text(10, 10),
    budget: decimal(0, 10_000_000),
    rows: list(partShape, 2_000),
    /** Spares of each part of a kind: connectors, what is whole, metres of cable. */
    spares: object({}, { connector: integer(0, 1_000), whole: integer(0, 1_000), metre: integer(0, 10_000) }),
  },
);
export interface Shopping extends DataOf<typeof shopShape> {}
