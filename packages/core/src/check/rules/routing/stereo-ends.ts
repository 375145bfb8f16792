import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const stereoEnds = defineSoundRule({
  meta: {
    id: 'routing/stereo-ends',
    severity: 'worth-knowing',
    title: 'Stereo ends before the listener',
    why: 'Something makes left and right different, and later only one signal goes on. Where a side is lost, what it alone carries (every second repeat, half a chorus) is not heard; where both are summed, it is heard, narrower.',
    remedy:
      'Plug in both sides up to the end, unplug the right side where the left output alone carries both, or say on Overview that tonight is mono.',
    source: 'common practice',
    messages: {
      lost: 'In {sound} the {side} side ends at {jack} of {device}: what it alone carries is not heard.',
      summed: 'In {sound} {device} makes one signal of left and right.',
    },
  },
  applies: ({ show }) => show.rig.settings.width !== 'mono',
  each: (soundCase) => {
    if (!isHeard(soundCase)) return [];
    const { sound, wiring, trace } = soundCase;
    return trace().widths.collapses.map(({ kind, device, lost }) => {
      const wired = wiring.device.get(device)!;
      const at = { sound: sound.id, device };
      const data = { sound: sound.name, device: wired.device.name };
      return kind === 'lost'
        ? {
            messageId: 'lost' as const,
            severity: 'fix-before-load-in' as const,
            at,
            data: { ...data, side: lost!.side, jack: wired.jack.get(lost!.jack)!.label },
          }
        : { messageId: 'summed' as const, at, data };
    });
  },
});
