import { expect, test } from '@jest/globals';
import type { Step } from '@yunta/core';
import { changeWords } from './change-words.ts';

const at = (...path: string[]) => ({ doc: 'rig', op: 'set', at: path }) as Step;

test('what changes is counted by kind, each thing once', () => {
  expect(changeWords([at('sounds', 'a', 'name'), at('sounds', 'a', 'role'), at('sounds', 'b')])).toBe('2 sounds');
  expect(changeWords([at('devices', 'a'), at('cables', 'c'), at('settings', 'roles')])).toBe(
    '1 device, 1 cable and the settings',
  );
  expect(changeWords([at('name'), at('slots', 's')])).toBe('the name and 1 slot');
});
