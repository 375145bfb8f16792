import { addPart, addSong, layOut, setSong } from '../change/commands.ts';
import type { Show } from '../model/documents.ts';
import { ShowBuilder } from './build-show.ts';

/**
 * A guitar and an acoustic into a selector, a loop switcher behind it; one song on each of the instruments named, both
 * played by the same slot.
 */
export function twoInstruments(names: readonly string[], wants: Readonly<Record<string, string>> = {}): Show {
  const builder = new ShowBuilder()
    .text(
      [
        'guitar > selector a; acoustic = acoustic guitar > selector b',
        'selector > switcher; switcher 1: drive; switcher > amp > cabinet',
      ].join('\n'),
    )
    .sound('plain', { pedals: { drive: 'off' }, wants });
  builder.do(layOut(builder.show, 'switcher'));
  for (const [i, name] of names.entries()) {
    const id = `song-${i}`;
    builder.do(addSong(builder.show, id, `Song ${i + 1}`)).do(setSong(builder.show, id, 'instrument', name));
    builder.do(addPart(builder.show, `part-${i}`, id, 'all', { slot: 'slot-plain' }));
  }
  return builder.show;
}
