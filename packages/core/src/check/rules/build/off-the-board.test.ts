import { expect, test } from '@jest/globals';
import { onBoard, standsAt, withBoard } from '../../../testing/board-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { offTheBoard } from './off-the-board.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(offTheBoard, {
      clean: {
        'no board': ordinary().show,
        'a board with nothing placed': withBoard(ordinary().show),
        'every piece clear': onBoard(),
        'low enough': withBoard(onBoard(), { tiers: [{ from: 0, to: 400, height: 60 }] }),
      },
      faulty: {
        'two on one spot': { show: standsAt(onBoard(), { drive: { x: 80, y: 220 } }), messages: ['overlap'] },
        'over the edge': { show: standsAt(onBoard(), { drive: { x: 760, y: 60 } }), messages: ['overhang'] },
        'turned over the edge': {
          show: standsAt(onBoard(), { switcher: { x: 40, y: 300, turn: 90 } }),
          messages: ['overhang', 'overlap'],
        },
        'under what lies above': {
          show: withBoard(onBoard(), { tiers: [{ from: 0, to: 100, height: 57 }] }),
          messages: ['tall'],
        },
      },
    }),
  ).toEqual([]);
});
