import { expect, test } from '@jest/globals';
import { settingWords, typeDifferences } from './differences.ts';
import { catalogue, typeById } from './types.ts';

const told = (id: string, params: Readonly<Record<string, unknown>>) => {
  const { type } = typeById(id);
  return typeDifferences({ ...type, params: { ...type.params, ...params } })?.map(
    ({ label, typical, is }) => `${label}: ${settingWords(is)}, typically ${settingWords(typical)}`,
  );
};

test('a generic piece differs from its type in nothing', () => {
  for (const { type } of catalogue) expect([type.id, typeDifferences(type)]).toEqual([type.id, []]);
});
test('a retrofitted piece tells what is other than typical, defaults of its kind included', () => {
  expect(told('drive', { bypass: 'buffered', knobs: ['Gain'] })).toEqual([
    'Bypass: buffered, typically true',
    'Knobs: Gain, typically none',
  ]);
  expect(told('valve-combo', { channels: ['clean', 'crunch', 'lead'], footswitch: false })).toEqual([
    'Channels: clean, crunch, lead, typically clean, lead',
    'Own switch: no, typically yes',
  ]);
});
test('a type that the catalogue does not know has nothing to differ from', () => {
  const { type } = typeById('drive');
  expect(typeDifferences({ ...type, id: 'my-own' })).toBeUndefined();
});
