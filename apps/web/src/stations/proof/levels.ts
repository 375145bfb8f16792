import { type Evidence, type Level, type StrayReport, type Verdict, why } from '@yunta/core';
import type { Proved } from '../../workers/judge-types.ts';

export const levels: readonly { readonly level: Level; readonly name: string; readonly what: string }[] = [
  { level: 1, name: 'In set order', what: 'power-up, then the set list, part by part' },
  { level: 2, name: 'From anywhere', what: 'any presses, bank moves, planned feet and cues before' },
  { level: 3, name: 'After an accidental press', what: 'one foot action before that nobody planned' },
  { level: 4, name: 'After a fault', what: 'one message or pulse lost, or one device restarted before' },
];

export const verdictWords: Record<Verdict, string> = {
  recalls: 'recalls',
  'does-not': 'fails',
  'cannot-be-known': 'cannot be known',
  'not-played': 'not played',
};
export const verdictMark = {
  recalls: 'ok',
  'does-not': 'stops-the-show',
  'cannot-be-known': 'unknown',
  'not-played': 'none',
} as const;

/** What a level comes to, in a mark and a figure; null until it is known. */
export function outcomeOf(
  level: Level,
  proved: Pick<Proved, 'judgements' | 'byFeet'> | undefined,
  presses: readonly StrayReport[] | null,
): { readonly mark: Mark; readonly evidence: Evidence } | null {
  if (!proved) return null;
  const { judgements, byFeet } = proved;
  // An accidental press is told by its switch: that a piece is off when its own switch was pressed is no fault.
  if (level === 3 && judgements.length > 0)
    return presses && { mark: markOfPresses(presses), evidence: why.accidental(presses) };
  const judged = level === 1 ? [...judgements, ...byFeet] : judgements;
  return { mark: verdictMark[worstOf(judged)], evidence: why.recalled(level, judgements, byFeet) };
}

type Mark = (typeof verdictMark)[Verdict] | 'fix-before-load-in' | 'worth-knowing';

function markOfPresses(presses: readonly StrayReport[]): Mark {
  if (presses.some(({ effect, isUndoneByItself }) => effect === 'spoils-others' && !isUndoneByItself))
    return 'fix-before-load-in';
  return presses.some(({ effect }) => effect === 'silences' || effect === 'spoils-others') ? 'worth-knowing' : 'ok';
}

/** The gravest verdict of a level, for its mark. */
export function worstOf(judgements: readonly { readonly verdict: Verdict }[]): Verdict {
  const order: readonly Verdict[] = ['does-not', 'cannot-be-known', 'recalls', 'not-played'];
  return order.find((verdict) => judgements.some((judgement) => judgement.verdict === verdict)) ?? 'not-played';
}
