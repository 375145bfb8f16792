import type { SoundTarget } from '../audible/sound-target.ts';
import type { Exploration } from '../explore/exploration.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { ProofBase } from './base.ts';
import type { ProofCache } from './cache.ts';

/** The ordinary case: the press alone leaves all that is wanted as it is wanted, whatever came before. */
export const isRightAtAGlance = (
  base: ProofBase,
  cache: ProofCache,
  slot: ModelSlot,
  target: SoundTarget,
  exploration: Exploration,
): boolean =>
  firstMoving(base, slot, target, 0) === nowhere &&
  target.cues.size === 0 &&
  base.isPlayable(slot) &&
  (target.sound.silence || soundsAfter(base, cache, slot, exploration));

/**
 * Whether the line surely sounds after a press, since it does in every state. What a slot leaves that is excluded from
 * what may happen is none of these states.
 */
export const soundsAfter = (base: ProofBase, cache: ProofCache, slot: ModelSlot, exploration: Exploration): boolean =>
  !base.excluded.has(slot.index) && cache.alwaysSounds(exploration);

/** Stands where there is no such place. */
export const nowhere = -1;

/**
 * From a place in a target on, the place of the next want that the press does not, whatever came before, leave as
 * wanted; `nowhere` where there is none.
 */
export function firstMoving(
  { table, releasable }: ProofBase,
  slot: ModelSlot,
  { variables, wanted, cues }: SoundTarget,
  from: number,
): number {
  const { summary } = table.press.get(slot.index)!;
  const mayBeReleased = releasable.size > 0;
  for (let i = from; i < variables.length; i += 1) {
    const variable = variables[i];
    if (summary.leaves(variable) === wanted[i] && !(mayBeReleased && releasable.has(variable))) continue;
    if (cues.size === 0 || !cues.has(variable)) return i;
  }
  return nowhere;
}
