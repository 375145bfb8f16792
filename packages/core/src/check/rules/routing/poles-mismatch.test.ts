import { expect, test } from '@jest/globals';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { polesMismatch } from './poles-mismatch.ts';

const oneJack = (type: string) =>
  new ShowBuilder()
    .text('guitar; direct box; desk; amp')
    .device('pedal', type, 'Pedal', {}, { stereoJacks: 'one jack' })
    .text('guitar > pedal');

test('left and right at a balanced jack: fires where a straight cord joins the two', () => {
  const faults = ruleFaults(polesMismatch, {
    clean: {
      'into an amp': oneJack('delay-stereo').text('pedal > amp').sound('a').show,
      'by a direct box': oneJack('delay-stereo').text('pedal > direct box; direct box line out > desk').show,
      'each side by a cord of three plugs': oneJack('chorus-stereo').text(
        'pair = stereo line to the desk; pedal => pair',
      ).show,
    },
    faulty: {
      'a stereo output into the desk': {
        show: oneJack('chorus-stereo').text('pedal > desk').show,
        messages: ['cancels'],
      },
      'the desk line of a direct box into a stereo input': {
        show: new ShowBuilder()
          .text('guitar > direct box')
          .device('pedal', 'delay-stereo', 'Pedal', {}, { stereoJacks: 'one jack' })
          .text('direct box line out > pedal').show,
        messages: ['inverts'],
      },
    },
  });
  expect(faults).toEqual([]);
});
