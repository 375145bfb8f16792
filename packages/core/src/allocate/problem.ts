import type { SwitchingMeans } from '../model/rig.ts';
import { problem, type Problem, type Result } from '../units/problem.ts';

/** Places outside the loops, along the line. */
export type LinePlace = 'front' | 'insert' | 'after';

/** Where a piece may be held: in line, in any loop or one of a number, or out of the rig. */
export type Pin = LinePlace | 'loop' | 'left out' | number;

export interface AllocationPiece {
  readonly name: string;
  /** It stands there, is heard in every sound and is never left out; no sound names it. */
  readonly line?: LinePlace;
  /** None where it stands in line for good. */
  readonly means: readonly SwitchingMeans[];
  /** Whether its own switch is on after power-up. */
  readonly isOnAtPowerUp: boolean;
  readonly pinnedTo?: Pin;
}

export interface AllocationSound {
  readonly name: string;
  readonly on: readonly string[];
  /** On or off, as it comes. */
  readonly any: readonly string[];
  /** Wanted off, but it may be heard. */
  readonly tolerates: readonly string[];
}

/**
 * Pieces in their wanted order, a switcher, and sounds: which piece gets which place is to be found. What is neither
 * `on` nor `any` in a sound is wanted off.
 */
export interface AllocationProblem {
  /** In the wanted order of the signal. */
  readonly pieces: readonly AllocationPiece[];
  readonly loops: number;
  /** Loops that are not to be given out: something else stands in them, and stays. */
  readonly taken?: readonly number[];
  /** The insert stands behind this many loops; null where there is none. */
  readonly insertAfter: number | null;
  readonly sounds: readonly AllocationSound[];
  /** Sounds by name, as they are played. */
  readonly set: readonly string[];
  /** Whether everything that is placed keeps its wanted order, heard or not. */
  readonly isFrozen: boolean;
}

/** What the search counts in. */
const mostPieces = 400;
const mostLoops = 200;
const mostSounds = 2_000;

/**
 * Masks over sounds, one bit a sound, in words of 32; pieces are numbers in their wanted order. A zone is a place along
 * the line: 0 in front, loops and the insert in their order, the last one after; `out` where a piece is left out.
 */
export interface CompiledProblem {
  readonly source: AllocationProblem;
  readonly pieces: number;
  readonly sounds: number;
  /** 32-bit words of a mask. */
  readonly words: number;
  readonly on: Int32Array;
  readonly any: Int32Array;
  readonly off: Int32Array;
  /** Wanted off and not even tolerated. */
  readonly barred: Int32Array;
  /** All sounds. */
  readonly all: Int32Array;
  readonly set: Int32Array;
  readonly loops: number;
  /** Zones of loops that are not to be given out. */
  readonly takenZones: ReadonlySet<number>;
  /** Zone of the insert, -1 where there is none. */
  readonly insertZone: number;
  readonly lastZone: number;
  /** Zone of a piece that stands in line for good; -1 of one that may be anywhere. */
  readonly fixedZone: Int32Array;
  readonly means: readonly ReadonlySet<SwitchingMeans>[];
  readonly isOnAtPowerUp: readonly boolean[];
  /** Zone that a piece is held to: `out` where it is to be left out, `free` or `anyLoop`. */
  readonly pinnedZone: Int32Array;
  readonly isFrozen: boolean;
}

export const out = -1;
export const free = -2;
export const anyLoop = -3;

/** The problem as numbers, or every place of it that makes no sense. */
export function compileProblem(source: AllocationProblem): Result<CompiledProblem> {
  const problems = faultsOf(source);
  if (problems.length > 0) return { ok: false, problems };
  const { pieces, sounds, loops, insertAfter } = source;
  const words = Math.max(1, Math.ceil(sounds.length / 32));
  const at = new Map(pieces.map(({ name }, i) => [name, i]));
  const masks = (): Int32Array => new Int32Array(pieces.length * words);
  const [on, any, off, barred] = [masks(), masks(), masks(), masks()];
  const tolerated = masks();
  const all = new Int32Array(words);
  sounds.forEach((sound, s) => {
    const [word, bit] = [s >> 5, 1 << (s & 31)];
    all[word] |= bit;
    for (const name of sound.on) on[at.get(name)! * words + word] |= bit;
    for (const name of sound.any) any[at.get(name)! * words + word] |= bit;
    for (const name of sound.tolerates) tolerated[at.get(name)! * words + word] |= bit;
  });
  for (let i = 0; i < on.length; i += 1) {
    any[i] &= ~on[i];
    off[i] = all[i % words] & ~on[i] & ~any[i];
    barred[i] = off[i] & ~tolerated[i];
  }
  const insertZone = insertAfter === null ? -1 : insertAfter + 1;
  const lastZone = loops + (insertAfter === null ? 1 : 2);
  const zoneOf = (place: LinePlace | number): number =>
    place === 'front'
      ? 0
      : place === 'after'
        ? lastZone
        : place === 'insert'
          ? insertZone
          : zoneOfLoop(place, insertAfter);
  const index = new Map(sounds.map(({ name }, i) => [name, i]));
  return {
    ok: true,
    value: {
      source,
      pieces: pieces.length,
      sounds: sounds.length,
      words,
      on,
      any,
      off,
      barred,
      all,
      set: Int32Array.from(source.set, (name) => index.get(name)!),
      loops,
      takenZones: new Set((source.taken ?? []).map((loop) => zoneOfLoop(loop, insertAfter))),
      insertZone,
      lastZone,
      fixedZone: Int32Array.from(pieces, ({ line }) => (line === undefined ? -1 : zoneOf(line))),
      means: pieces.map(({ means }) => new Set(means)),
      isOnAtPowerUp: pieces.map((piece) => piece.isOnAtPowerUp),
      pinnedZone: Int32Array.from(pieces, ({ pinnedTo }) =>
        pinnedTo === undefined
          ? free
          : pinnedTo === 'left out'
            ? out
            : pinnedTo === 'loop'
              ? anyLoop
              : zoneOf(pinnedTo),
      ),
      isFrozen: source.isFrozen,
    },
  };
}

