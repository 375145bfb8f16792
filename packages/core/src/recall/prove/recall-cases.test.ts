import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { answerRecallCase, bruteForceMisses } from '../../testing/recall-cases.ts';
import { compareReference, type ReferenceFile } from '../../testing/reference.ts';

// Source: 38 small rigs with verdicts and lengths, computed by a brute-force program written from the definitions
// alone.
const read = (name: string) => JSON.parse(readFileSync(new URL(`../../../fixtures/${name}`, import.meta.url), 'utf8'));
const file = read('recall-cases.json');
const cases: readonly { readonly name: string; readonly inputs: { readonly rig: never }; readonly expected: object }[] =
  file.topics['13_recall'].cases;

describe('recall reference rigs', () => {
  test.each(cases.map((item) => [item.name, item] as const))('%s', (_, item) => {
    expect(answerRecallCase(item.inputs.rig)).toEqual(item.expected);
  });

  test('the comparison passes them, and finds a verdict, a length and a missing case that are wrong', () => {
    expect(compareReference(file)).toEqual([]);
    const altered: ReferenceFile = JSON.parse(JSON.stringify(file));
    const [first] = altered.topics['13_recall'].cases;
    Object.assign(first.expected as object, {
      'sw.A/a': { levels: 'NRRR', lengths: [7, null, null, null] },
      'sw.Z/z': { levels: 'RRRR', lengths: [] },
    });
    expect(compareReference(altered).map((miss) => miss.pointer)).toEqual([
      '/sw.A/a/levels',
      '/sw.A/a/lengths/0',
      '/sw.Z/z/levels',
    ]);
  });

  test('a rig that holds what no device type knows is refused by name, not guessed', () => {
    expect(() =>
      answerRecallCase({ topology: { sources: [], dests: [], edges: [] }, sounds: {}, teleport: true } as never),
    ).toThrow();
  });
});

// Source: small rigs on which an independent brute-force program differed; each decided by hand from the definitions,
// with the reasoning beside it.
const disputes: readonly {
  readonly name: string;
  readonly inputs: { readonly rig: never };
  readonly expected: object;
}[] = read('recall-disputes.json').topics['13_recall'].cases;
test.each(disputes.map((item) => [item.name, item] as const))('decided: %s', (_, item) => {
  expect(answerRecallCase(item.inputs.rig)).toEqual(item.expected);
});

// The oracle, which shares no code with the proof, is held to the same cases.
test.each([...cases, ...disputes].map((item) => [item.name, item] as const))('by brute force: %s', (_, item) => {
  expect(bruteForceMisses(item.inputs.rig, item.expected as never)).toEqual([]);
});

// Source: bytes and wire times written by a byte writer of their own and read back by two MIDI tools.
test('MIDI bytes and wire times of topic 10a', () => {
  const wire: ReferenceFile = read('midi-wire-cases.json');
  expect(Object.keys(wire.topics)).toContain('10a_midi_wire');
  expect(compareReference(wire)).toEqual([]);
});
