import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EventQueue } from './event-queue.ts';

test('what is earliest comes first; of several at one time, the one put in first', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(20), { maxLength: 60 }), (times) => {
      const agenda = new EventQueue<{ time: number; seq: number }>();
      times.forEach((time, seq) => agenda.add({ time, seq }));
      const expected = times.map((time, seq) => ({ time, seq })).sort((a, b) => a.time - b.time || a.seq - b.seq);
      expect(agenda.inOrder()).toEqual(expected);
      expect(times.map(() => agenda.take())).toEqual(expected);
      expect(agenda.size).toBe(0);
    }),
  );
});
