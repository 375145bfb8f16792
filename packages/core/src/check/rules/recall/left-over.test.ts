import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { byHand, ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { leftOver } from './left-over.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(leftOver, {
    clean: { 'slots generated from their sounds': ordinary().show },
    faulty: {
      'a slot by hand that forgets the channel': {
        show: byHand(ordinary().show, 'slot-lead', [
          { kind: 'set', control: 'loop-1', value: 1 },
          { kind: 'set', control: 'loop-2', value: 1 },
          { kind: 'set', control: 'loop-3', value: 1 },
          { kind: 'program', channel: 2, program: 5 },
          { kind: 'wait', ms: 30 },
          { kind: 'control', channel: 2, cc: 102, value: 127 },
        ]),
        messages: ['left'],
        fixable: true,
      },
      'a slot by hand that is called back by what it calls': {
        show: calledBack(15),
        messages: ['unquiet'],
        fixable: true,
      },
      // The player listens where the delay does: whatever recalls the wanted preset calls it too.
      'a slot that is called back however it is made': { show: calledBack(2), messages: ['unquiet'], fixable: false },
      'a slot by hand that sends nothing': {
        show: byHand(ordinary().show, 'slot-clean', []),
        messages: ['left'],
        fixable: true,
      },
    },
  });
  expect(faults).toEqual([]);
});

/** The lead's slot calls the player on a channel with the number of its echo, and the player calls the slot back. */
function calledBack(channel: number): Show {
  const { show } = ordinary()
    .device('app', 'foot-controller', 'Player')
    .cables('Delay MIDI through > Player', 'Player MIDI out > Switcher');
  const program = Number(show.rig.sounds.lead.wants['delay/preset']);
  const { switcher, app } = show.rig.devices;
  return {
    ...show,
    rig: {
      ...show.rig,
      slots: {
        ...show.rig.slots,
        'slot-lead': { ...show.rig.slots['slot-lead'], actions: [{ kind: 'program', channel, program }] },
        back: {
          id: 'back',
          controller: 'app',
          sound: null,
          bank: 0,
          position: 0,
          actions: [{ kind: 'program', channel: 14, program: 0 }],
        },
      },
      devices: {
        ...show.rig.devices,
        switcher: { ...switcher, calls: { channel: 14, programs: { '0': 'slot-lead' } } },
        app: { ...app, calls: { channel, programs: { [String(program)]: 'back' } } },
      },
    },
  };
}
