import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { fourCable, lead, ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noMute } from './no-mute.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noMute, {
    clean: {
      'one instrument': ordinary().show,
      'two instruments and a tuner that mutes everything': withInstruments(tunerFirst()),
      'two instruments and a silent slot': withInstruments(
        fourCable().sound('lead', lead).sound('off', { silence: true }).laid().show,
      ),
    },
    faulty: {
      'two instruments and nothing that mutes': { show: withInstruments(ordinary().show), messages: ['open'] },
    },
  });
  expect(faults).toEqual([]);
});

function withInstruments(show: Show): Show {
  return {
    ...show,
    songbook: {
      ...show.songbook,
      songs: {
        ...show.songbook.songs,
        other: { id: 'other', name: 'Other', order: 'z', tempo: null, instrument: 'Baritone' },
        first: { id: 'first', name: 'First', order: 'y', tempo: null, instrument: 'Guitar' },
      },
    },
  };
}

function tunerFirst(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Tuner', 'Tuner > Desk')
    .sound('a').show;
}
