import { heldSounds } from '../../../recall/prove/held-sounds.ts';
import { deviceName } from '../../../model/labels.ts';
import { PlannedSwitches } from '../../../model/planned-switches.ts';
import { defineRule, type Reported } from '../../define-rule.ts';

export const heldSound = defineRule({
  meta: {
    id: 'recall/held-sound',
    severity: 'fix-before-load-in',
    title: 'A held sound that nothing releases',
    why: 'A freeze or an infinite repeat rings on, whatever is played, until it is released; what no slot clears rings into the next song.',
    remedy: 'Plan the press that releases it, or send it off in the slots.',
    source: 'the set list, played from power-up',
    messages: {
      rings: '{device} still holds its sound when {song} is over.',
      'only-foot': 'No slot releases {device}: what it holds rings on until a foot does.',
    },
  },
  check: ({ show: { rig, songbook }, wiring, prover }) => {
    const held = heldSounds(prover);
    if (held.length === 0) return [];
    const planned = new PlannedSwitches(rig);
    const { parts } = prover.set;
    return held.flatMap(({ device, control, onAfter, isCleared }): readonly Reported<'rings' | 'only-foot'>[] => {
      const name = deviceName(wiring, device);
      const ends = onAfter.filter((i) => parts[i + 1]?.part.song !== parts[i].part.song);
      const wired = wiring.device.get(device)!;
      const foot = wired.anatomy.switches.find(({ actions }) =>
        actions.some((action) => 'toggle' in action && action.toggle === control.id),
      );
      if (ends.length > 0)
        // What it begins to ring on in; the songs after it follow from that.
        return ends.slice(0, 1).map((i) => {
          const { part, cast } = parts[i];
          return {
            messageId: 'rings',
            at: { part: part.id, device },
            data: { device: name, song: songbook.songs[part.song].name },
            ...(foot
              ? {
                  fix: {
                    label: `Release it at the end of ${part.name}`,
                    steps: [
                      {
                        doc: 'rig',
                        op: 'set',
                        at: ['casting', cast.id, 'after'],
                        value: [...cast.after, { kind: 'foot', device, switch: foot.id }],
                        old: cast.after,
                      } as const,
                    ],
                  },
                }
              : {}),
          };
        });
      const mayBeOn = foot !== undefined && planned.has(wired.device, foot.id);
      return mayBeOn && !isCleared && prover.model.slots.length > 0
        ? [{ messageId: 'only-foot', severity: 'worth-knowing', at: { device }, data: { device: name } }]
        : [];
    });
  },
});
