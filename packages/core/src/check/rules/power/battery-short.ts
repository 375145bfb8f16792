import { batteryLives, hoursNeeded } from '../../../power/battery.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { amount, basis, graded, plannedPower } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const batteryShort = defineRule({
  meta: {
    id: 'power/battery-short',
    severity: 'fix-before-load-in',
    title: 'A battery that does not last',
    why: 'Sound check, waiting and the show run on one charge; a battery gives less when it is cold or old.',
    remedy: 'A spare battery, a larger one, or an output instead; charge between sound check and show.',
    source: 'common practice; capacities as entered, at a full charge',
    messages: { short: '{device} lasts {hours} h on its battery, {needed} h are needed{basis}.' },
  },
  check: (context) => {
    const { rig } = context.show;
    const power = plannedPower(context);
    if (!power) return none;
    const needed = hoursNeeded(rig);
    return batteryLives(rig, power).flatMap(({ device, hours }): readonly Reported<'short'>[] =>
      hours === null || hours >= needed
        ? none
        : [
            {
              messageId: 'short',
              at: { device: device.id },
              ...graded('fix-before-load-in', [{ device }]),
              data: { device: device.name, hours: amount(hours), needed, basis: basis([{ device }]) },
            },
          ],
    );
  },
});
