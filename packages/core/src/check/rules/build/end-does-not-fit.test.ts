import { expect, test } from '@jest/globals';
import { endsIn, onBoard, withBody } from '../../../testing/board-rigs.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { endDoesNotFit } from './end-does-not-fit.ts';

test('fires where it must, and is quiet where it may not speak', () => {
  expect(
    ruleFaults(endDoesNotFit, {
      clean: {
        'nobody has said': ordinary().show,
        'the plug that it takes': endsIn(onBoard(), { plug: '6.3 mm plug' }),
        'a pole more than the jack has': endsIn(onBoard(), { plug: '6.3 mm plug, three poles' }),
        'only that it is bent': endsIn(onBoard(), { bent: true }),
      },
      faulty: {
        'another connector': {
          show: endsIn(onBoard(), { plug: 'XLR, male', bent: true }),
          messages: ['end'],
          fixable: true,
        },
        'a pole less': {
          show: endsIn(withBody(onBoard(), 'drive', { takes: { in: '6.3 mm plug, three poles' } }), {
            plug: '6.3 mm plug',
          }),
          messages: ['poles'],
          fixable: true,
        },
        'a power plug that does not go in': {
          show: endsIn(onBoard(), { plug: 'mini-jack' }, 'power-in'),
          messages: ['end'],
          fixable: true,
        },
      },
    }),
  ).toEqual([]);
});
