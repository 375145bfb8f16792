import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withDevice, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { sendWithoutReturn } from './send-without-return.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(sendWithoutReturn, {
    clean: { 'the four-cable rig': ordinary().show, 'a return used as an input on purpose': declaredOneWay() },
    faulty: {
      'a send with no return': { show: without(ordinary().show, 'drive.out'), messages: ['no-return'], fixable: true },
      'a preamp into the return of an amp': { show: intoReturn(), messages: ['no-send'], fixable: true },
    },
  });
  expect(faults).toEqual([]);
});

function declaredOneWay(): Show {
  return withDevice(intoReturn(), 'combo', { oneWay: ['return'] });
}

function intoReturn(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('preamp', 'preamp', 'Preamp')
    .device('combo', 'valve-combo', 'Combo')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Preamp In', 'Preamp Line out > Combo Return', 'Combo Loudspeaker > Cabinet')
    .sound('a').show;
}
