import { expect, test } from '@jest/globals';
import { freeChannel, freshId, freshName } from './names.ts';

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
test('a channel is the first that no device listens on', () => {
  const on = (...channels: readonly (number | 'omni' | null)[]) =>
    freeChannel({ devices: Object.fromEntries(channels.map((channel, i) => [`d${i}`, { channel }])) as never });
  expect([on(), on(1, 3), on('omni', null), on(...Array.from({ length: 16 }, (_, i) => i + 1))]).toEqual([1, 2, 1, 1]);
});
