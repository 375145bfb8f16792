import type { Judgement, Level, Verdict } from '@yunta/core';

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

/** The gravest verdict of a level, for its mark. */
export function worstOf(judgements: readonly Judgement[]): Verdict {
  const order: readonly Verdict[] = ['does-not', 'cannot-be-known', 'recalls', 'not-played'];
  return order.find((verdict) => judgements.some((judgement) => judgement.verdict === verdict)) ?? 'not-played';
}
