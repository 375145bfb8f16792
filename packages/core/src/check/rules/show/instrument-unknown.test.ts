import { expect, test } from '@jest/globals';
import { demoShow } from '../../../demo/demo.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { twoInstruments } from '../../../testing/instrument-rigs.ts';
import { instrumentUnknown } from './instrument-unknown.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(instrumentUnknown, {
    clean: {
      'no instrument said': ordinary().show,
      'one input, whatever is plugged in there': demoShow(),
      'both are there, however they are written': twoInstruments(['guitar', 'ACOUSTIC']),
    },
    faulty: {
      'a song on what is not there': {
        show: twoInstruments(['Guitar', 'Mandolin']),
        messages: ['one'],
        fixable: false,
      },
      'two songs on it': { show: twoInstruments(['Mandolin', 'Mandolin']), messages: ['several'] },
      'on two of them': { show: twoInstruments(['Banjo', 'Mandolin']), messages: ['one', 'one'] },
    },
  });
  expect(faults).toEqual([]);
});
