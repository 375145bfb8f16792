import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withConvention } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { timeBeforeDrive } from './time-before-drive.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(timeBeforeDrive, {
    clean: {
      'delay in the amp’s loop': ordinary().show,
      'a clean amp behind the delay': delayInFront('clean'),
      'in front is this rig’s school': withConvention(delayInFront('lead'), 'time', 'in front'),
    },
    faulty: { 'a delay into the lead channel': { show: delayInFront('lead'), messages: ['ahead'] } },
  });
  expect(faults).toEqual([]);
});

function delayInFront(channel: string): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('delay', 'delay', 'Delay')
    .device('combo', 'valve-combo', 'Combo')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Delay', 'Delay > Combo Input', 'Combo Loudspeaker > Cabinet')
    .sound('a', { pedals: { delay: 'on' }, wants: { 'combo/channel': channel } }).show;
}
