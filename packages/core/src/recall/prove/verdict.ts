import type { Sound } from '../../model/rig.ts';
import type { Sequence } from '../deliver/sequence.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { ContentSymbol } from '../state/values.ts';

export type Verdict = 'recalls' | 'does-not' | 'cannot-be-known' | 'not-played';
export type Level = 1 | 2 | 3 | 4;

/** What the proof says of one (slot, sound) at one level. */
export interface Judgement {
  readonly slot: string;
  readonly sound: string;
  readonly level: Level;
  readonly verdict: Verdict;
  /** Presses, moves, feet and cues of a shortest sequence that goes wrong (or cannot be decided). */
  readonly length: number | null;
  readonly sequence: Sequence | null;
  /** Where an exploration was given up, why. */
  readonly gaveUp?: string;
}

/** What the proof says of a part that feet and hands bring up: in set order alone, since no slot can be pressed. */
export type PartJudgement = Omit<Judgement, 'slot' | 'level'> & { readonly part: string };

/** An answer under assumed contents, before they are combined. */
export interface Answer {
  readonly verdict: Verdict;
  readonly length: number | null;
  readonly sequence: Sequence | null;
  readonly symbols: readonly ContentSymbol[];
  /** Of a failure: contents that decide whether there is a shorter one. */
  readonly sooner?: readonly ContentSymbol[];
  readonly gaveUp?: string;
}

export const recallsAnswer: Answer = { verdict: 'recalls', length: null, sequence: null, symbols: [] };

/** An answer, as the judgement of a slot against a sound. */
export function judgementOf(slot: ModelSlot, sound: Sound, level: Level, answer: Answer): Judgement {
  const { verdict, length, sequence, gaveUp } = answer;
  const judgement = { slot: slot.slot.id, sound: sound.id, level, verdict, length, sequence };
  return gaveUp === undefined ? judgement : { ...judgement, gaveUp };
}

/** An answer, as the judgement of a part. */
export const partJudgement = (
  part: string,
  sound: Sound,
  { verdict, length, sequence, gaveUp }: Answer,
): PartJudgement => ({
  part,
  sound: sound.id,
  verdict,
  length,
  sequence,
  ...(gaveUp === undefined ? {} : { gaveUp }),
});

const rank: Record<Verdict, number> = { 'does-not': 3, 'cannot-be-known': 2, recalls: 1, 'not-played': 0 };

/** One failing state outweighs an unknown, an unknown outweighs the rest; of the worst, the shortest. */
export function worst(answers: readonly Answer[]): Answer {
  const top = Math.max(...answers.map((answer) => rank[answer.verdict]));
  const worstOnes = answers.filter((answer) => rank[answer.verdict] === top);
  const shortest = worstOnes.reduce((best, answer) =>
    (answer.length ?? Infinity) < (best.length ?? Infinity) ? answer : best,
  );
  const sooner = answers.flatMap((answer) =>
    answer.verdict === 'cannot-be-known' && (answer.length ?? Infinity) < (shortest.length ?? Infinity)
      ? answer.symbols
      : (answer.sooner ?? []),
  );
  return { ...shortest, sooner, symbols: worstOnes.flatMap((answer) => answer.symbols) };
}

/** Whether these answers settle that contents decide: undecided in itself, or failing for one and not for another. */
export const isMixed = (answers: readonly Answer[]): boolean =>
  answers.some((answer) => answer.verdict === 'cannot-be-known') ||
  new Set(answers.map((answer) => answer.verdict === 'does-not')).size > 1;

/** Content by content: fails for all, right for all, or undecided. */
export function combine(answers: readonly Answer[], undecided: Answer): Answer {
  const by = (pick: (a: Answer, b: Answer) => boolean) =>
    answers.reduce((best, answer) => (pick(answer, best) ? answer : best));
  if (answers.every((answer) => answer.verdict === 'does-not'))
    return { ...by((a, b) => (a.length ?? 0) > (b.length ?? 0)), symbols: [] };
  if (answers.every((answer) => answer.verdict === 'recalls')) return recallsAnswer;
  if (answers.every((answer) => answer.verdict === 'not-played')) return answers[0];
  const bad = answers.filter((answer) => answer.verdict === 'does-not' || answer.verdict === 'cannot-be-known');
  const shortest = bad.reduce((best, answer) =>
    (answer.length ?? Infinity) < (best.length ?? Infinity) ? answer : best,
  );
  return {
    ...undecided,
    verdict: 'cannot-be-known',
    length: undecided.length ?? shortest.length,
    sequence: undecided.sequence ?? shortest.sequence,
    symbols: [],
  };
}
