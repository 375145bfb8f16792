import { hundredths } from '../units/shown.ts';
import { endFacts } from '../model/cable-ends.ts';
import { inOrder } from '../model/documents.ts';
import { plugFor } from '../model/connectors.ts';
import { jackOf } from '../model/jacks.ts';
import type { Cable, EndFacts, Plug, Rig } from '../model/rig.ts';
import { boardsOf, type BoardOf } from './boards.ts';
import { type CutList, cutList } from './cut.ts';
import { plugThatClears, standing, type Standing } from './judge-board.ts';

/** One end of a cable as it has to be made or bought. */
export interface EndToMake {
  readonly plug: Plug;
  readonly device: string;
  readonly jack: string;
  /** The connector with its gender that the jack takes. */
  readonly takes: string;
  /** The connector that is on it: as entered, else as the jack takes it. */
  readonly connector: string;
  /** Undefined where the piece stands on no board, so that nobody knows. */
  readonly clears: 'straight' | 'angled' | 'none' | undefined;
  /** Whether it is to be at an angle: as entered, else where nothing else clears. */
  readonly bent: boolean;
  /** What somebody has said of it. */
  readonly entered: EndFacts | undefined;
}

export interface CableRun {
  readonly cable: Cable;
  readonly ends: readonly EndToMake[];
  /** Millimetres from jack to jack along the edges of the board; null where an end is on no board. */
  readonly shortest: number | null;
  /** Metres of that with slack, rounded up. */
  readonly runs: number | null;
  /** What it is to be: as entered, else as it runs. */
  readonly metres: number | null;
}

/** Slack of a run: a tenth, and a hand's breadth at both ends together (common practice). */
export const slack = { share: 0.1, mm: 80 } as const;
/** Cables are cut to the next so many mm. */
export const rounding = 50;

/** What a cable has to be long at least, from jack to jack along the edges of the board, in mm, without slack. */
export function shortestRun(boards: readonly BoardOf[], cable: Cable): number | null {
  const points = cable.plugs.map(({ device, jack }) => {
    for (const board of boards) {
      const piece = standing(board).find((each) => each.device.id === device);
      const plug = piece?.plugs.find((each) => each.plug.jack === jack && each.cable.id === cable.id);
      if (piece && plug) return { board, x: piece.spot.x + plug.point.x, y: piece.spot.y + plug.point.y };
    }
    return undefined;
  });
  const [first, ...more] = points;
  if (!first || more.some((point) => point?.board !== first.board)) return null;
  // From plug to plug, one after the other: a chain, or the arms of a Y cord.
  let [mm, from] = [0, first];
  for (const point of more) {
    mm += Math.abs(point!.x - from.x) + Math.abs(point!.y - from.y);
    from = point!;
  }
  return mm;
}

export function cableRuns(rig: Rig): readonly CableRun[] {
  const boards = boardsOf(rig);
  const all = boards.flatMap((board) => standing(board).map((piece) => ({ board, piece })));
  return inOrder(rig.cables).map((cable) => {
    const shortest = shortestRun(boards, cable);
    const runs =
      shortest === null ? null : (Math.ceil((shortest * (1 + slack.share) + slack.mm) / rounding) * rounding) / 1000;
    return {
      cable,
      ends: cable.plugs.map((plug) => endOf(rig, all, cable, plug)),
      shortest,
      runs,
      metres: cable.length ?? runs,
    };
  });
}

function endOf(
  rig: Rig,
  all: readonly { readonly board: BoardOf; readonly piece: Standing }[],
  cable: Cable,
  plug: Plug,
): EndToMake {
  const device = rig.devices[plug.device];
  const jack = jackOf(device, plug.jack);
  const takes = jack ? plugFor(device.type, cable, jack) : '';
  const entered = endFacts(cable, plug);
  const there = all.find(({ piece }) => piece.device.id === plug.device);
  const on = there?.piece.plugs.find((each) => each.plug.jack === plug.jack);
  const clears = there && on ? plugThatClears(there.board, there.piece, on) : undefined;
  return {
    plug,
    device: device.name,
    jack: jack?.label ?? plug.jack,
    takes,
    connector: entered?.plug ?? takes,
    entered,
    bent: entered?.bent ?? clears === 'angled',
    clears,
  };
}

/** All cables whose length is known: how many, and their metres. */
export function knownLength(runs: readonly CableRun[]): { readonly known: number; readonly metres: number } {
  const known = runs.flatMap(({ metres }) => (metres === null ? [] : [metres]));
  return { known: known.length, metres: hundredths(known.reduce((sum, metres) => sum + metres, 0)) };
}

/** What is cut from the reels of a rig: cables of the kinds that there are reels of, whose length is known. */
export function cutListOf({ settings }: Rig, runs: readonly CableRun[]): CutList {
  const reels = settings.reels ?? [];
  const kinds = new Set(reels.map(({ carries }) => carries ?? 'signal'));
  return cutList(
    runs.flatMap(({ cable, metres }) =>
      metres === null || !kinds.has(cable.kind) ? [] : [{ name: cable.tag, metres, kind: cable.kind }],
    ),
    reels.map(({ id, metres, carries }) => ({ name: id, metres, kind: carries ?? 'signal' })),
  );
}

/** Loudspeakers before anything is on, signal before messages, power behind, the mains last (common practice). */
const plugOrder: readonly Cable['kind'][] = ['speaker', 'signal', 'contact', 'expression', 'midi', 'power', 'mains'];

/** Cables in the order in which they are plugged in; they come out in the reverse, everything muted first. */
export const pluggingOrder = (runs: readonly CableRun[]): readonly CableRun[] =>
  [...runs].sort((a, b) => plugOrder.indexOf(a.cable.kind) - plugOrder.indexOf(b.cable.kind));

/** Cables that are tied together. */
export interface Loom {
  readonly name: string;
  readonly members: readonly CableRun[];
  /** Of the longest member whose length is known; null where none is. */
  readonly metres: number | null;
  /** Members whose length nobody knows. */
  readonly unknown: number;
}

export function loomsOf(runs: readonly CableRun[]): readonly Loom[] {
  const names = [...new Set(runs.flatMap(({ cable }) => (cable.loom === null ? [] : [cable.loom])))];
  return names.map((name) => {
    const members = runs.filter(({ cable }) => cable.loom === name);
    const known = members.flatMap(({ metres }) => (metres === null ? [] : [metres]));
    return {
      name,
      members,
      metres: known.length > 0 ? Math.max(...known) : null,
      unknown: members.length - known.length,
    };
  });
}
