import type { EffectKind } from '../anatomy.ts';

/** What a thing does, as far as its name tells: *Wah*, *Amp 2*, *Plate reverb*. The first that fits. */
const kinds: readonly (readonly [RegExp, EffectKind])[] = [
  [/cab|speaker|impulse/i, 'cabinet-simulation'],
  [/gate|noise/i, 'gate'],
  [/comp|limit|sustain/i, 'compressor'],
  [/boost/i, 'boost'],
  [/drive|dist|fuzz|amp|preamp|gain|crunch|lead/i, 'drive'],
  [/delay|echo|looper/i, 'delay'],
  [/reverb|room|hall|plate|spring|shimmer/i, 'reverb'],
  [/pitch|octave|harmon|detune/i, 'pitch'],
  [/chorus|flang|phas|trem|vibrato|rotary|mod/i, 'modulation'],
  [/eq|tone|filter|wah|notch/i, 'equaliser'],
];

export const effectNamed = (name: string): EffectKind => kinds.find(([pattern]) => pattern.test(name))?.[1] ?? 'other';
