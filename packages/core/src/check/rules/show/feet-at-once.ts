import { switchLabel } from '../../../model/labels.ts';
import { conventionOf } from '../../../model/rig.ts';
import { defineRule } from '../../define-rule.ts';

export const feetAtOnce = defineRule({
  meta: {
    id: 'show/feet-at-once',
    severity: 'fix-before-load-in',
    title: 'More than one foot action at a bar line',
    why: 'Where one part turns into the next there is time for one press. Two of them make a wrong sound between, or a missed beat.',
    remedy: 'Put what the feet do into the slot, or move one of them to where there is time.',
    source: 'common practice',
    messages: { many: '{from} to {to}: {count} foot actions at once ({what}).' },
  },
  check: ({ show: { rig, songbook }, wiring, prover }) => {
    const severity =
      conventionOf(rig, 'foot') === 'pedal by pedal' ? ('worth-knowing' as const) : ('fix-before-load-in' as const);
    const { parts } = prover.set;
    return parts.flatMap(({ part, slot, events }, i) => {
      const before = parts[i - 1]?.part;
      // Between songs there is time.
      if (!before || before.song !== part.song) return [];
      const what = events.flatMap(({ when, isDerived, action, compiled: { event } }): string[] => {
        if (event.kind === 'press') return ['the slot'];
        // A silent bank move can be made ahead; one that fires falls on the bar line.
        if (event.kind === 'bank') return event.controller.controller!.facts.bankMove === 'fires' ? ['the bank'] : [];
        // So can what the part before does not mind. Of written steps nobody knows; those right after the press count.
        if (action?.kind !== 'foot' || (isDerived && when === 'before')) return [];
        return [switchLabel(wiring, action.device, action.switch)];
      });
      if (what.length < 2) return [];
      return [
        {
          messageId: 'many' as const,
          severity,
          at: { part: part.id, ...(slot ? { slot: slot.slot.id } : {}) },
          data: {
            from: `${songbook.songs[part.song].name}, ${before.name}`,
            to: part.name,
            count: what.length,
            what: timesOver(what),
          },
        },
      ];
    });
  },
});

/** “Boost, Preset down twice”: what is done more than once is said once. */
function timesOver(what: readonly string[]): string {
  const words = ['', '', ' twice', ' three times'];
  return [...new Set(what)]
    .map((name) => {
      const times = what.filter((other) => other === name).length;
      return `${name}${words[times] ?? ` ${times} times`}`;
    })
    .join(', ');
}
