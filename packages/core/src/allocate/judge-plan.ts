import { type Plan, type PlanCost, type SwitchedBy } from './plan.ts';
import { type CompiledProblem, loopAtZone, out } from './problem.ts';

/** Why a plan does not play a sound: the first reason that holds, in this order. */
export type LostBecause =
  | { readonly is: 'left-out'; readonly piece: number }
  /** A piece is heard that is wanted off: left on, or in a loop that another piece opens. */
  | { readonly is: 'heard'; readonly piece: number; readonly opened: number | null }
  /** The second is wanted behind the first, and stands before it. */
  | { readonly is: 'order'; readonly first: number; readonly second: number };

export interface FootAction {
  readonly piece: number;
  /** Place in the set. */
  readonly at: number;
  readonly on: boolean;
}

export interface JudgedPlan {
  readonly cost: PlanCost;
  /** By sound why it is not played; null where it is. */
  readonly lost: readonly (LostBecause | null)[];
  /** Pieces that some sound hears though it wants them off. */
  readonly heardThoughOff: readonly number[];
  readonly footActions: readonly FootAction[];
  readonly loopsUsed: number;
}

/** What of a plan is counted quickly; null where it is not allowed at all. */
export function costOf(compiled: CompiledProblem, plan: Plan): PlanCost | null {
  const known = heardIn(compiled, plan);
  if (compiled.isFrozen && !standsInOrder(plan)) return null;
  const lost = lostSounds(compiled, plan, known);
  return counted(compiled, plan, known, lost);
}

/** A plan judged by the definition, with every reason. */
export function judgePlan(compiled: CompiledProblem, plan: Plan): JudgedPlan | null {
  const known = heardIn(compiled, plan);
  if (compiled.isFrozen && !standsInOrder(plan)) return null;
  const lost = lostSounds(compiled, plan, known);
  return {
    cost: counted(compiled, plan, known, lost),
    lost: Array.from({ length: compiled.sounds }, (_, sound) =>
      has(lost, sound) ? reasonOf(compiled, plan, known, sound) : null,
    ),
    heardThoughOff: known.heardThoughOff,
    footActions: footActionsOf(compiled, plan, known, lost),
    loopsUsed: known.loopsUsed,
  };
}

interface Heard {
  /** By zone the sounds in which the loop there is in. */
  readonly isIn: ReadonlyMap<number, Int32Array>;
  /** By piece the sounds in which it must stand in order: those that do not want it off, or hear it all the same. */
  readonly ordered: Int32Array;
  readonly heardThoughOff: readonly number[];
  /** Sounds that hear a piece which they may not. */
  readonly barred: Int32Array;
  readonly loopsUsed: number;
}

const has = (mask: Int32Array, sound: number): boolean => (mask[sound >> 5] & (1 << (sound & 31))) !== 0;

function heardIn(compiled: CompiledProblem, { zones, by }: Plan): Heard {
  const { pieces, words, on, any, off, barred } = compiled;
  const isIn = new Map<number, Int32Array>();
  for (let p = 0; p < pieces; p += 1) {
    if (zones[p] === out || loopAtZone(compiled, zones[p]) === undefined) continue;
    let mask = isIn.get(zones[p]);
    if (!mask) isIn.set(zones[p], (mask = new Int32Array(words)));
    for (let w = 0; w < words; w += 1) mask[w] |= on[p * words + w];
  }
  const ordered = new Int32Array(pieces * words);
  const lost = new Int32Array(words);
  const heardThoughOff: number[] = [];
  for (let p = 0; p < pieces; p += 1) {
    if (zones[p] === out) continue;
    let isHeardOff = false;
    const loop = by[p] === 'loop' ? isIn.get(zones[p]) : undefined;
    for (let w = 0; w < words; w += 1) {
      const i = p * words + w;
      const heard = by[p] === 'fixed' || by[p] === 'always' ? off[i] : loop ? loop[w] & off[i] : 0;
      ordered[i] = on[i] | any[i] | heard;
      if (heard === 0 || by[p] === 'fixed') continue;
      isHeardOff = true;
      lost[w] |= heard & barred[i];
    }
    if (isHeardOff) heardThoughOff.push(p);
  }
  return { isIn, ordered, heardThoughOff, barred: lost, loopsUsed: isIn.size };
}

const standsInOrder = ({ zones }: Plan): boolean => {
  let last = 0;
  for (const zone of zones) {
    if (zone === out) continue;
    if (zone < last) return false;
    last = zone;
  }
  return true;
};

function lostSounds({ pieces, words, on }: CompiledProblem, { zones }: Plan, { ordered, barred }: Heard): Int32Array {
  const lost = barred.slice();
  for (let p = 0; p < pieces; p += 1) {
    if (zones[p] === out) {
      for (let w = 0; w < words; w += 1) lost[w] |= on[p * words + w];
      continue;
    }
    for (let q = p + 1; q < pieces; q += 1)
      if (zones[q] !== out && zones[q] < zones[p])
        for (let w = 0; w < words; w += 1) lost[w] |= ordered[p * words + w] & ordered[q * words + w];
  }
  return lost;
}

