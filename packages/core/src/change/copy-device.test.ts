import { expect, test } from '@jest/globals';
import { fourCable } from '../testing/build-show.ts';
import { copyDevice, setPreset } from './commands.ts';
import { applySteps } from './steps.ts';

test('a copy has all that was entered of a piece but its cables, its channel and who calls it', () => {
  const { show } = fourCable();
  const filled = applySteps(show, setPreset(show, 'delay', 4, { name: 'Slap', values: { mix: 30 } }).steps);
  if (!filled.ok) throw new Error('not filled');
  const result = applySteps(filled.value, copyDevice(filled.value, 'delay', 'delay-2', 'Delay 2', 3).steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  const { devices, cables } = result.value.rig;
  expect(devices['delay-2']).toEqual({
    ...devices.delay,
    id: 'delay-2',
    name: 'Delay 2',
    channel: 3,
    order: devices['delay-2'].order,
  });
  expect(devices['delay-2'].order > devices.cabinet.order).toBe(true);
  expect(Object.values(cables).some(({ plugs }) => plugs.some(({ device }) => device === 'delay-2'))).toBe(false);
});
