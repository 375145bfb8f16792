import { expect, test } from '@jest/globals';
import { emptyShow } from '../../../starters/empty.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noDestination } from './no-destination.ts';

const line = () => new ShowBuilder().device('drive', 'drive', 'Drive');

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noDestination, {
    clean: {
      'the four-cable rig': ordinary().show,
      'nothing yet': emptyShow('rig', 'Rig'),
      'gear without sounds: still being entered': line().show,
      'a guitar and nothing else yet': new ShowBuilder().device('guitar', 'guitar', 'Guitar').sound('a', {}).show,
    },
    faulty: {
      'a guitar and a pedal, and nothing to hear them by': {
        show: line().device('guitar', 'guitar', 'Guitar').cables('Guitar > Drive').sound('a', {}).show,
        messages: ['destination'],
      },
      'a pedal and a desk, and nothing to play': {
        show: line().device('desk', 'desk', 'Desk').cables('Drive > Desk').sound('a', {}).show,
        messages: ['instrument'],
      },
      'a pedal alone': { show: line().sound('a', {}).show, messages: ['destination', 'instrument'] },
    },
  });
  expect(faults).toEqual([]);
});
