import { expect, test } from '@jest/globals';
import { onBoard } from '../../../testing/board-rigs.ts';
import { withPowerCable } from '../../../testing/power-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { cableTooShort } from './cable-too-short.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(cableTooShort, {
      clean: {
        'no board': ordinary().show,
        'a metre each': onBoard(),
        'nobody measured': withPowerCable(onBoard(), 'drive', { length: null }),
      },
      faulty: {
        'too short to reach': {
          show: withPowerCable(onBoard(), 'drive', { length: 0.1 as never }),
          messages: ['short'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});
