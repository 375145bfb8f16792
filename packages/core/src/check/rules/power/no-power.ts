import { defineRule } from '../../define-rule.ts';
import { basis, plannedPower } from '../../power-queries.ts';

export const noPower = defineRule({
  meta: {
    id: 'power/no-power',
    severity: 'stops-the-show',
    title: 'A device that has no power',
    why: 'Without an output and without its battery it is silent, and most devices pass nothing while they are.',
    remedy: 'Give it an output on Power, say that it runs on its battery, or leave it at home.',
    source: 'common practice',
    messages: {
      nothing: '{device} needs {ma} mA and hangs on no output and on no battery{basis}.',
      loose: '{device} hangs on {tag}, which comes from no output{basis}.',
    },
  },
  check: (context) =>
    (plannedPower(context)?.loads ?? [])
      .filter(({ by }) => by === 'nothing' || by === 'loose')
      .map((load) => ({
        messageId: load.by === 'loose' ? ('loose' as const) : ('nothing' as const),
        at: { device: load.device.id },
        data: {
          device: load.device.name,
          ma: load.needs.ma,
          tag: load.cable?.tag ?? '',
          basis: basis([load]),
        },
      })),
});
