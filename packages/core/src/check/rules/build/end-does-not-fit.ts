import { cableRuns } from '../../../build/runs.ts';
import { setEnd } from '../../../change/commands.ts';
import { plugFits } from '../../../model/connectors.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const endDoesNotFit = defineRule({
  meta: {
    id: 'build/end-does-not-fit',
    severity: 'stops-the-show',
    title: 'A plug that does not go into its jack',
    why: 'A cable with the wrong end is found out at load-in, where nobody has the right one.',
    remedy: 'Take a cable with the other end, or say in the inspector what the jack takes.',
    source: 'ends as entered; what jacks of a kind usually take (common practice)',
    messages: {
      end: '{tag} ends in “{plug}” at {jack} of {device}, which takes “{takes}”.',
      poles: '{tag} has two poles at {jack} of {device}, which has three: one of them joins the sleeve.',
    },
  },
  check: ({ show }) =>
    cableRuns(show.rig).flatMap(({ cable, ends }) =>
      ends.flatMap(({ plug, device, jack, takes, entered }): readonly Reported<'end' | 'poles'>[] => {
        if (entered?.plug === undefined || takes === '') return none;
        const fits = plugFits(takes, entered.plug);
        if (fits === 'yes') return none;
        return [
          {
            messageId: fits === 'poles' ? ('poles' as const) : ('end' as const),
            ...(fits === 'poles' ? { severity: 'fix-before-load-in' as const } : {}),
            at: { device: plug.device },
            data: { tag: cable.tag, plug: entered.plug, jack, device, takes },
            fix: {
              label: `Take a cable that ends in “${takes}”`,
              steps: setEnd(show, cable.id, plug, undefined).steps,
            },
          },
        ];
      }),
    ),
});
