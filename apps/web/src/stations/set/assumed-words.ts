import type { Assumed } from '@yunta/core';

/** What a MIDI file rests on that nobody entered, in words, the same thing said once. */
export function assumedWords(assumed: readonly Assumed[]): string {
  const tempo = assumed.filter((assumed) => assumed.what === 'tempo').map((item) => item.song);
  const bars = assumed.filter((assumed) => assumed.what === 'bars').length;
  const feet = assumed.filter((assumed) => assumed.what === 'by-foot').length;
  const words = [
    tempo.length > 0 ? `120 quarter notes a minute for ${tempo.join(', ')}` : '',
    bars > 0 ? `8 bars for ${bars} ${bars === 1 ? 'part' : 'parts'} of unknown length` : '',
    feet > 0
      ? `loops and contacts of ${feet} ${feet === 1 ? 'part' : 'parts'} stay with the foot, since no program change calls the switcher’s slots`
      : '',
  ].filter(Boolean);
  return `${words.join('; ')}.`;
}
