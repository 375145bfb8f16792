import { partsToBuy, shoppingOf } from '../../../pack/parts.ts';
import { defineRule } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const partMissing = defineRule({
  meta: {
    id: 'build/part-missing',
    severity: 'worth-knowing',
    title: 'A part that nobody has seen to',
    why: 'The classic delay is one missing connector that takes a week to arrive.',
    remedy: 'Say on Build, under Buy, how many there are, or what it costs and how long it takes.',
    source: 'common practice: two spares of every connector',
    messages: { part: '{count} of {name} are needed, spares counted, and nobody has said how many there are.' },
  },
  // While no list has been begun, nothing is missing from it.
  check: ({ show: { rig } }) =>
    (shoppingOf(rig).rows ?? []).length === 0
      ? none
      : partsToBuy(rig)
          .filter(({ row, buy }) => row === undefined && buy > 0)
          .map(({ name, buy }) => ({
            messageId: 'part' as const,
            at: {},
            data: { name: name.toLowerCase(), count: buy },
          })),
});
