import { describe, expect, test } from '@jest/globals';
import { libraryOf } from '../catalogue/library.ts';
import { catalogue, findTypes, typeById } from '../catalogue/types.ts';
import { typeDifferences } from '../catalogue/differences.ts';
import { type Json, mutate } from '../testing/mutate.ts';
import { Random } from '../testing/random.ts';
import { arrivalOf, readTypes, writeTypes } from './types-file.ts';

const own = { ...typeById('delay').type, id: 'own-tape', name: 'Tape echo', revision: 3 };

describe('a file of types', () => {
  test('what is written is read again, whatever the type', () => {
    const types = catalogue.map(({ type }) => type);
    expect(readTypes(writeTypes(types))).toEqual({ ok: true, value: types });
  });
  test.each([
    ['no JSON', '{', 'not-json'],
    ['nothing', 'null', 'not-this-format'],
    ['a rig', '{"format":"yunta-show","version":2}', 'not-this-format'],
    ['of a later version', '{"format":"yunta-types","version":7,"types":[]}', 'newer-version'],
    ['a field too many', '{"format":"yunta-types","version":1,"types":[],"more":1}', 'unknown-field'],
    ['an archetype that is none', writeTypes([{ ...own, archetype: 'kazoo' }]), 'out-of-domain'],
    ['a parameter that is none', writeTypes([{ ...own, params: { horn: 1 } }]), 'unknown-field'],
    ['one twice', writeTypes([own, own]), 'duplicate'],
  ])('%s is refused whole', (_, text, code) => {
    const read = readTypes(text);
    expect(read.ok ? [] : read.problems.map((each) => each.code)).toEqual([code]);
  });
  test('whatever is done to a file, it is read or refused, never thrown at', () => {
    const r = new Random(7);
    const text = writeTypes([own, typeById('blank-device').type, typeById('valve-combo').type]);
    for (let i = 0; i < 300; i += 1) {
      const bent = JSON.parse(text) as Json;
      mutate(bent, r);
      const read = readTypes(JSON.stringify(bent));
      expect(read.ok || read.problems.length > 0).toBe(true);
    }
  });
});

describe('what a library makes of a type that comes in', () => {
  test.each([
    ['not there', undefined, 'added'],
    ['the very same', own, 'same'],
    [
      'the same, its fields in another order',
      { ...own, params: Object.fromEntries(Object.entries(own.params).reverse()) },
      'same',
    ],
    ['an earlier one there', { ...own, revision: 2, name: 'Tape' }, 'newer'],
    ['a later one there', { ...own, revision: 4, name: 'Tape 4' }, 'another'],
    ['another of the same revision', { ...own, name: 'Other tape' }, 'another'],
  ] as const)('%s', (_, there, arrival) => expect(arrivalOf(own, there)).toBe(arrival));
});

describe('one’s own types', () => {
  const library = libraryOf([own]);
  test('are found by name, before generic ones', () => {
    expect(findTypes('tape', library)[0].type).toBe(own);
    expect(findTypes('tape').map(({ type }) => type.id)).not.toContain('own-tape');
  });
  test('a piece tells how it differs from today’s revision of its type', () => {
    const piece = { ...own, revision: 2, params: { ...own.params, effect: 'reverb' } };
    expect(typeDifferences(piece, library)?.map(({ param }) => param)).toEqual(['effect']);
    expect(typeDifferences(piece)).toBeUndefined();
  });
});
