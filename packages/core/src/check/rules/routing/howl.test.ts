import { expect, test } from '@jest/globals';
import type { Show } from '../../../model/documents.ts';
import { adaptCase } from '../../../testing/recall-adapter.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { howl } from './howl.ts';

/** A line with an effect beside it that leads back to where it began, so loud. */
function round(gainDb: number): Show {
  const { show } = adaptCase({
    controllers: { sw: { slots: { S: { sound: 's' } } } },
    topology: {
      sources: ['n0'],
      dests: ['n1'],
      edges: [
        { id: 'line', from: 'n0', to: 'n1', wire: true },
        { id: 'echo', from: 'n1', to: 'n0' },
      ],
    },
    sounds: { s: {} },
  });
  const id = Object.keys(show.rig.devices).find((name) => show.rig.devices[name].name === 'edge echo')!;
  const device = show.rig.devices[id];
  const anatomy = device.type.params.anatomy as { readonly sections: readonly object[] };
  const louder = { ...anatomy, sections: anatomy.sections.map((section) => ({ ...section, gainDb })) };
  return {
    ...show,
    rig: {
      ...show.rig,
      devices: { ...show.rig.devices, [id]: { ...device, type: { ...device.type, params: { anatomy: louder } } } },
    },
  };
}

// Bounds: from a loop gain of 1 it howls, from 0.5 (−6 dB) it rings (definition).
test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(howl, {
    clean: { 'the ordinary rig': ordinary().show, 'a loop of −7 dB': round(-7) },
    faulty: {
      'a loop of 0 dB': { show: round(0), messages: ['howls'] },
      'a loop of +3 dB': { show: round(3), messages: ['howls'] },
      'a loop of −6 dB': { show: round(-6), messages: ['rings'] },
      'a loop of −0.5 dB': { show: round(-0.5), messages: ['rings'] },
    },
  });
  expect(faults).toEqual([]);
});