/** Whether a piece that is held somewhere may stand at a zone, or be left out. */
export const mayStandAt = (compiled: CompiledProblem, pin: number, zone: number): boolean =>
  !compiled.takenZones.has(zone) &&
  (pin === free || pin === zone || (pin === anyLoop && (zone === out || loopAtZone(compiled, zone) !== undefined)));

/** Where a loop stands along the line. */
export const zoneOfLoop = (loop: number, insertAfter: number | null): number =>
  insertAfter !== null && loop > insertAfter ? loop + 1 : loop;

/** The number of the loop at a zone; undefined where it is none. */
export function loopAtZone({ insertZone, lastZone }: CompiledProblem, zone: number): number | undefined {
  if (zone <= 0 || zone >= lastZone || zone === insertZone) return undefined;
  return insertZone >= 0 && zone > insertZone ? zone - 1 : zone;
}

/** Whether the means of a piece are any good where it is held. */
const canBeSwitchedAt = (means: readonly SwitchingMeans[], pin: Pin | undefined): boolean =>
  pin === undefined ||
  pin === 'left out' ||
  (pin === 'loop' || typeof pin === 'number' ? means.includes('loop') : means.some((each) => each !== 'loop'));

function faultsOf({ pieces, loops, taken = [], insertAfter, sounds, set }: AllocationProblem): Problem[] {
  const faults: Problem[] = [];
  const names = new Map(pieces.map((piece) => [piece.name, piece]));
  const seen = new Set<string>();
  const isWhole = (number: number, most: number): boolean => Number.isInteger(number) && number >= 0 && number <= most;
  if (pieces.length > mostPieces)
    faults.push(problem('/pieces', 'too-large', { count: pieces.length, limit: mostPieces }));
  if (sounds.length > mostSounds)
    faults.push(problem('/sounds', 'too-large', { count: sounds.length, limit: mostSounds }));
  if (!isWhole(loops, mostLoops))
    faults.push(problem('/loops', 'out-of-domain', { value: loops, expected: `0 to ${mostLoops}` }));
  if (insertAfter !== null && !isWhole(insertAfter, loops))
    faults.push(problem('/insertAfter', 'out-of-domain', { value: insertAfter, expected: `0 to ${loops}` }));
  pieces.forEach(({ name, line, means, pinnedTo }, i) => {
    if (seen.has(name)) faults.push(problem(`/pieces/${i}`, 'duplicate', { what: 'piece', id: name }));
    seen.add(name);
    if (line === undefined && means.length === 0)
      faults.push(problem(`/pieces/${i}`, 'missing-field', { field: 'means' }));
    if ((line === 'insert' || pinnedTo === 'insert') && insertAfter === null)
      faults.push(problem(`/pieces/${i}`, 'not-found', { what: 'place', id: 'insert' }));
    if (typeof pinnedTo === 'number' && (pinnedTo < 1 || pinnedTo > loops))
      faults.push(problem(`/pieces/${i}/pinnedTo`, 'not-found', { what: 'loop', id: pinnedTo }));
    if (line === undefined && !canBeSwitchedAt(means, pinnedTo))
      faults.push(problem(`/pieces/${i}/pinnedTo`, 'out-of-domain', { value: pinnedTo!, expected: means.join(', ') }));
    if (typeof pinnedTo === 'number' && taken.includes(pinnedTo))
      faults.push(problem(`/pieces/${i}/pinnedTo`, 'in-use', { what: 'loop', id: pinnedTo, by: 'what stays in it' }));
    if (line !== undefined && pinnedTo !== undefined && pinnedTo !== line)
      faults.push(problem(`/pieces/${i}/pinnedTo`, 'out-of-domain', { value: pinnedTo, expected: line }));
  });
  taken.forEach((loop, i) => {
    if (!isWhole(loop, loops) || loop === 0)
      faults.push(problem(`/taken/${i}`, 'not-found', { what: 'loop', id: loop }));
  });
  sounds.forEach(({ on, any, tolerates }, i) => {
    for (const name of [...on, ...any, ...tolerates]) {
      const piece = names.get(name);
      if (!piece) faults.push(problem(`/sounds/${i}`, 'not-found', { what: 'piece', id: name }));
      else if (piece.line !== undefined)
        faults.push(
          problem(`/sounds/${i}`, 'out-of-domain', { value: name, expected: 'a piece that can be switched' }),
        );
    }
  });
  const known = new Set(sounds.map(({ name }) => name));
  set.forEach((name, i) => {
    if (!known.has(name)) faults.push(problem(`/set/${i}`, 'not-found', { what: 'sound', id: name }));
  });
  return faults;
}
