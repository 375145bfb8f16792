import { expect, test } from '@jest/globals';
import { contextOf } from '../check/engine.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { volumeWords } from '../why/volume-words.ts';
import { volumePedals, volumePlace } from './volume-place.ts';

/** What is told of the volume pedal in a rig as typed. */
function toldOf(text: string): string {
  const { show } = new ShowBuilder().text(text);
  const { tracer, wiring } = contextOf(show);
  expect(volumePedals(wiring)).toEqual(['volume']);
  const place = volumePlace(tracer.trace(null), 'volume');
  return place ? volumeWords(place, (device) => show.rig.devices[device].name) : 'nothing';
}

// Common practice: volume pedal first, an echo rings on; after the echo all fades; in a parallel branch only the echo
// fades; before gain it is drive, behind it level.
test.each([
  ['guitar > volume > drive > delay > desk', 'Turned down, Drive distorts less: it turns the drive; Delay rings on'],
  [
    'guitar > drive > volume > delay > desk',
    'Turned down, the level falls, and the gain before it stays; Delay rings on',
  ],
  [
    'guitar > drive > delay > volume > desk',
    'Turned down, the level falls, and the gain before it stays; Delay fades with it, and swells as it opens',
  ],
  [
    'guitar > volume > drive a = drive > drive b = fuzz > desk',
    'Turned down, Drive a and Drive b distort less: it turns the drive',
  ],
  [
    'mixer = mixer two inputs; guitar > volume + boost; volume > delay > mixer in 1; boost > mixer in 2; mixer > desk',
    'Turned down, only this branch falls: it is the dose of what is on it, and the rest goes on; Delay rings on',
  ],
  ['guitar > desk; volume', 'nothing'],
])('%s', (text, words) => expect(toldOf(text)).toBe(words));
