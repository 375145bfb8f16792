import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { Action } from '../../../model/rig.ts';
import { byHand, ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { bankUnselected } from './bank-unselected.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(bankUnselected, {
    clean: {
      'the first bank': banked('none', 5, null),
      'bank select by a generated slot': banked('lsb', 200, null),
      'by hand, with the bank': banked('lsb', 200, [
        { kind: 'control', channel: 3, cc: 32, value: 1 },
        { kind: 'program', channel: 3, program: 72 },
      ]),
    },
    faulty: {
      'a device that knows no bank select': { show: banked('none', 200, null), messages: ['no-scheme'] },
      'by hand, without the bank': {
        show: banked('lsb', 200, [{ kind: 'program', channel: 3, program: 72 }]),
        messages: ['not-sent'],
        fixable: true,
      },
    },
  });
  expect(faults).toEqual([]);
});

function banked(scheme: string, preset: number, actions: readonly Action[] | null): Show {
  const show = ordinary()
    .device('multi', 'midi-multi', 'Multi', { channel: 3 }, { scheme })
    .cables('Delay MIDI through > Multi MIDI in').show;
  const wanted = {
    ...show,
    rig: {
      ...show.rig,
      sounds: {
        ...show.rig.sounds,
        lead: { ...show.rig.sounds.lead, wants: { ...show.rig.sounds.lead.wants, 'multi/preset': preset } },
      },
    },
  };
  return actions ? byHand(wanted, 'slot-lead', actions) : wanted;
}
