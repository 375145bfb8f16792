import { expect, test } from '@jest/globals';
import { freshId, freshName } from './ids.ts';

test('ids are readable, plain and not taken', () => {
  expect(freshId('Drive 1, soft', {}, 'x')).toBe('drive-1-soft');
  expect(freshId('Écho', { echo: 1 }, 'x')).toBe('echo-2');
  expect(freshId('🎸', {}, 'device')).toBe('device');
  expect(freshId('__proto__', {}, 'device')).toBe('proto');
  expect(freshId('constructor', {}, 'device')).toBe('constructor-2');
  expect(freshId('x'.repeat(200), {}, 'y').length).toBeLessThanOrEqual(64);
});
test('names count up', () => {
  expect(freshName('Drive', [])).toBe('Drive');
  expect(freshName('Drive', ['Drive', 'Drive 2'])).toBe('Drive 3');
});
