import { expect, test } from '@jest/globals';
import { endsIn, onBoard, standsAt, withBody } from '../../../testing/board-rigs.ts';
import type { Show } from '../../../model/documents.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noRoomForPlug } from './no-room-for-plug.ts';

/** The drive with a cover. */
const covered = (side: 'back', mm: number) => withBody(onBoard(), 'drive', { cover: { side, mm } });
/** The switcher let into the right edge. */
const edged = (show: Show): Show =>
  standsAt(show, {
    switcher: { x: 0, y: 0, turn: 90, edge: 'right' },
    drive: { x: 200, y: 60 },
    supply: { x: 400, y: 250 },
  });

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(noRoomForPlug, {
      clean: {
        'no board': ordinary().show,
        'every plug has room': onBoard(),
        'let into the edge it is plugged in from outside': edged(onBoard()),
        'room for a cover': covered('back', 40),
      },
      faulty: {
        // Its output is at the left; ten millimetres to the edge.
        'at the edge': { show: standsAt(onBoard(), { drive: { x: 10, y: 60 } }), messages: ['room'] },
        // 50 mm to the edge: enough at an angle.
        'a straight plug': {
          show: endsIn(standsAt(onBoard(), { drive: { x: 50, y: 60 } }), { bent: false }, 'out'),
          messages: ['straight'],
        },
        'a cover against the next piece': { show: covered('back', 100), messages: ['cover'] },
        'against the next piece': {
          show: standsAt(onBoard(), { supply: { x: 500, y: 230 }, drive: { x: 420, y: 220 } }),
          messages: ['room'],
        },
      },
    }),
  ).toEqual([]);
});
