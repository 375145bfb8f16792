import { describe, expect, test } from '@jest/globals';
import { assumedWords } from './assumed-words.ts';
import { leftOutWords } from './left-out-words.ts';

describe('what a MIDI file that goes out rests on', () => {
  test('songs without a tempo are named; parts are counted; the feet are explained', () => {
    expect(
      assumedWords([
        { what: 'tempo', song: 'Sand Bar' },
        { what: 'tempo', song: 'Low Water' },
      ]),
    ).toBe('120 quarter notes a minute for Sand Bar, Low Water.');
    expect(assumedWords([{ what: 'bars', song: 'Sand Bar', part: 'verse' }])).toBe(
      '8 bars for 1 part of unknown length.',
    );
    expect(
      assumedWords([
        { what: 'bars', song: 'A', part: 'x' },
        { what: 'bars', song: 'A', part: 'y' },
        { what: 'by-foot', song: 'A', part: 'x' },
      ]),
    ).toBe(
      '8 bars for 2 parts of unknown length; loops and contacts of 1 part stay with the foot, since no program change calls the switcher’s slots.',
    );
  });
});

describe('what of a MIDI file that comes in was left out', () => {
  test('nothing is said where nothing was', () => expect(leftOutWords([])).toBe(''));
  test('each song is named once', () => {
    expect(
      leftOutWords([
        { what: 'tempo-changes', song: 'Heron' },
        { what: 'tempo-changes', song: 'Heron' },
      ]),
    ).toBe('Left out: the tempo changes inside Heron: the first is kept.');
    expect(leftOutWords([{ what: 'no-parts', song: 'Heron' }])).toBe('Left out: Heron has no markers, so no parts.');
  });
  test('parts of no length are counted, unless the meter says why already', () => {
    const bars = [
      { what: 'bars', song: 'Heron', part: 'a' },
      { what: 'bars', song: 'Heron', part: 'b' },
    ] as const;
    expect(leftOutWords(bars)).toBe('Left out: 2 parts are of no length.');
    expect(leftOutWords([...bars, { what: 'meter-changes', song: 'Heron' }])).toBe(
      'Left out: the meter of Heron changes or is none that a songbook holds: bars are not counted.',
    );
  });
});
