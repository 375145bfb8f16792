import { expect, test } from '@jest/globals';
import { demoShow } from '../demo/demo.ts';
import { combine } from './combine.ts';
import { addSound, renameRig } from './commands.ts';
import { applySteps } from './steps.ts';

const show = demoShow();
const add = (id: string) => (now: typeof show) => addSound(now, id, id.toUpperCase());
const named = { name: 'add-several', facts: { count: 2, what: 'sounds' } };

test('each is made on what the one before leaves, and all are one edit', () => {
  const command = combine(show, named, [add('a'), () => null, add('b')])!;
  const result = applySteps(show, command.steps);
  const orders = result.ok ? [result.value.rig.sounds['a'].order, result.value.rig.sounds['b'].order] : [];
  expect(orders[0] < orders[1]).toBe(true);
});

test('one that cannot be makes the whole edit one that cannot be', () => {
  const command = combine(show, named, [add('a'), add('a'), (now) => renameRig(now, 'Never')])!;
  expect(applySteps(show, command.steps).ok).toBe(false);
  expect(JSON.stringify(command.steps)).not.toContain('Never');
});

test('nothing to do is no edit', () => expect(combine(show, named, [() => null])).toBeNull());