function counted(compiled: CompiledProblem, plan: Plan, known: Heard, lost: Int32Array): PlanCost {
  const { pieces, insertZone } = compiled;
  const { zones, by } = plan;
  let [leftOut, inLoops, byFoot, byMessage, insert] = [0, 0, 0, 0, 0];
  for (let p = 0; p < pieces; p += 1) {
    if (zones[p] === out) {
      leftOut += 1;
      continue;
    }
    if (loopAtZone(compiled, zones[p]) !== undefined) inLoops += 1;
    if (zones[p] === insertZone) insert = 1;
    if (by[p] === 'foot') byFoot += 1;
    if (by[p] === 'message') byMessage += 1;
  }
  return {
    soundsLost: bitsOf(lost),
    leftOut,
    heardThoughOff: known.heardThoughOff.length,
    footActions: byFoot === 0 ? 0 : footActionsOf(compiled, plan, known, lost).length,
    byFoot,
    shared: inLoops - known.loopsUsed,
    byMessage,
    cables: pieces - leftOut + known.loopsUsed + 2 + insert,
  };
}

/** Each change of a piece that is switched by foot, through the sounds of the set that are played. */
function footActionsOf(compiled: CompiledProblem, { zones, by }: Plan, { isIn }: Heard, lost: Int32Array) {
  const { pieces, words, on, off, set, isOnAtPowerUp } = compiled;
  const actions: FootAction[] = [];
  for (let piece = 0; piece < pieces; piece += 1) {
    if (zones[piece] === out || by[piece] !== 'foot') continue;
    const loop = isIn.get(zones[piece]);
    let isOn = isOnAtPowerUp[piece];
    for (let at = 0; at < set.length; at += 1) {
      const [word, bit] = [set[at] >> 5, 1 << (set[at] & 31)];
      if ((lost[word] & bit) !== 0) continue;
      const wanted = mustBe(
        on[piece * words + word] & bit,
        off[piece * words + word] & bit,
        loop ? loop[word] & bit : 1,
      );
      if (wanted === null || wanted === isOn) continue;
      isOn = wanted;
      actions.push({ piece, at, on: wanted });
    }
  }
  return actions.sort((a, b) => a.at - b.at || a.piece - b.piece);
}

/** How a piece that a foot switches has to be; null where it may stay as it is. */
export const mustBe = (isOn: number, isOff: number, isPassed: number): boolean | null =>
  isOn !== 0 ? true : isOff !== 0 && isPassed !== 0 ? false : null;

function reasonOf(compiled: CompiledProblem, { zones, by }: Plan, known: Heard, sound: number): LostBecause {
  const { pieces, words, on, barred } = compiled;
  const isSet = (masks: Int32Array, piece: number): boolean =>
    (masks[piece * words + (sound >> 5)] & (1 << (sound & 31))) !== 0;
  const all = Array.from({ length: pieces }, (_, i) => i);
  const missing = all.find((p) => zones[p] === out && isSet(on, p));
  if (missing !== undefined) return { is: 'left-out', piece: missing };
  for (const piece of all) {
    if (zones[piece] === out || by[piece] === 'fixed' || !isSet(barred, piece)) continue;
    if (by[piece] === 'always') return { is: 'heard', piece, opened: null };
    if (by[piece] === 'loop' && has(known.isIn.get(zones[piece])!, sound))
      return { is: 'heard', piece, opened: all.find((p) => zones[p] === zones[piece] && isSet(on, p))! };
  }
  for (const first of all)
    for (const second of all.slice(first + 1))
      if (
        zones[first] !== out &&
        zones[second] !== out &&
        zones[second] < zones[first] &&
        isSet(known.ordered, first) &&
        isSet(known.ordered, second)
      )
        return { is: 'order', first, second };
  throw new Error(`sound ${sound} was said to be lost, and nothing loses it`);
}

export function bitsOf(mask: Int32Array): number {
  let count = 0;
  for (let i = 0; i < mask.length; i += 1) count += bitsIn(mask[i]);
  return count;
}

export function bitsIn(word: number): number {
  let v = word - ((word >>> 1) & 0x55555555);
  v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
  return (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** What a place is, of a plan that was made by hand: whether the means of the piece allow it. */
export const isAllowed = (compiled: CompiledProblem, piece: number, zone: number, by: SwitchedBy): boolean => {
  const fixed = compiled.fixedZone[piece];
  if (fixed >= 0) return zone === fixed && by === 'fixed';
  if (zone === out) return true;
  if (compiled.takenZones.has(zone)) return false;
  if (by === 'fixed' || !compiled.means[piece].has(by)) return false;
  const isLoop = loopAtZone(compiled, zone) !== undefined;
  return isLoop ? compiled.means[piece].has('loop') && by !== 'always' : by !== 'loop';
};
