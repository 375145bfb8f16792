import type { Jack } from './anatomy.ts';
import { jackFacts } from './jack-kinds.ts';
import { powerSources } from './power.ts';
import { type DataOf, decimal, id, integer, list, object, oneOf, record, text, yesNo } from './shape.ts';

export const edges = ['back', 'left', 'right', 'front'] as const;
export type Edge = (typeof edges)[number];
export const sides = [...edges, 'top'] as const;
export type BodySide = (typeof sides)[number];

/** Outline of a device in mm, what it weighs, and on which side each jack is where that is not the usual one. */
export const bodyShape = object(
  {
    from: oneOf(...powerSources),
    width: integer(1, 3_000),
    depth: integer(1, 3_000),
    height: integer(1, 3_000),
  },
  {
    grams: integer(0, 500_000),
    /** Where all its jacks are that are not told one by one. */
    jacks: oneOf('sides', 'back', 'top'),
    sides: record(oneOf(...sides), 400),
    /** Which plug each jack takes, where that is not the usual one. */
    takes: record(text(60, 1), 400),
    /** A cover that has to be opened where it stands: on which side, and how many mm that needs. */
    cover: object({ side: oneOf(...edges), mm: integer(1, 1_000) }),
  },
);
export interface Body extends DataOf<typeof bodyShape> {}

/** What a piece costs and how long it takes to come. */
export const buyShape = object(
  {},
  {
    low: decimal(0, 1_000_000),
    high: decimal(0, 1_000_000),
    days: integer(0, 1_000),
    /** It is not there yet. */
    isWanted: yesNo,
  },
);
export interface BuyFacts extends DataOf<typeof buyShape> {}

/** Where a device stands on the board of its place: its left front corner in mm from the left and from the front. */
export const spotShape = object(
  { x: integer(-10_000, 10_000), y: integer(-10_000, 10_000) },
  {
    turn: oneOf(0, 90, 180, 270),
    held: yesNo,
    /** It is let into this edge of the board: what is plugged in from outside leaves the board there. */
    edge: oneOf(...edges),
  },
);
export interface BoardSpot extends DataOf<typeof spotShape> {}

const tierShape = object({
  from: integer(0, 5_000),
  to: integer(0, 5_000),
  height: integer(0, 3_000),
});

/** A board that pieces stand on: seen from above, the player at its front. */
export const boardShape = object(
  { width: integer(50, 5_000), depth: integer(50, 5_000) },
  {
    /** Other places whose pieces stand on it, too. */
    also: list(id, 100),
    surface: oneOf('flat', 'rails', 'holes'),
    /** Of a grid of holes: from hole to hole. */
    pitch: decimal(1, 200),
    /** Bands that something stands over, with the height that is free there. */
    tiers: list(tierShape, 12),
    grams: integer(0, 100_000),
  },
);
export interface Board extends DataOf<typeof boardShape> {}

/** Cable by the reel: its name, its length, and which kind of cable is cut from it (signal, unless said). */
export const reelShape = object(
  { id: text(64, 1), kind: text(40, 1), metres: decimal(0.1, 2_000) },
  { carries: oneOf('signal', 'speaker', 'midi', 'contact', 'expression', 'power', 'mains') },
);
export interface Reel extends DataOf<typeof reelShape> {}

/** Millimetres that a plug needs beyond the jack, straight and at an angle (common practice). */
export const plugRoom = {
  signal: { straight: 55, angled: 25 },
  midi: { straight: 60, angled: 30 },
  contact: { straight: 55, angled: 25 },
  expression: { straight: 55, angled: 25 },
  power: { straight: 35, angled: 15 },
  mains: { straight: 70, angled: 40 },
} as const;

/** The side that a jack is on: as told, else where such jacks usually are. */
export function sideOf(body: Body, jack: Jack): BodySide {
  const told = body.sides && Object.hasOwn(body.sides, jack.id) ? body.sides[jack.id] : undefined;
  if (told) return told;
  if (body.jacks === 'back' || body.jacks === 'top') return body.jacks;
  // A pedal: in at the right, out at the left, power and the rest at the back (common practice).
  const { carries, direction } = jackFacts(jack.kind);
  if (carries !== 'signal') return 'back';
  return direction === 'in' ? 'right' : 'left';
}

/**
 * Where a jack is on a body, from its left front corner: the jacks of a side stand evenly along it, in their order.
 */
export function jackPoint(body: Body, jacks: readonly Jack[], jack: Jack): { readonly x: number; readonly y: number } {
  const side = sideOf(body, jack);
  const along = jacks.filter((each) => sideOf(body, each) === side && each.shares === undefined);
  const at = Math.max(
    0,
    along.findIndex(({ id }) => id === jack.id || id === jack.shares),
  );
  const share = (at + 1) / (along.length + 1);
  const { width, depth } = body;
  switch (side) {
    case 'left':
      return { x: 0, y: Math.round(depth * share) };
    case 'right':
      return { x: width, y: Math.round(depth * share) };
    case 'front':
      return { x: Math.round(width * share), y: 0 };
    case 'top':
      return { x: Math.round(width * share), y: Math.round(depth / 2) };
    case 'back':
      return { x: Math.round(width * share), y: depth };
  }
}

/** A body turned clockwise: what was at its back is at its right after 90 degrees. */
export function turned(body: Body, turn: number): Body {
  return turn === 90 || turn === 270 ? { ...body, width: body.depth, depth: body.width } : body;
}

export function turnedPoint(
  { width, depth }: Body,
  { x, y }: { readonly x: number; readonly y: number },
  turn: number,
): { readonly x: number; readonly y: number } {
  switch (turn) {
    case 90:
      return { x: y, y: width - x };
    case 180:
      return { x: width - x, y: depth - y };
    case 270:
      return { x: depth - y, y: x };
    default:
      return { x, y };
  }
}

/** The side across from one. */
export const across: Readonly<Record<Edge, Edge>> = {
  left: 'right',
  right: 'left',
  front: 'back',
  back: 'front',
};

const clockwise: Readonly<Record<BodySide, readonly [BodySide, BodySide, BodySide, BodySide]>> = {
  back: ['back', 'right', 'front', 'left'],
  right: ['right', 'front', 'left', 'back'],
  front: ['front', 'left', 'back', 'right'],
  left: ['left', 'back', 'right', 'front'],
  top: ['top', 'top', 'top', 'top'],
};
export const turnedSide = (side: BodySide, turn: number): BodySide => clockwise[side][(turn / 90) % 4];
