import { expect, test } from '@jest/globals';
import { catalogue } from '../catalogue/types.ts';
import { endChoices, jackChoices, plugFits, plugFor } from './connectors.ts';
import { jacksOf } from './jacks.ts';

test('a jack takes what such jacks usually take, unless it is told otherwise', () => {
  const type = (id: string) => catalogue.find((entry) => entry.type.id === id)!.type;
  const takes = (id: string, jack: string, kind: 'signal' | 'midi' | 'power' | 'mains' | 'speaker') =>
    plugFor(
      type(id),
      { kind },
      jacksOf(type(id)).find((each) => each.id === jack)!,
    );
  expect(takes('drive', 'in', 'signal')).toBe('6.3 mm plug');
  expect(takes('drive', 'power-in', 'power')).toBe('barrel 2.1 mm');
  expect(takes('supply', 'mains-in', 'mains')).toBe('three-pin inlet, female');
  const told = { ...type('drive'), body: { ...type('drive').body!, takes: { in: 'XLR, male or 6.3 mm plug' } } };
  const jack = jacksOf(told).find(({ id }) => id === 'in')!;
  expect(plugFor(told, { kind: 'signal' }, jack)).toBe('XLR, male or 6.3 mm plug');
});

test('what goes into what (common practice)', () => {
  expect(plugFits('6.3 mm plug', '6.3 mm plug')).toBe('yes');
  expect(plugFits('6.3 mm plug', '6.3 mm plug, three poles')).toBe('yes');
  expect(plugFits('6.3 mm plug, three poles', '6.3 mm plug')).toBe('poles');
  expect(plugFits('XLR, male', 'XLR, female')).toBe('no');
  expect(plugFits('XLR, male or 6.3 mm plug', 'XLR, male')).toBe('yes');
  expect(plugFits('XLR, male or 6.3 mm plug', '6.3 mm plug')).toBe('yes');
  expect(plugFits('barrel 2.1 mm', 'barrel 2.5 mm')).toBe('no');
});

test('what may be chosen holds what every jack of the catalogue takes, which goes in', () => {
  for (const { type } of catalogue)
    for (const jack of jacksOf(type)) {
      const takes = plugFor(type, { kind: 'signal' }, jack);
      expect([type.id, jack.id, plugFits(takes, endChoices('signal', takes)[0])]).toEqual([type.id, jack.id, 'yes']);
      expect(jackChoices(jack).length).toBeGreaterThan(1);
    }
});
