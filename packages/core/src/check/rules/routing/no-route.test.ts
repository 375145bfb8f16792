import { expect, test } from '@jest/globals';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noRoute } from './no-route.ts';

const silent = without(ordinary().show, 'combo.speaker');

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noRoute, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no instrument yet': new ShowBuilder().device('combo', 'valve-combo', 'Combo').sound('a').show,
      'a sound that is marked as silent': {
        ...silent,
        rig: {
          ...silent.rig,
          sounds: Object.fromEntries(
            Object.entries(silent.rig.sounds).map(([id, sound]) => [id, { ...sound, silence: true }]),
          ),
        },
      },
    },
    faulty: {
      'the cabinet not plugged in': { show: silent, messages: ['silent', 'silent'] },
      'a mute wanted in a sound that is not silent': {
        show: new ShowBuilder()
          .device('guitar', 'guitar', 'Guitar')
          .device('tuner', 'tuner', 'Tuner')
          .device('desk', 'desk', 'Desk')
          .cables('Guitar > Tuner', 'Tuner > Desk')
          .sound('a', { wants: { 'tuner/mute': 1 } }).show,
        messages: ['silent'],
      },
    },
  });
  expect(faults).toEqual([]);
});
