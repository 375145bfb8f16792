import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { Sound } from '../../../model/rig.ts';
import { fourCable, ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { sharedLoop } from './shared-loop.ts';

const inLoopThree = ['Delay MIDI through > Hall MIDI in'];

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(sharedLoop, {
    clean: {
      'one piece a loop': ordinary().show,
      'two that are wanted together': shared({ drive: 'on', boost: 'on' }),
      'one that MIDI switches': fourCable()
        .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
        .cables(...inLoopThree)
        .sound('a', { pedals: { drive: 'off', delay: 'on', hall: 'off', combo: 'on' } }).show,
    },
    faulty: { 'one wanted without the other': { show: shared({ drive: 'on', boost: 'off' }), messages: ['apart'] } },
  });
  expect(faults).toEqual([]);
});

function shared(pedals: Sound['pedals']): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('switcher', 'switcher-4', 'Switcher')
    .device('drive', 'drive', 'Drive')
    .device('boost', 'boost', 'Boost')
    .device('desk', 'desk', 'Desk')
    .cables(
      'Guitar > Switcher In',
      'Switcher Send 1 > Drive',
      'Drive > Boost',
      'Boost > Switcher Return 1',
      'Switcher Out > Desk',
    )
    .sound('a', { pedals }).show;
}
