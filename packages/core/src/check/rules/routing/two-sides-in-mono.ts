import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const twoSidesInMono = defineSoundRule({
  meta: {
    id: 'routing/two-sides-in-mono',
    severity: 'worth-knowing',
    title: 'Left and right to the desk on a night in mono',
    why: 'Tonight is mono. Where the desk takes one of two lines, what only the other carries is not heard; where it sums them, what differs by time or polarity thins out.',
    remedy: 'Unplug the right output where the left alone carries both, or ask the desk for both lines.',
    source: 'common practice; the other side holds that the desk should have both lines and decide',
    messages: { both: 'Tonight is mono, and in {sound} left and right go to {device} apart.' },
  },
  applies: ({ show }) => show.rig.settings.width === 'mono',
  each: (soundCase) => {
    if (!isHeard(soundCase)) return [];
    const { sound, wiring, trace } = soundCase;
    const { passes, widths } = trace();
    const ends = new Set(
      passes.flatMap((pass) =>
        pass.next.filter(
          (next, i) =>
            widths.links[pass.index]?.[i] === 'stereo' &&
            wiring.device.get(passes[next].device)!.device.type.archetype === 'line',
        ),
      ),
    );
    return [...ends].map((end) => ({
      messageId: 'both' as const,
      at: { sound: sound.id, device: passes[end].device },
      data: { sound: sound.name, device: wiring.device.get(passes[end].device)!.device.name },
    }));
  },
});
