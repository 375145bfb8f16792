import type { Cycle } from '../trace/feedback.ts';
import type { Trace } from '../trace/trace.ts';
import { counted, type Evidence } from './evidence.ts';

export const passesOf = ({ passes, jumpers }: Trace): Evidence => ({
  of: 'Passes of the run',
  value: counted(passes.length, 'pass', 'passes'),
  inputs: [
    ['devices passed', String(new Set(passes.map((pass) => pass.device)).size)],
    [
      'passed more than once',
      String(
        new Set(
          passes
            .filter((pass) => passes.some((other) => other !== pass && other.device === pass.device))
            .map((pass) => pass.device),
        ).size,
      ),
    ],
    ['loops jumped', String(jumpers.length)],
  ],
  formula: 'one for each time the signal comes into a device by a cable and leaves it by another',
  source: 'traced through the cables as plugged and the sections that this sound closes',
  rests: 'entered',
});

export const loopGain = ({ devices, radius }: Cycle): Evidence => ({
  of: 'Loop gain',
  value: radius.toFixed(2),
  inputs: [
    ['devices in the circle', String(devices.length)],
    ['rings from', '0.5'],
    ['howls from', '1'],
  ],
  formula: 'spectral radius of the gains around the circle, parallel ways added',
  source: 'Perron–Frobenius; Nyquist for real positive gains, worst frequency and phase',
  rests: 'typical',
});
