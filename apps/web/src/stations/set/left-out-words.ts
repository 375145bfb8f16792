import type { LeftOut } from '@yunta/core';

/** What of a MIDI file was not taken in, in words; empty where everything that a songbook holds was. */
export function leftOutWords(leftOut: readonly LeftOut[]): string {
  const songs = (what: LeftOut['what']): string =>
    [...new Set(leftOut.flatMap((leftOut) => (leftOut.what === what ? [leftOut.song] : [])))].join(', ');
  const tempo = songs('tempo-changes');
  const meter = songs('meter-changes');
  const none = songs('no-parts');
  const bars = leftOut.filter((leftOut) => leftOut.what === 'bars').length;
  const words = [
    tempo && `the tempo changes inside ${tempo}: the first is kept`,
    meter && `the meter of ${meter} changes or is none that a songbook holds: bars are not counted`,
    none && `${none} has no markers, so no parts`,
    !meter && bars > 0 && `${bars} ${bars === 1 ? 'part is' : 'parts are'} of no length`,
  ].filter(Boolean);
  return words.length > 0 ? `Left out: ${words.join('; ')}.` : '';
}
