import { describe, expect, test } from '@jest/globals';
import { catalogue, findTypes, typeById } from '../catalogue/types.ts';
import { fourCable } from '../testing/build-show.ts';
import { domainValues, firstValue, inDomain } from './anatomy.ts';
import { checkParams } from './archetypes/archetype.ts';
import { checkAnatomy } from './archetypes/check-anatomy.ts';
import { anatomyOf, archetypeOf } from './archetypes/registry.ts';
import { emptyRig, inOrder } from './documents.ts';
import { loopsOf, switchingOf } from './switching.ts';
import { wantsOf } from './wants.ts';
import { buildWiring } from './wiring.ts';

describe('generic types', () => {
  test.each(catalogue.map((entry) => [entry.type.id, entry] as const))(
    '%s: its parameters are allowed and its anatomy holds together',
    (_, entry) => {
      const archetype = archetypeOf(entry.type.archetype)!;
      expect(checkParams(archetype, entry.type.params, '')).toEqual([]);
      const { ...anatomy } = anatomyOf(entry.type);
      expect(checkAnatomy(JSON.parse(JSON.stringify(anatomy)), '')).toEqual([]);
      const jacks = anatomy.jacks.map((jack) => jack.id);
      expect(new Set(jacks).size).toBe(jacks.length);
    },
  );
  test('are found by any of their words, names first', () => {
    expect(findTypes('amp')[0].type.id).toBe('valve-combo');
    expect(findTypes('echo').map((entry) => entry.type.id)).toEqual([
      'delay',
      'tape-echo',
      'delay-stereo',
      'midi-delay',
      'midi-delay-stereo',
    ]);
    expect(findTypes('DRIVE')[0].type.id).toBe('drive');
    expect(findTypes('loop 4').map((entry) => entry.type.id)).toContain('switcher-4');
    expect(findTypes('cabinet')[0].type.id).toBe('cabinet');
    expect(findTypes('theremin')).toEqual([]);
    expect(() => typeById('theremin')).toThrow();
  });
  test('parameters outside their domain are told, each with its place', () => {
    const codes = (params: Record<string, unknown>) =>
      checkParams(archetypeOf('midi-effect')!, params, '/p').map((problem) => `${problem.pointer} ${problem.code}`);
    expect(codes({ presets: 0 })).toEqual(['/p/presets out-of-domain']);
    expect(codes({ presets: 1.5 })).toEqual(['/p/presets wrong-type']);
    expect(codes({ scheme: 'maybe' })).toEqual(['/p/scheme out-of-domain']);
    expect(codes({ sticky: 'yes' })).toEqual(['/p/sticky wrong-type']);
    expect(codes({ colour: 1 })).toEqual(['/p/colour unknown-field']);
  });
});

describe('domains', () => {
  test.each([
    [{ kind: 'switch' }, [0, 1], ['on', 2]],
    [{ kind: 'choice', values: ['clean', 'lead'] }, ['clean', 'lead'], ['crunch', 0]],
    [{ kind: 'range', min: -1, max: 2 }, [-1, 0, 1, 2], [3, 0.5, '1']],
  ] as const)('%j', (domain, inside, outside) => {
    expect(domainValues(domain)).toEqual(inside);
    for (const value of inside) expect(inDomain(domain, value)).toBe(true);
    for (const value of outside) expect(inDomain(domain, value)).toBe(false);
  });
});

describe('what switches a piece', () => {
  const wiring = buildWiring(fourCable().device('boost', 'boost', 'Boost').show.rig);
  test('the loop that the cables put it into, and its own switch', () => {
    expect(loopsOf(wiring).map((loop) => loop.holds)).toEqual([['drive'], ['combo'], ['delay'], []]);
    const switching = switchingOf(wiring);
    expect(switching.get('drive')).toEqual({ loop: 'switcher/loop-1', own: 'drive/on' });
    expect(switching.get('combo')).toEqual({ loop: 'switcher/loop-2' });
    expect(switching.get('boost')).toEqual({ own: 'boost/on' });
  });
  test('on lays its loop in and its switch on; off lays its switch off, or where it has none its loop out', () => {
    const wants = (pedals: Record<string, 'on' | 'off'>, wanted: Record<string, string | number> = {}) => {
      const { controls, controlValues } = wantsOf(wiring, {
        id: 's',
        name: 's',
        order: 'a',
        role: '',
        silence: false,
        wants: wanted,
        pedals,
      });
      return Object.fromEntries(controls.map((control, i) => [wiring.controls.refs[control], controlValues[i]]));
    };
    expect(wants({ drive: 'on' })).toEqual({ 'switcher/loop-1': 1, 'drive/on': 1 });
    expect(wants({ drive: 'off' })).toEqual({ 'drive/on': 0 });
    expect(wants({ combo: 'off' })).toEqual({ 'switcher/loop-2': 0 });
    expect(wants({ drive: 'off', nobody: 'on' }, { 'drive/on': 1, 'delay/preset': 7, 'drive/nothing': 3 })).toEqual({
      'drive/on': 1,
      'delay/preset': 7,
    });
  });
});

test('documents are read in the order of their keys, ids breaking ties', () => {
  const places = {
    b: { id: 'b', name: 'B', order: 'a' },
    a: { id: 'a', name: 'A', order: 'a' },
    c: { id: 'c', name: 'C', order: '0' },
  };
  expect(inOrder({ ...emptyRig('r', 'R'), places }.places).map((place) => place.id)).toEqual(['c', 'a', 'b']);
});

test('a place in an order is a whole number from 1 to how many there are', () => {
  const domain = { kind: 'position', count: 4 } as const;
  expect(domainValues(domain)).toEqual([1, 2, 3, 4]);
  expect(firstValue(domain)).toBe(1);
  expect([0, 1, 4, 5, 1.5, '1'].map((value) => inDomain(domain, value))).toEqual([
    false,
    true,
    true,
    false,
    false,
    false,
  ]);
});
