import { endsOf } from '../../../model/cable-ends.ts';
import { inOrder } from '../../../model/documents.ts';
import { defineRule } from '../../define-rule.ts';

export const polesMismatch = defineRule({
  meta: {
    id: 'routing/poles-mismatch',
    severity: 'fix-before-load-in',
    title: 'Left and right at a balanced jack',
    why: 'A balanced jack takes the difference of its two poles. Left and right on them cancel wherever they are alike: the middle of the sound is gone. The other way round one side is upside down.',
    remedy: 'Use a cord from one stereo jack to two mono plugs, or a direct box for each side.',
    source: 'common practice',
    messages: {
      cancels: '{tag} takes left and right from {from} into {to}, which is balanced: what both share cancels.',
      inverts: '{tag} takes the balanced {from} into the stereo {to}: one side is upside down.',
    },
  },
  check: ({ show, wiring }) =>
    inOrder(show.rig.cables).flatMap((cable) => {
      if (cable.poles || cable.plugs.length !== 2 || cable.kind !== 'signal') return [];
      const { from, to } = endsOf(wiring, cable);
      const [out, into] = [from[0], to[0]];
      const nameOf = (end: typeof out) =>
        `${wiring.device.get(end.plug.device)!.device.name} ${end.jack!.label.toLowerCase()}`;
      const messageId =
        out.jack?.stereo && into.jack?.balanced
          ? ('cancels' as const)
          : out.jack?.balanced && into.jack?.stereo
            ? ('inverts' as const)
            : undefined;
      return messageId === undefined
        ? []
        : [
            {
              messageId,
              at: { device: into.plug.device },
              data: { tag: cable.tag, from: nameOf(out), to: nameOf(into) },
            },
          ];
    }),
});
