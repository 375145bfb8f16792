import { nameOf } from '../../queries.ts';
import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const howl = defineSoundRule({
  meta: {
    id: 'routing/howl',
    severity: 'stops-the-show',
    title: 'The signal comes back to itself',
    why: 'What leaves a device comes back to its input. From as much as went out (0 dB) it howls, whatever is played; from half of it (−6 dB) it rings and colours.',
    remedy: 'Unplug what leads back, or take one of the loops out of this sound.',
    source: 'spectral radius of the gains round the loop, small signal; gains are typical',
    messages: {
      howls: '{sound} howls: the signal goes round through {devices}, {gain} dB each time.',
      rings: '{sound} may ring: the signal goes round through {devices}, {gain} dB each time.',
    },
  },
  each: (soundCase) => {
    if (!isHeard(soundCase)) return [];
    return soundCase.trace().cycles.flatMap(({ devices, radius, verdict }) =>
      verdict === 'quiet'
        ? []
        : [
            {
              messageId: verdict,
              severity: verdict === 'howls' ? ('stops-the-show' as const) : ('worth-knowing' as const),
              at: { sound: soundCase.sound.id, device: devices[0] },
              data: {
                sound: soundCase.sound.name,
                devices: devices.map((device) => nameOf(soundCase, device)).join(', '),
                gain: signed(20 * Math.log10(radius)),
              },
            },
          ],
    );
  },
});

/** “+3.0”, “−6.0”, “0.0” */
const signed = (decibels: number): string => {
  const text = Math.abs(decibels).toFixed(1);
  return text === '0.0' ? text : `${decibels < 0 ? '−' : '+'}${text}`;
};
