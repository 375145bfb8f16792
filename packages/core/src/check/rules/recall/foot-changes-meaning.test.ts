import { expect, test } from '@jest/globals';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { footChangesMeaning } from './foot-changes-meaning.ts';

/** A volume pedal in the first loop of a switcher, a drive in the second, before it or behind it. */
const inLoop = (wants: Readonly<Record<string, 0 | 1>>, text: string) =>
  new ShowBuilder()
    .text(`guitar > switcher = loop switcher 4\n${text}\nswitcher > desk`)
    .sound('first', { wants: { 'switcher/loop-1': 1, 'switcher/loop-2': 1, 'switcher/loop-3': 0 } })
    .sound('then', { wants })
    .laid('switcher').show;
const before = '1: volume; 2: drive; 3: fuzz';

test('a foot that does nothing, or means something else: fires there, and is quiet where it stays what it was', () => {
  const faults = ruleFaults(footChangesMeaning, {
    clean: {
      'it turns the drive in both': inLoop(
        { 'switcher/loop-1': 1, 'switcher/loop-2': 1, 'switcher/loop-3': 0 },
        before,
      ),
      'no sound passes it': new ShowBuilder().text('guitar > desk; volume').sound('a').show,
      'no volume pedal': new ShowBuilder().text('guitar > drive > desk').sound('a').show,
    },
    faulty: {
      'its loop is off in one sound': {
        show: inLoop({ 'switcher/loop-1': 0, 'switcher/loop-2': 1, 'switcher/loop-3': 0 }, before),
        messages: ['nothing'],
      },
      'it turns the level of a clean sound after the drive of another': {
        show: inLoop({ 'switcher/loop-1': 1, 'switcher/loop-2': 0, 'switcher/loop-3': 0 }, before),
        messages: ['changes'],
      },
    },
  });
  expect(faults).toEqual([]);
});
