import type { CastAction } from '../../model/rig.ts';
import { FootPlanner } from '../feet/foot-planner.ts';
import type { Prover } from '../prove/prover.ts';

/** A part that a slot plays, with what feet and hands have to do besides and nobody planned. */
export interface UnplannedCues {
  readonly part: string;
  readonly cast: string;
  readonly actions: readonly CastAction[];
}

/**
 * Parts whose slot delivers what it should, while something that belongs to foot or hand is not where the sound wants
 * it: with the fewest presses and hand moves that put it there, each part as if those before had been done.
 */
export function unplannedCues(prover: Prover): readonly UnplannedCues[] {
  const { parts } = prover.set;
  const asks = parts.some(({ slot, sound }) => slot && sound && asksOfPlayers(prover, sound.id));
  if (!asks) return [];
  const planner = new FootPlanner(prover.model, prover.comparison, prover.threeValued);
  return parts.flatMap(({ part, cast, slot, sound, events }): UnplannedCues[] => {
    for (const { compiled } of events) planner.follow(compiled);
    if (!slot || !sound) return [];
    const target = prover.targetOf(sound);
    const bare = target.withoutCues();
    if (planner.judge(bare) !== 'wrong' || planner.judge(target, true) !== 'right') return [];
    const { before, on, failed } = planner.derive({ target: bare, after: [], soundBefore: null });
    const actions = [...before, ...on].map(({ action }) => action);
    return failed || actions.length === 0 ? [] : [{ part: part.id, cast: cast.id, actions }];
  });
}

/** Whether a sound wants anything of a control that belongs to foot, hand or live. */
function asksOfPlayers(prover: Prover, sound: string): boolean {
  const target = prover.targetOf(prover.model.wiring.rig.sounds[sound]);
  return [...target.cues.keys()].some((variable) => target.named.has(variable));
}
