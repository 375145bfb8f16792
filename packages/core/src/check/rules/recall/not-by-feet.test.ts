import { expect, test } from '@jest/globals';
import { addPart, addSong } from '../../../change/commands.ts';
import { cellarBarRig, twoLineBassRig } from '../../../demo/by-feet.ts';
import type { Device } from '../../../model/rig.ts';
import { fourCable, lead, ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { notByFeet } from './not-by-feet.ts';

/** One song whose parts play these sounds by feet. */
function played(builder: ShowBuilder, sounds: readonly string[]) {
  builder.do(addSong(builder.show, 'song', 'Song'));
  for (const [i, sound] of sounds.entries())
    builder.do(addPart(builder.show, `part-${i}`, 'song', `Part ${i + 1}`, { sound }));
  return builder.show;
}

/** An effect whose preset nothing steps through. */
const echo = (wants: Readonly<Record<string, number>>, presets: Device['presets'] = { '0': { values: { mix: 10 } } }) =>
  new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('echo', 'midi-delay', 'Echo', { presets }, { powersUpOn: 'first preset' })
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Echo', 'Echo Out > Desk')
    .sound('far', { wants });

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(notByFeet, {
    clean: {
      'every part has a slot': ordinary().show,
      'pedals by feet': cellarBarRig(),
      'always on': twoLineBassRig(),
      'the preset that it comes up on': played(echo({ 'echo/preset': 0 }), ['far']),
      'a loop that no slot lays in, in a sound that plays by its slot': fourCable().sound('lead', lead).laid().show,
    },
    faulty: {
      'a preset that no switch steps to': {
        show: played(echo({ 'echo/preset': 5 }), ['far', 'far', 'far']),
        messages: ['stuck'],
        fixable: false,
      },
      'a mix that nothing but a message sets: a hand can be told to': {
        show: played(echo({ 'echo/mix': 90 }), ['far']),
        messages: ['stuck'],
        fixable: true,
      },
      'the same where nobody entered what the preset holds': {
        show: played(echo({ 'echo/mix': 90 }, {}), ['far']),
        messages: ['unknown'],
      },
      'a loop that only a slot would lay in': {
        show: played(fourCable().sound('lead', lead), ['lead']),
        messages: ['stuck'],
      },
    },
  });
  expect(faults).toEqual([]);
});
