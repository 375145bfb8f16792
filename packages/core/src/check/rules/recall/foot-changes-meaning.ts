import { volumePedals, volumePlace } from '../../../trace/volume-place.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { nameOf, playedSounds, soundsOf } from '../../queries.ts';

const kinds = { drive: 'the drive', level: 'the level', dose: 'the dose of one branch' } as const;

export const footChangesMeaning = defineRule({
  meta: {
    id: 'recall/foot-changes-meaning',
    severity: 'worth-knowing',
    title: 'A foot control does nothing, or means something else than a moment ago',
    why: 'A foot learns what a pedal does. Where it stands in a loop or an insert that is off it does nothing; where the line runs another way it turns something else.',
    remedy: 'Let the signal pass it in these sounds too, or know it: write it on the cue sheet.',
    source: 'common practice',
    messages: {
      nothing: '{device} does nothing in {count} of {all} sounds: {sounds}.',
      changes: 'From {before} to {after} {device} turns {now} instead of {then}.',
    },
  },
  check: (context) => {
    const heard = soundsOf(context).filter((sound) => !sound.silence && context.tracer.trace(sound).sounds);
    const played = playedSounds(context);
    return volumePedals(context.wiring).flatMap((device): readonly Reported<'nothing' | 'changes'>[] => {
      const placeIn = new Map(heard.map((sound) => [sound, volumePlace(context.tracer.trace(sound), device)]));
      const idle = heard.filter((sound) => placeIn.get(sound) === undefined);
      // One that no sound passes is not used at all: that is no surprise for a foot.
      if (idle.length === heard.length) return [];
      const name = nameOf(context, device);
      const first = played.findIndex((sound, i) => {
        const [now, then] = [placeIn.get(sound), i === 0 ? undefined : placeIn.get(played[i - 1])];
        return now !== undefined && then !== undefined && now.kind !== then.kind;
      });
      return [
        ...(idle.length === 0
          ? []
          : [
              {
                messageId: 'nothing' as const,
                at: { device },
                data: {
                  device: name,
                  count: idle.length,
                  all: heard.length,
                  sounds:
                    idle
                      .slice(0, 4)
                      .map((sound) => sound.name)
                      .join(', ') + (idle.length > 4 ? ' …' : ''),
                },
              },
            ]),
        ...(first < 0
          ? []
          : [
              {
                messageId: 'changes' as const,
                at: { device, sound: played[first].id },
                data: {
                  device: name,
                  before: played[first - 1].name,
                  after: played[first].name,
                  now: kinds[placeIn.get(played[first])!.kind],
                  then: kinds[placeIn.get(played[first - 1])!.kind],
                },
              },
            ]),
      ];
    });
  },
});
