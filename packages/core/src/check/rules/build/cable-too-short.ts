import { boardsOf } from '../../../build/boards.ts';
import { cableRuns } from '../../../build/runs.ts';
import { lengthLabel } from '../../../units/length.ts';
import type { Metres } from '../../../units/quantities.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';
import { none } from '../../queries.ts';

export const cableTooShort = defineRule({
  meta: {
    id: 'build/cable-too-short',
    severity: 'fix-before-load-in',
    title: 'A cable shorter than its run',
    why: 'A cable that is stretched pulls at both jacks, or does not reach at all.',
    remedy: 'Take a longer one, or move the pieces nearer to each other.',
    source: 'positions as entered, along the edges of the board',
    messages: { short: '{tag} is {length} long; from jack to jack it is {run} along the board.' },
  },
  check: ({ show: { rig } }) => {
    const boards = boardsOf(rig);
    if (boards.length === 0) return none;
    return cableRuns(rig).flatMap(({ cable, runs, shortest }): readonly Reported<'short'>[] => {
      if (cable.length === null || shortest === null || cable.length * 1000 >= shortest) return none;
      const unit = rig.settings.lengthUnit;
      return [
        {
          messageId: 'short',
          at: { device: cable.plugs[0].device },
          data: {
            tag: cable.tag,
            length: lengthLabel(cable.length, unit),
            run: lengthLabel((shortest / 1000) as Metres, unit),
          },
          fix: setFix(
            `Make it ${lengthLabel(runs! as Metres, unit)}`,
            ['cables', cable.id, 'length'],
            runs,
            cable.length,
          ),
        },
      ];
    });
  },
});
