import { expect, test } from '@jest/globals';
import { setSetting } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { twoSidesInMono } from './two-sides-in-mono.ts';

const toDesk = (text: string): Show => new ShowBuilder().text(text).sound('wide').show;
const inMono = (show: Show): Show => new ShowBuilder(show).do(setSetting(show, 'width', 'mono')).show;
const wide = toDesk('guitar > delay = delay stereo => desk = stereo line to the desk');

test('left and right to the desk on a night in mono: fires there alone', () => {
  const faults = ruleFaults(twoSidesInMono, {
    clean: {
      'nobody said that it is mono': wide,
      'one line, in mono': inMono(toDesk('guitar > delay = delay stereo > desk')),
      'two amps, each its side': inMono(
        toDesk('guitar > delay = delay stereo => a = amp + b = amp; a > ca = cabinet; b > cb = cabinet'),
      ),
    },
    faulty: { 'both lines, in mono': { show: inMono(wide), messages: ['both'] } },
  });
  expect(faults).toEqual([]);
});
