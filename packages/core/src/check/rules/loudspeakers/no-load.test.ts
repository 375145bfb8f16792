import { expect, test } from '@jest/globals';
import { ordinary, without, withSpeakerCable } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noLoad } from './no-load.ts';

test('a power amp without its load: fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noLoad, {
    clean: {
      'the ordinary rig': ordinary().show,
      'an amp that is in no line yet': ordinary().device('spare', 'valve-combo', 'Spare combo').show,
    },
    faulty: {
      'the loudspeaker pulled': { show: without(ordinary().show, 'combo.speaker'), messages: ['open'] },
      'a cable that hangs loose': {
        show: withSpeakerCable({
          plugs: [
            { device: 'combo', jack: 'speaker' },
            { device: 'combo', jack: 'speaker' },
          ],
        }),
        messages: ['loose'],
      },
    },
  });
  expect(faults).toEqual([]);
});
