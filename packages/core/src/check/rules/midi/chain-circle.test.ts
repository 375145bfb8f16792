import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ordinary, twoEffects, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { chainCircle } from './chain-circle.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(chainCircle, {
    clean: { 'a chain with an end': twoEffects(3) },
    faulty: { 'a through that comes back': { show: chainRound(), messages: ['round'] } },
  });
  expect(faults).toEqual([]);
});

function chainRound(): Show {
  const { show } = ordinary().device('hall', 'midi-reverb', 'Hall', { channel: 3 }).cables('Delay MIDI through > Hall');
  return {
    ...without(show, 'switcher.midi-out'),
    rig: {
      ...without(show, 'switcher.midi-out').rig,
      cables: {
        ...without(show, 'switcher.midi-out').rig.cables,
        back: {
          id: 'back',
          tag: 'M9',
          order: 'z',
          kind: 'midi',
          plugs: [
            { device: 'hall', jack: 'midi-thru' },
            { device: 'delay', jack: 'midi-in' },
          ],
          length: 1,
          loom: null,
        },
      },
    },
  };
}
