import { expect, test } from '@jest/globals';
import { connect } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { fourCable } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { outputsJoined } from './outputs-joined.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(outputsJoined, {
    clean: {
      'a cord that splits one output': joined('Switcher Send 4 > Boost + Boost 2'),
      'one guitar into two inputs': fourCable()
        .device('spare', 'guitar', 'Spare')
        .device('boost', 'boost', 'Boost')
        .device('boost-2', 'boost', 'Boost 2')
        .cables('Spare > Boost + Boost 2').show,
    },
    faulty: {
      'two guitars into one input': {
        show: fourCable()
          .device('bass', 'guitar', 'Bass')
          .device('spare', 'guitar', 'Spare')
          .device('boost', 'boost', 'Boost')
          .cables('Bass + Spare > Boost').show,
        messages: ['instruments'],
      },
      'two pedals into one input': { show: joined('Boost + Boost 2 > Switcher Return 4'), messages: ['signal'] },
      'two amps on one cabinet': {
        show: fourCable()
          .device('amp', 'valve-combo', 'Second')
          .device('box', 'cabinet', 'Box')
          .device('amp-3', 'valve-combo', 'Third')
          .cables('Second Loudspeaker + Third Loudspeaker > Box').show,
        messages: ['speaker'],
      },
      'two MIDI outputs and nothing else': { show: bareOutputs(), messages: ['midi'] },
      'two MIDI outputs into one input': {
        show: fourCable()
          .device('app', 'foot-controller', 'Player')
          .device('app-2', 'foot-controller', 'Other')
          .device('echo', 'midi-delay', 'Echo')
          .cables('Player MIDI out + Other MIDI out > Echo').show,
        messages: ['midi'],
      },
    },
  });
  expect(faults).toEqual([]);
});

function joined(cable: string): Show {
  return fourCable().device('boost', 'boost', 'Boost').device('boost-2', 'boost', 'Boost 2').cables(cable).show;
}

/** Two MIDI outputs on one cable: such a cable is not said in a line, but may come by file. */
function bareOutputs(): Show {
  const builder = fourCable().device('app', 'foot-controller', 'Player').device('app-2', 'foot-controller', 'Other');
  return builder.do(
    connect(builder.show, 'bare', [
      { device: 'app', jack: 'midi-out' },
      { device: 'app-2', jack: 'midi-out' },
    ]),
  ).show;
}
