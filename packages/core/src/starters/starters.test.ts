import { expect, test } from '@jest/globals';
import { check, contextOf } from '../check/engine.ts';
import { rules } from '../check/rules/index.ts';
import { checkShow } from '../change/steps.ts';
import { starters } from './starters.ts';

/** What is worth knowing of one by its nature, besides that it has no songs yet. */
const known: Readonly<Record<string, readonly string[]>> = {
  // The loop beside the line is off in one of its sounds, and the pedal in it with it.
  'dosed-echo': ['recall/foot-changes-meaning'],
  // The echo into the drive is what the order by slot is for.
  'stored-order': ['routing/time-before-drive'],
  // A tuner in front of the amp does not mute what comes into the station beside it.
  'looping-hub': ['routing/no-mute'],
};

test.each(starters.map((starter) => [starter.id, starter] as const))(
  '%s is a whole rig: sounds that are heard, slots that recall at levels 2 and 4, and no fault found',
  (id, { make }) => {
    const show = make('rig', 'My rig');
    expect(checkShow(show).ok).toBe(true);
    expect(show.rig.name).toBe('My rig');
    const context = contextOf(show);
    const { findings, broken } = check(context, rules);
    expect(broken).toEqual([]);
    // A switcher in front of the amp has its delay in front too: the rule for that is worth knowing only where the amp
    // distorts.
    // Songs are the player's own: that there are none is said.
    expect(findings.map((finding) => finding.ruleId).sort()).toEqual([...(known[id] ?? []), 'show/not-judged']);
    for (const sound of Object.values(show.rig.sounds))
      expect([id, sound.name, context.tracer.trace(sound).sounds]).toEqual([id, sound.name, true]);
    for (const level of [2, 4] as const)
      expect(context.prover.all(level).map((judgement) => [judgement.sound, judgement.verdict])).toEqual(
        context.prover.all(level).map((judgement) => [judgement.sound, 'recalls']),
      );
  },
);
