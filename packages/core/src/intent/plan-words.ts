import { costOf, judgePlan, type LostBecause } from '../allocate/judge-plan.ts';
import { placesOf } from '../allocate/improve.ts';
import { compareCosts, type CostName, costNames, type Plan, type PlanCost } from '../allocate/plan.ts';
import { type CompiledProblem, free, loopAtZone, out } from '../allocate/problem.ts';
import type { Show } from '../model/documents.ts';
import type { Line } from './line.ts';

/** A plan of a line, with what it was worked out from. */
export interface PlannedLine {
  readonly show: Show;
  readonly line: Line;
  readonly compiled: CompiledProblem;
  readonly plan: Plan;
}

/** Where a plan has a piece. */
export function placeWords({ line, compiled, plan }: PlannedLine, piece: number): string {
  const zone = plan.zones[piece];
  if (zone === out) return 'left at home';
  const loop = loopAtZone(compiled, zone);
  if (loop !== undefined) return `loop ${loop}`;
  if (zone === compiled.insertZone) return 'insert';
  if (zone === 0) return 'in front';
  const amp = line.pieces.findIndex(({ ampReturn }) => ampReturn !== null);
  const isBehindAmp = amp >= 0 && amp < piece && plan.zones[amp] === compiled.lastZone;
  return isBehindAmp ? 'the amp’s loop' : 'after the loops';
}

const switchedWords = {
  loop: 'by the loop',
  message: 'by the slot itself',
  foot: 'by foot',
  always: 'left on',
  fixed: 'never off',
} as const;

export const switchedByWords = ({ plan }: PlannedLine, piece: number): string =>
  plan.zones[piece] === out ? '' : switchedWords[plan.by[piece]];

/** Why a piece stands where it stands, as a sentence. */
export function whyThere(planned: PlannedLine, piece: number): string {
  const { line, compiled, plan } = planned;
  const { pieces, words, on, any, off } = compiled;
  const { place, name, guessed } = line.pieces[piece];
  const zone = plan.zones[piece];
  if (zone === out)
    return place === 'left out' ? 'You leave it at home.' : `Anywhere else it costs more: ${cheapest(planned, piece)}`;
  const isHeld = compiled.pinnedZone[piece] !== free && place !== 'anywhere' && !guessed.place;
  const held = isHeld ? 'It is held there. ' : '';
  if (plan.by[piece] === 'fixed') return `${held}Nothing switches it, so that it stands in line for good.`;
  const count = (masks: Int32Array): number => {
    let sum = 0;
    for (let s = 0; s < compiled.sounds; s += 1) if (masks[piece * words + (s >> 5)] & (1 << (s & 31))) sum += 1;
    return sum;
  };
  if (plan.by[piece] === 'always')
    return `${held}Left on: ${counted(count(off), 'sound')} that ${count(off) === 1 ? 'wants' : 'want'} it off may hear it.`;
  if (loopAtZone(compiled, zone) === undefined)
    return plan.by[piece] === 'message'
      ? `${held}The slot switches it by message or contact, so that it takes no loop.`
      : `${held}Its own foot switch is what is left for it: ${counted(pressesOf(planned, piece), 'press', 'presses')} in the set.`;
  const mates = Array.from({ length: pieces }, (_, p) => p).filter((p) => p !== piece && plan.zones[p] === zone);
  if (mates.length === 0) return `${held}A loop of its own: in for ${counted(count(on), 'sound')}.`;
  const names = listed(mates.map((p) => line.pieces[p].name));
  const shares = `${held}It shares loop ${loopAtZone(compiled, zone)} with ${names}`;
  if (plan.by[piece] === 'message') return `${shares}, and the slot switches it there by message or contact.`;
  if (plan.by[piece] === 'foot')
    return `${shares}, and its own foot switch does the rest: ${counted(pressesOf(planned, piece), 'press', 'presses')} in the set.`;
  const parts = soundsApart(planned, piece, mates);
  if (parts === 0) {
    const isAny = count(any) > 0 || mates.some((p) => hasAny(compiled, p));
    return `${shares} because no sound needs one without the other${isAny ? ', as far as it cares' : ''}.`;
  }
  const others = mates.filter((p) => plan.by[p] === 'message' || plan.by[p] === 'foot').map((p) => line.pieces[p].name);
  return others.length > 0
    ? `${shares}: where ${name} is wanted alone, ${listed(others)} is off by itself.`
    : `${shares}, and ${counted(parts, 'sound')} that ${parts === 1 ? 'wants' : 'want'} it off may hear it.`;
}

/** Sounds in which a mate opens the loop and the piece is wanted off. */
function soundsApart({ compiled }: PlannedLine, piece: number, mates: readonly number[]): number {
  const { words, on, off, sounds } = compiled;
  let apart = 0;
  for (let s = 0; s < sounds; s += 1) {
    const [word, bit] = [s >> 5, 1 << (s & 31)];
    const isOff = (off[piece * words + word] & bit) !== 0;
    if (isOff && mates.some((p) => (on[p * words + word] & bit) !== 0)) apart += 1;
  }
  return apart;
}

const hasAny = ({ any, words }: CompiledProblem, piece: number): boolean =>
  any.subarray(piece * words, (piece + 1) * words).some((word) => word !== 0);

const pressesOf = ({ compiled, plan }: PlannedLine, piece: number): number =>
  judgePlan(compiled, plan)!.footActions.filter((action) => action.piece === piece).length;

function cheapest(planned: PlannedLine, piece: number): string {
  const [next] = otherPlaces(planned, piece);
  return next ? `${next.where}: ${differenceWords(planned, next.plan)}.` : 'there is no place for it.';
}

