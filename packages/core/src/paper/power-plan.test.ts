import { describe, expect, test } from '@jest/globals';
import { demoShow, flyShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { powered, withPowerCable } from '../testing/power-rigs.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import { powerPlan } from './power-plan.ts';

describe('the power plan', () => {
  const text = (show: Show) =>
    powerPlan(show)
      .groups.map(({ heading, lines }) => [heading, ...lines.map(({ cells }) => cells.join(' | '))].join('\n'))
      .join('\n\n');
  test('what hangs on which output, with what is drawn; mains and venues', () => {
    const demo = text(demoShow());
    expect(demo).toContain('Out 3 | 9 V | Drive 1, soft + Drive 2, hard | 24 of 100 mA, 24 % | chain of 2 |');
    expect(demo).toContain('Out 6 | 9 V |  |  |  |');
    expect(demo).toContain('– Combo |  | in Outlet strip | 180 VA |');
    expect(demo).toContain('The boat | 230 V | 60 Hz | 0.9 of 10 A |');
  });
  test('batteries with their hours, what has no power under its own heading', () => {
    expect(text(flyShow())).toContain('Battery supply |  | 5 h 31 min | 10.8 W |');
    const pulled = withPowerCable(powered(), 'drive', null);
    expect(text(pulled)).toContain(
      'Without power\nDrive |  | 9–18 V, minus centre, barrel 2.1 mm, battery 500 mAh | 12 mA |',
    );
  });
  test('a rig whose power nobody has planned prints nothing of it', () => {
    expect(powerPlan(ordinary().show).groups.map(({ heading }) => heading)).toEqual(['Mains, from the wall on']);
  });
});
