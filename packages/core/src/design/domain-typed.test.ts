import { expect, test } from '@jest/globals';
import { catalogue } from '../catalogue/types.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { domainWords } from './anatomy-words.ts';
import { domainTyped } from './domain-typed.ts';

test.each([
  ['off, on', { kind: 'switch' }],
  ['On,Off', { kind: 'switch' }],
  ['low, mid , high', { kind: 'choice', values: ['low', 'mid', 'high'] }],
  ['1, 2, 3', { kind: 'choice', values: [1, 2, 3] }],
  ['0 to 127', { kind: 'range', min: 0, max: 127 }],
  ['-12–12', { kind: 'range', min: -12, max: 12 }],
  ['low', { kind: 'choice', values: ['low'] }],
  ['low, low', undefined],
  ['9 to 3', undefined],
  [' , ', undefined],
  ['x'.repeat(200) + ', y', undefined],
])('%s', (typed, domain) => expect(domainTyped(typed)).toEqual(domain));

test('what a control says that it may be, typed again, is the same', () => {
  for (const { type } of catalogue)
    for (const control of anatomyOf(type).controls)
      if (control.domain.kind !== 'position') expect(domainTyped(domainWords(control))).toEqual(control.domain);
});