/** Another place for a piece, all others staying where they are. */
export interface OtherPlace {
  readonly where: string;
  readonly switchedBy: string;
  readonly plan: Plan;
  readonly cost: PlanCost;
}

/** The best way to have a piece at each other place, cheapest first; where it is held does not count. */
export function otherPlaces(planned: PlannedLine, piece: number): readonly OtherPlace[] {
  const { compiled, plan } = planned;
  const unheld: CompiledProblem = {
    ...compiled,
    pinnedZone: compiled.pinnedZone.map((pin, p) => (p === piece ? free : pin)),
  };
  const now = placeWords(planned, piece);
  const best = new Map<string, OtherPlace>();
  if (compiled.fixedZone[piece] >= 0) return [];
  for (const other of placesOf(unheld, plan, piece)) {
    const cost = costOf(unheld, other);
    if (!cost) continue;
    const isMoved = other.zones.some((zone, p) => p !== piece && zone !== plan.zones[p]);
    const there = { ...planned, plan: other };
    const where = isMoved
      ? `a loop of its own before ${loopFellows(there, piece)}`
      : hasMates(other, piece) && loopAtZone(compiled, other.zones[piece]) !== undefined
        ? `${placeWords(there, piece)}, with ${loopFellowsAt(there, piece)}`
        : placeWords(there, piece);
    if (where === now || isSameLine(plan, other)) continue;
    const known = best.get(where);
    if (!known || compareCosts(cost, known.cost) < 0)
      best.set(where, { where, switchedBy: switchedByWords(there, piece), plan: other, cost });
  }
  return [...best.values()].sort((a, b) => compareCosts(a.cost, b.cost));
}

/** Whether two plans have the same pieces together, in the same order along the line, whatever the loops' numbers. */
function isSameLine(a: Plan, b: Plan): boolean {
  const fellows = ({ zones }: Plan) =>
    zones.map((zone) => (zone === out ? '' : zones.map((o) => Math.sign(o - zone)).join()));
  return fellows(a).every((each, p) => each === fellows(b)[p]) && a.by.every((by, p) => by === b.by[p]);
}

const hasMates = ({ zones }: Plan, piece: number): boolean =>
  zones.some((zone, p) => p !== piece && zone === zones[piece]);

const loopFellowsAt = ({ line, plan }: PlannedLine, piece: number): string =>
  listed(line.pieces.flatMap(({ name }, p) => (p !== piece && plan.zones[p] === plan.zones[piece] ? [name] : [])));

/** What stands in the next loop that is taken. */
function loopFellows({ line, compiled, plan }: PlannedLine, piece: number): string {
  for (let zone = plan.zones[piece] + 1; zone < compiled.lastZone; zone += 1) {
    const names = line.pieces.flatMap(({ name }, p) => (plan.zones[p] === zone ? [name] : []));
    if (names.length > 0) return listed(names);
  }
  return 'the end';
}

/** What another plan costs more or less, most important first; *nothing* where the two cost the same. */
export function differenceWords({ compiled, plan }: PlannedLine, other: Plan): string {
  const [from, to] = [costOf(compiled, plan), costOf(compiled, other)];
  return from && to ? costDifference(from, to) : 'not allowed';
}

export function costDifference(from: PlanCost, to: PlanCost): string {
  const told = costNames.flatMap((name) => {
    const by = to[name] - from[name];
    return by === 0 ? [] : [costWords[name](Math.abs(by), by > 0)];
  });
  return told.length === 0 ? 'nothing' : told.join(', ');
}

const moreOrFewer = (more: boolean): string => (more ? 'more' : 'fewer');

const costWords: Record<CostName, (by: number, more: boolean) => string> = {
  soundsLost: (n, more) => `${counted(n, 'sound')} ${more ? 'lost' : 'won'}`,
  leftOut: (n, more) => `${counted(n, 'piece')} ${moreOrFewer(more)} left at home`,
  heardThoughOff: (n, more) => `${counted(n, 'piece')} ${moreOrFewer(more)} heard though wanted off`,
  footActions: (n, more) => `${counted(n, 'press', 'presses')} ${moreOrFewer(more)} by foot`,
  byFoot: (n, more) => `${counted(n, 'piece')} ${moreOrFewer(more)} switched by foot`,
  shared: (n, more) => `${counted(n, 'piece')} ${moreOrFewer(more)} in another’s loop`,
  byMessage: (n, more) => `${counted(n, 'piece')} ${moreOrFewer(more)} by message`,
  cables: (n, more) => `${counted(n, 'cable')} ${moreOrFewer(more)}`,
};

/** Each press that a plan leaves to a foot, in the order of the set: what, and for which sound. */
export function pressWords({ show, line, compiled, plan }: PlannedLine): readonly string[] {
  const { set } = compiled.source;
  return (judgePlan(compiled, plan)?.footActions ?? []).map(({ piece, at, on }) => {
    return `${line.pieces[piece].name} ${on ? 'on' : 'off'} for ${show.rig.sounds[set[at]].name}`;
  });
}

/** Why a sound is lost, as a sentence. */
export function lostWords({ line, compiled, plan }: PlannedLine, why: LostBecause): string {
  const name = (piece: number): string => line.pieces[piece].name;
  switch (why.is) {
    case 'left-out':
      return `${name(why.piece)} is left at home.`;
    case 'heard':
      return why.opened === null
        ? `${name(why.piece)} is left on, and it wants it off.`
        : `${name(why.opened)} opens loop ${loopAtZone(compiled, plan.zones[why.piece])}, and it wants ${name(why.piece)} off.`;
    case 'order':
      return `it wants ${name(why.first)} before ${name(why.second)}, and they stand the other way round.`;
  }
}

const counted = (count: number, what: string, several = `${what}s`): string =>
  `${count} ${count === 1 ? what : several}`;

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
