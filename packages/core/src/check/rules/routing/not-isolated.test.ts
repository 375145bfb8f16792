import { expect, test } from '@jest/globals';
import { setDevice } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import type { Device } from '../../../model/rig.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { notIsolated } from './not-isolated.ts';

/** A line split to house and ears, with a room on one of the branches or before the split. */
function toTwo(room: 'before' | 'house' | 'ears', onlyFor: Device['onlyFor']): Show {
  const lines = {
    before: 'guitar > room > house + ears',
    house: 'guitar > room + ears; room > house',
    ears: 'guitar > room + house; room > ears',
  };
  const builder = new ShowBuilder()
    .text(`room = reverb; house = desk line; ears = in-ears\n${lines[room]}`)
    .sound('song', {});
  builder.do(setDevice(builder.show, 'room', 'onlyFor', onlyFor));
  return builder.show;
}

/** A router that sends the line to the house or to the ears; the room is behind neither. */
function byRouter(wants: Readonly<Record<string, string>>): Show {
  const builder = new ShowBuilder()
    .text('house = desk line; ears = in-ears\nguitar > room = reverb > router\nrouter a > house; router b > ears')
    .sound('song', { wants });
  builder.do(setDevice(builder.show, 'room', 'onlyFor', [{ to: ['ears' as never] }]));
  return builder.show;
}

test('fires where it must, and is quiet on the ordinary rig', () => {
  const ears = [{ to: ['ears' as never] }];
  const faults = ruleFaults(notIsolated, {
    clean: {
      'nothing is promised': ordinary().show,
      'on the branch of the ears': toTwo('ears', ears),
      'for both': toTwo('before', [{ to: ['ears' as never, 'house' as never] }]),
    },
    faulty: {
      'before the split': { show: toTwo('before', ears), messages: ['heard'], fixable: false },
      'on the other branch': { show: toTwo('house', ears), messages: ['heard'] },
      'its switch too': {
        show: toTwo('before', [...ears, { to: ['ears' as never], control: 'on' }]),
        messages: ['heard', 'heard'],
      },
      'kept apart by a router alone': { show: byRouter({ 'router/output': 'B' }), messages: ['may'] },
    },
  });
  expect(faults).toEqual([]);
});
