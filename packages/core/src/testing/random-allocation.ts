import type { AllocationPiece, AllocationProblem, AllocationSound } from '../allocate/problem.ts';
import type { SwitchingMeans } from '../model/rig.ts';
import type { Random } from './random.ts';

/** Kinds of pieces in the order in which they mostly stand, with what switches them; the last two stand in line. */
const kinds: readonly (readonly [name: string, ...means: SwitchingMeans[]])[] = [
  ['wah', 'loop', 'foot'],
  ['compressor', 'loop', 'always'],
  ['octave', 'loop'],
  ['boost', 'loop', 'foot'],
  ['drive', 'loop'],
  ['distortion', 'loop'],
  ['fuzz', 'loop', 'foot'],
  ['equaliser', 'loop', 'always'],
  ['volume'],
  ['chorus', 'loop', 'message'],
  ['phaser', 'loop', 'foot'],
  ['tremolo', 'loop'],
  ['delay', 'loop', 'message'],
  ['echo', 'loop', 'message'],
  ['reverb', 'loop', 'message', 'always'],
];

/** Pieces in their usual order, so many loops with an insert among them, sounds of about a third of the pieces. */
export function randomAllocation(r: Random, pieces: number, loops: number, sounds: number): AllocationProblem {
  const chosen = Array.from({ length: pieces }, (_, i): AllocationPiece => {
    const [name, ...means] = kinds[Math.floor((i * kinds.length) / pieces)];
    const line = means.length === 0 ? ({ line: 'insert' } as const) : {};
    return { name: `${name} ${i + 1}`, means, isOnAtPowerUp: r.chance(0.2), ...line };
  });
  return { ...withSounds(r, chosen, sounds, 0.35), loops, insertAfter: Math.floor(loops / 2), isFrozen: false };
}

/** Small enough to try everything: means, order, insert and sounds as chance has them. */
export function smallAllocation(r: Random, pieces: number, loops: number, sounds: number): AllocationProblem {
  const insertAfter = r.chance(0.4) ? r.below(loops + 1) : null;
  const chosen = Array.from({ length: pieces }, (_, i): AllocationPiece => {
    const isInLine = r.chance(0.12);
    const place = r.pick(
      insertAfter === null ? (['front', 'after'] as const) : (['front', 'insert', 'after'] as const),
    );
    const means = r.pick<readonly SwitchingMeans[]>([
      ['loop'],
      ['loop', 'foot'],
      ['loop', 'message'],
      ['loop', 'always'],
      ['foot'],
      ['message'],
      ['loop', 'message', 'foot'],
    ]);
    return {
      name: `p${i + 1}`,
      means: isInLine ? [] : means,
      isOnAtPowerUp: r.chance(0.3),
      ...(isInLine ? { line: place } : {}),
    };
  });
  return { ...withSounds(r, chosen, sounds, 0.4), loops, insertAfter, isFrozen: r.chance(0.15) };
}

function withSounds(
  r: Random,
  pieces: readonly AllocationPiece[],
  count: number,
  density: number,
): Pick<AllocationProblem, 'pieces' | 'sounds' | 'set'> {
  const sounds = Array.from({ length: count }, (_, s): AllocationSound => {
    const [on, any, tolerates]: string[][] = [[], [], []];
    for (const { name, line, means } of pieces) {
      if (line !== undefined) continue;
      if (r.chance(density)) on.push(name);
      else if (r.chance(0.12)) any.push(name);
      else if (r.chance(means.includes('always') ? 0.4 : 0.1)) tolerates.push(name);
    }
    return { name: `sound ${s + 1}`, on, any, tolerates };
  });
  return { pieces, sounds, set: Array.from({ length: count * 2 }, () => `sound ${r.below(count) + 1}`) };
}
