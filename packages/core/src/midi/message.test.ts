import { describe, expect, test } from '@jest/globals';
import { encode, encodeStream, hex, wireMicroseconds } from './message.ts';

// Source: MIDI 1.0 detailed specification, table of status bytes.
describe('bytes of a message', () => {
  test.each([
    [{ kind: 'program', channel: 1, program: 0 }, 'C0 00'],
    [{ kind: 'program', channel: 16, program: 127 }, 'CF 7F'],
    [{ kind: 'control', channel: 2, cc: 7, value: 100 }, 'B1 07 64'],
    [{ kind: 'note-on', channel: 10, note: 60, velocity: 1 }, '99 3C 01'],
    [{ kind: 'note-off', channel: 10, note: 60, velocity: 0 }, '89 3C 00'],
    [{ kind: 'clock' }, 'F8'],
    [{ kind: 'start' }, 'FA'],
    [{ kind: 'stop' }, 'FC'],
    [{ kind: 'sysex', data: [1, 2] }, 'F0 01 02 F7'],
  ] as const)('%j', (message, bytes) => expect(hex(encode(message))).toBe(bytes));

  test('running status leaves the repeated status out, across clock but not across system exclusive', () => {
    const cc = (value: number) => ({ kind: 'control', channel: 1, cc: 1, value }) as const;
    expect(
      hex(encodeStream([cc(1), { kind: 'clock' }, cc(2), { kind: 'sysex', data: [] }, cc(3)], { runningStatus: true })),
    ).toBe('B0 01 01 F8 01 02 F0 F7 B0 01 03');
    expect(hex(encodeStream([cc(1), cc(2)]))).toBe('B0 01 01 B0 01 02');
  });
  // Source: MIDI 1.0 electrical specification, 31,250 baud, 10 bits a byte.
  test('a byte takes 10 / 31,250 s', () => expect(wireMicroseconds(3)).toBe(Math.round((3 * 10 * 1e6) / 31_250)));
});
