import { describe, expect, test } from '@jest/globals';
import {
  accept,
  assertNever,
  describeProblem,
  pointer,
  pointerToken,
  problem,
  type ProblemCode,
  problemCodes,
  refuse,
} from './problem.ts';
import { isMidiChannel, isSevenBit, microsecondsOf, millisecondsOf } from './quantities.ts';

// Source: RFC 6901, section 5: the example document and its pointers.
describe('JSON pointers', () => {
  test.each([
    [[], ''],
    [['foo'], '/foo'],
    [['foo', 0], '/foo/0'],
    [[''], '/'],
    [['a/b'], '/a~1b'],
    [['c%d'], '/c%d'],
    [['e^f'], '/e^f'],
    [['g|h'], '/g|h'],
    [['i\\j'], '/i\\j'],
    [['k"l'], '/k"l'],
    [[' '], '/ '],
    [['m~n'], '/m~0n'],
  ] as const)('%j is %s', (tokens, expected) => expect(pointer(...tokens)).toBe(expected));
  test('a tilde is escaped first, so that ~1 comes back as ~1', () => expect(pointerToken('~1')).toBe('~01'));
});

describe('problems', () => {
  const facts: Record<ProblemCode, Record<string, string | number>> = {
    'not-json': {},
    'not-this-format': { expected: 'yunta-show' },
    'newer-version': { version: 9, supported: 1 },
    'too-large': { count: 10, limit: 5 },
    'too-deep': { limit: 24 },
    'forbidden-key': { key: '__proto__' },
    'unknown-field': { field: 'colour' },
    'missing-field': { field: 'name' },
    'wrong-type': { expected: 'a number' },
    'out-of-domain': { value: 200, expected: '1 to 16' },
    'not-found': { what: 'device', id: 'echo' },
    duplicate: { what: 'slot', id: 'bank 1' },
    'jack-missing': { device: 'Echo', jack: 'send-9' },
    'jack-taken': { device: 'Echo', jack: 'In' },
    'jack-kind': { cable: 'midi', jack: 'In', device: 'Echo', kind: 'signal-in' },
    'in-use': { what: 'The part', id: 'verse', by: 'the rig “Fly”' },
    'old-value-differs': { now: '7' },
    'already-there': { what: 'batch', id: 'x' },
    'nothing-changes': {},
    'bad-backup': { why: 'It ends in the middle.' },
    'unknown-command': { command: 'dance' },
  };
  test.each(problemCodes)('%s is said in a whole sentence that holds its facts and what to do', (code) => {
    const said = describeProblem(problem('/x', code, facts[code]));
    expect(said).toMatch(/\.$/);
    expect(said).not.toMatch(/undefined|null|\[object/);
    for (const fact of Object.values(facts[code])) expect(said).toContain(String(fact));
  });
  test('results carry a value or problems, never both', () => {
    expect(accept(3)).toEqual({ ok: true, value: 3 });
    expect(refuse(problem('/a', 'not-json'))).toEqual({
      ok: false,
      problems: [{ pointer: '/a', code: 'not-json', facts: {} }],
    });
  });
  test('a case that nobody thought of is a bug, and says which', () =>
    expect(() => assertNever('moon' as never, 'phase')).toThrow('unhandled phase: "moon"'));
});

// Source: MIDI 1.0 detailed specification: sixteen channels, seven-bit data bytes.
describe('ranges', () => {
  test.each([
    [1, true],
    [16, true],
    [0, false],
    [17, false],
    [1.5, false],
    ['1', false],
    [null, false],
  ])('%p is a channel: %p', (value, expected) => expect(isMidiChannel(value)).toBe(expected));
  test.each([
    [0, true],
    [127, true],
    [-1, false],
    [128, false],
    [0.5, false],
    [undefined, false],
  ])('%p is seven-bit: %p', (value, expected) => expect(isSevenBit(value)).toBe(expected));
  test('a millisecond is a thousand microseconds, whole', () =>
    expect([microsecondsOf(20), microsecondsOf(0.3204), millisecondsOf(320)]).toEqual([20_000, 320, 0.32]));
});
