import { feedLabel } from '../../../power/wired.ts';
import { isWithin } from '../../../supply/problem.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { basis, fedLoads, graded, rangeWords, voltsWords } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const wrongVolts = defineRule({
  meta: {
    id: 'power/wrong-volts',
    severity: 'stops-the-show',
    title: 'The wrong voltage',
    why: 'Too much voltage destroys a device that is not made for it; too little makes it mute, weak or unruly.',
    remedy: 'Set the output to a voltage that the device runs on, or move the device to another output.',
    source: 'the device’s own papers',
    messages: {
      over: '{device} runs on {range} V and gets {volts} V from {output}{basis}: that can destroy it.',
      under: '{device} runs on {range} V and gets {volts} V from {output}{basis}.',
    },
  },
  check: (context) =>
    fedLoads(context).flatMap(({ load, feed }): readonly Reported<'over' | 'under'>[] => {
      const range = [load.needs.volts[0], load.needs.volts[1]] as const;
      if (isWithin(feed.volts, range)) return none;
      const isOver = feed.volts > range[1];
      return [
        {
          messageId: isOver ? ('over' as const) : ('under' as const),
          at: { device: load.device.id },
          ...graded(isOver ? 'stops-the-show' : 'fix-before-load-in', [load], feed.outputs),
          data: {
            device: load.device.name,
            range: rangeWords(range),
            volts: voltsWords(feed.volts),
            output: feedLabel(feed),
            basis: basis([load], feed.outputs),
          },
        },
      ];
    }),
});
