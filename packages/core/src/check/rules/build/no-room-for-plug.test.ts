import { expect, test } from '@jest/globals';
import { onBoard, standsAt } from '../../../testing/board-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noRoomForPlug } from './no-room-for-plug.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(noRoomForPlug, {
      clean: { 'no board': ordinary().show, 'every plug has room': onBoard() },
      faulty: {
        // Its output is at the left; ten millimetres to the edge.
        'at the edge': { show: standsAt(onBoard(), { drive: { x: 10, y: 60 } }), messages: ['room'] },
        'against the next piece': {
          show: standsAt(onBoard(), { supply: { x: 500, y: 230 }, drive: { x: 420, y: 220 } }),
          messages: ['room'],
        },
      },
    }),
  ).toEqual([]);
});
