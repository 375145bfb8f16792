import { defineRule } from '../../define-rule.ts';
import { isAboutSongs, type Unjudged, unjudged, unjudgedWords } from '../../unjudged.ts';

export const notJudged = defineRule({
  meta: {
    id: 'show/not-judged',
    severity: 'fix-before-load-in',
    title: 'Not judged yet',
    why: 'Nothing can be said of this before it is entered, and silence is not a yes.',
    remedy: 'Enter what is missing; the first of them is the next thing to do.',
    source: 'what the proof and the findings stand on',
    messages: { missing: 'Nothing is said of it: {what}.' },
  },
  check: ({ show, wiring }) =>
    unjudged(show, wiring).flatMap((item) =>
      item.kind === 'no-devices'
        ? []
        : [
            {
              messageId: 'missing' as const,
              severity: isAboutSongs(item) ? ('worth-knowing' as const) : undefined,
              at: placeOf(item),
              data: { what: unjudgedWords(show, item) },
            },
          ],
    ),
});

const placeOf = (item: Unjudged) =>
  'device' in item ? { device: item.device } : 'sound' in item ? { sound: item.sound } : {};
