import { expect, test } from '@jest/globals';
import { addDevice } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { highGainInLoop } from './high-gain-in-loop.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(highGainInLoop, {
    clean: {
      'a drive in front of the amp': ordinary().show,
      'a driven band of a band split, which is no amp': bandSplit(),
      'gain in the loop is this rig’s school': withConvention(driveInLoop(), 'gain', 'gain in the loop'),
    },
    faulty: { 'a drive between send and return': { show: driveInLoop(), messages: ['inside'] } },
  });
  expect(faults).toEqual([]);
});

function driveInLoop(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('combo', 'valve-combo', 'Combo')
    .device('drive', 'drive', 'Drive')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Combo Input', 'Combo Send > Drive', 'Drive > Combo Return', 'Combo Loudspeaker > Cabinet')
    .sound('a', { pedals: { drive: 'on' } }).show;
}

/** A bass whose upper band goes round through a drive and comes back. */
function bandSplit(): Show {
  const anatomy = {
    jacks: [
      { id: 'in', label: 'In', kind: 'signal-in' },
      { id: 'out', label: 'Out', kind: 'signal-out' },
      { id: 'high-send', label: 'High send', kind: 'signal-out' },
      { id: 'high-return', label: 'High return', kind: 'signal-in' },
    ],
    sections: [
      { id: 'low', label: 'Low band', from: 'in', to: 'out', active: true },
      { id: 'high', label: 'High band', from: 'in', to: 'high-send', active: true },
      { id: 'back', label: 'Blend', from: 'high-return', to: 'out', active: true },
    ],
    inserts: [{ send: 'high-send', return: 'high-return' }],
  };
  const builder = new ShowBuilder()
    .device('bass', 'bass', 'Bass')
    .device('drive', 'drive', 'Drive')
    .device('desk', 'desk', 'Desk');
  const type = { id: 'band-split', revision: 1, name: 'Band split', archetype: 'declared', params: { anatomy } };
  return builder
    .do(addDevice(builder.show, 'split', type, 'Band split', 'board'))
    .cables(
      'Bass > Band split In',
      'Band split High send > Drive',
      'Drive > Band split High return',
      'Band split Out > Desk',
    )
    .sound('a', { pedals: { drive: 'on' } }).show;
}
