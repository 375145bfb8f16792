import { expect, test } from '@jest/globals';
import { fourCable, lead } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { notOnPath } from './not-on-path.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(notOnPath, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a pedal wanted off that nothing passes': fourCable()
        .device('boost', 'boost', 'Boost')
        .sound('lead', { ...lead, pedals: { ...lead.pedals, boost: 'off' } }).show,
    },
    faulty: {
      'a pedal wanted on that is plugged in nowhere': {
        show: fourCable()
          .device('boost', 'boost', 'Boost')
          .sound('lead', { ...lead, pedals: { ...lead.pedals, boost: 'on' } }).show,
        messages: ['unheard'],
      },
    },
  });
  expect(faults).toEqual([]);
});
