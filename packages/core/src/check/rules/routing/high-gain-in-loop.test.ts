import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { highGainInLoop } from './high-gain-in-loop.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(highGainInLoop, {
    clean: {
      'a drive in front of the amp': ordinary().show,
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
