import { isWithin } from '../../../supply/problem.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { basis, fedLoads, graded, rangeWords, voltsWords } from '../../power-queries.ts';
import { none } from '../../queries.ts';

export const voltageDrop = defineRule({
  meta: {
    id: 'power/voltage-drop',
    severity: 'fix-before-load-in',
    title: 'Too much lost on the way',
    why: 'Thin wire and long multi-cores lose voltage, the more the more is drawn: the device at the far end runs on what is left.',
    remedy: 'Thicker wire, a shorter way, a line of its own, or the supply beside the device.',
    source: 'copper 1.724e-8 Ω·m, diameters of ASTM B258',
    messages: {
      dropped:
        '{device} runs on {range} V; of {volts} V from the supply {left} V arrive, {lost} V are lost on the way{basis}.',
    },
  },
  check: (context) =>
    fedLoads(context).flatMap(({ load, feed }): readonly Reported<'dropped'>[] => {
      const range = [load.needs.volts[0], load.needs.volts[1]] as const;
      const left = feed.volts - load.lost;
      // A rated voltage is kept within a tenth or so; a range that was entered is kept as it is (common practice).
      const lowest = range[0] === range[1] ? range[0] * 0.9 : range[0];
      if (load.lost === 0 || !isWithin(feed.volts, range) || left >= lowest) return none;
      return [
        {
          messageId: 'dropped',
          at: { device: load.device.id },
          ...graded('fix-before-load-in', [load], feed.outputs),
          data: {
            device: load.device.name,
            range: rangeWords(range),
            volts: voltsWords(feed.volts),
            left: voltsWords(left),
            lost: voltsWords(load.lost),
            basis: basis([load], feed.outputs),
          },
        },
      ];
    }),
});
