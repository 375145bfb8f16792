import { expect, test } from '@jest/globals';
import { byHand, ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { overwrittenControl } from './overwritten-control.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(overwrittenControl, {
    clean: {
      'the control change after the preset': byHand(ordinary().show, 'slot-lead', [
        { kind: 'program', channel: 2, program: 5 },
        { kind: 'wait', ms: 20 },
        { kind: 'control', channel: 2, cc: 20, value: 60 },
      ]),
      'one that no preset stores': byHand(ordinary().show, 'slot-lead', [
        { kind: 'control', channel: 2, cc: 102, value: 127 },
        { kind: 'program', channel: 2, program: 5 },
      ]),
    },
    faulty: {
      'the control change first': {
        show: byHand(ordinary().show, 'slot-lead', [
          { kind: 'control', channel: 2, cc: 20, value: 60 },
          { kind: 'program', channel: 2, program: 5 },
        ]),
        messages: ['lost'],
        fixable: true,
      },
    },
  });
  expect(faults).toEqual([]);
});
