import { expect, test } from '@jest/globals';
import { setParam, setSlotName } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { ordered } from '../../../testing/ordered-rigs.ts';
import { editedShow } from '../../../testing/edited-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { displayNames } from './display-names.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const { show } = ordered();
  const display = (length: number) => (now: Show) => setParam(now, 'switcher', 'nameLength', length);
  const named = (slot: string, name: string) => (now: Show) => setSlotName(now, slot, name);
  expect(
    ruleFaults(displayNames, {
      clean: {
        'names that fit': show,
        'no display, and two named the same': editedShow(
          show,
          display(0),
          named('slot-a', 'One'),
          named('slot-b', 'One'),
        ),
      },
      faulty: {
        'two named the same': {
          show: editedShow(show, named('slot-a', 'One'), named('slot-b', 'one')),
          messages: ['same'],
        },
        'a name that is longer than the display': {
          show: editedShow(show, named('slot-a', 'Quite long'), display(4)),
          messages: ['long'],
        },
      },
    }),
  ).toEqual([]);
});
