import { expect, test } from '@jest/globals';
import { setSetting } from '../../../change/commands.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { stereoEnds } from './stereo-ends.ts';

const heard = (text: string) => new ShowBuilder().text(text).sound('wide');
const summed = () => heard('guitar > a = delay stereo => b = reverb stereo > amp > cabinet');

test('stereo that ends: fires where it must, and is quiet where both sides arrive or tonight is mono', () => {
  const faults = ruleFaults(stereoEnds, {
    clean: {
      'both sides to a stereo cabinet': heard('guitar > delay = delay stereo => power amp => cabinet').show,
      'both sides to two amps': heard(
        'guitar > delay = delay stereo => a = amp + b = amp; a > cab a = cabinet; b > cab b = cabinet',
      ).show,
      'a stereo pedal used in mono': heard('guitar > delay = delay stereo > amp > cabinet').show,
      'summed, in a rig declared mono': summed().do(setSetting(summed().show, 'width', 'mono')).show,
      'a silent sound': new ShowBuilder()
        .text('guitar > a = delay stereo => b = reverb stereo > amp > cabinet')
        .sound('quiet', { silence: true }).show,
    },
    faulty: {
      'summed by a pedal with its left output alone': { show: summed().show, messages: ['summed'] },
      'a mono plug in a stereo jack': {
        show: new ShowBuilder()
          .text('guitar; amp > cabinet')
          .device('chorus', 'chorus-stereo', 'Chorus', {}, { stereoJacks: 'one jack' })
          .text('guitar > chorus > amp')
          .sound('half').show,
        messages: ['lost'],
      },
    },
  });
  expect(faults).toEqual([]);
});
