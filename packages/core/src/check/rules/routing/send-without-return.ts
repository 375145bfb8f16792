import { loopsOf } from '../../../model/switching.ts';
import type { WiredDevice, Wiring } from '../../../model/wiring.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';

export const sendWithoutReturn = defineRule({
  meta: {
    id: 'routing/send-without-return',
    severity: 'fix-before-load-in',
    title: 'A send without its return, or the reverse',
    why: 'What goes out does not come back, or something comes back that was never sent: the loop is half wired.',
    remedy: 'Plug in the missing end; or say that it is meant so (a return used as an input, a send as a line out).',
    source: 'common practice',
    messages: {
      'no-return': '{device}: {send} is plugged in, {return} is not.',
      'no-send': '{device}: {return} is plugged in, {send} is not.',
    },
  },
  check: ({ wiring }) =>
    wiring.devices.flatMap((wired) =>
      pairsOf(wiring, wired).flatMap((pair): Reported<'no-return' | 'no-send'>[] => {
        const sent = wired.plugged.has(pair.send);
        const back = wired.plugged.has(pair.return);
        const lone = sent ? pair.send : pair.return;
        if (sent === back || wired.device.oneWay?.includes(lone)) return [];
        const label = (jack: string) => wired.jack.get(jack)?.label ?? jack;
        const { id, oneWay } = wired.device;
        return [
          {
            messageId: sent ? 'no-return' : 'no-send',
            at: { device: id },
            data: { device: wired.device.name, send: label(pair.send), return: label(pair.return) },
            fix: setFix(
              `${label(lone)} is used alone on purpose`,
              ['devices', id, 'oneWay'],
              [...(oneWay ?? []), lone],
              oneWay,
            ),
          },
        ];
      }),
    ),
});

function pairsOf(wiring: Wiring, wired: WiredDevice): readonly { readonly send: string; readonly return: string }[] {
  const own = wired.anatomy.controller ? loopsOf(wiring).filter((loop) => loop.controller === wired.device.id) : [];
  return [
    ...own.flatMap((loop) =>
      loop.send === undefined || loop.return === undefined ? [] : [{ send: loop.send, return: loop.return }],
    ),
    ...(wired.anatomy.inserts ?? []),
  ];
}
