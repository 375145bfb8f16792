import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { adaptCase } from '../../../testing/recall-adapter.ts';
import { ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, withDevice, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { noPath } from './no-path.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(noPath, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no controller': new ShowBuilder()
        .device('delay', 'midi-delay', 'Delay')
        .sound('a', { wants: { 'delay/preset': 3 } }).show,
      'a device that another one’s recall reaches': sentOn(true),
    },
    faulty: {
      'the same, and that one sends nothing on': { show: sentOn(false), messages: ['unreached'] },
      'the MIDI cable not plugged in': { show: without(ordinary().show, 'switcher.midi-out'), messages: ['unreached'] },
      'no receive channel': { show: withDevice(ordinary().show, 'delay', { channel: null }), messages: ['deaf'] },
    },
  });
  expect(faults).toEqual([]);
});

/** A reverb behind a delay's own MIDI output, which carries what the delay recalls, or nothing. */
const sentOn = (emits: boolean): Show =>
  adaptCase({
    controllers: { sw: { slots: { S: { sound: 's', actions: [{ pc: 1, ch: 1 }] } } } },
    devices: {
      D: { ch: 1, presets: { stored: { 1: {} } }, ...(emits ? { emits: { ch: 2 } } : {}) },
      R: { ch: 2, presets: { stored: { 1: {} } } },
    },
    midi: [
      ['sw', 'out', 'D'],
      ['D', 'out', 'R'],
    ],
    topology: { sources: ['n0'], dests: ['n1'], edges: [{ id: 'R', from: 'n0', to: 'n1', gov: ['R.preset'] }] },
    sounds: { s: { wants: { 'R.preset': 1 } } },
  }).show;
