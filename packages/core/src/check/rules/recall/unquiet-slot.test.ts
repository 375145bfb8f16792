import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import type { Action } from '../../../model/rig.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { unquietSlot } from './unquiet-slot.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(unquietSlot, {
    clean: { 'a rig in which nobody calls anybody': ordinary().show },
    faulty: {
      'two controllers that call each other round, in a slot that no part uses': {
        show: circle(),
        messages: ['round', 'round'],
      },
    },
  });
  expect(faults).toEqual([]);
});

function circle(): Show {
  const { show } = ordinary()
    .device('app', 'foot-controller', 'Player')
    .cables('Delay MIDI through > Player', 'Player MIDI out > Switcher');
  const call = (channel: number): Action => ({ kind: 'program', channel, program: 0 });
  const slot = { sound: null, bank: 5, position: 0 };
  return {
    ...show,
    rig: {
      ...show.rig,
      slots: {
        ...show.rig.slots,
        round: { ...slot, id: 'round', controller: 'switcher', actions: [call(15)] },
        back: { ...slot, id: 'back', controller: 'app', actions: [call(14)] },
      },
      devices: {
        ...show.rig.devices,
        switcher: { ...show.rig.devices.switcher, calls: { channel: 14, programs: { '0': 'round' } } },
        app: { ...show.rig.devices.app, calls: { channel: 15, programs: { '0': 'back' } } },
      },
    },
  } satisfies Show;
}
