import { expect, test } from '@jest/globals';
import { wanting } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { programOutOfRange } from './program-out-of-range.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(programOutOfRange, {
    clean: { 'the last preset that there is': wanting('lead', 'delay/preset', 127) },
    faulty: { 'one past it': { show: wanting('lead', 'delay/preset', 128), messages: ['missing'] } },
  });
  expect(faults).toEqual([]);
});
