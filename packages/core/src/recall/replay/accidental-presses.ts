import type { Sound } from '../../model/rig.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import { SimulatedRig } from '../deliver/simulated-rig.ts';
import type { Prover } from '../prove/prover.ts';
import type { ModelSlot } from '../state/state-model.ts';
import { NeedPin } from '../state/values.ts';

/** What one unplanned foot switch does to the sounds of a rig. */
export interface StrayReport {
  readonly device: string;
  readonly switch: string;
  /** Sounds that are wrong as soon as the foot is off, the rig having been in each of them. */
  readonly atOnce: readonly string[];
  /** Sounds whose next press does not bring them up right. */
  readonly after: readonly string[];
}

/**
 * Level 3 told switch by switch, in document order: what breaks at once, what the next presses still bring up wrong.
 */
export function strayReports(prover: Prover): readonly StrayReport[] {
  return prover.strays.map((stray) => ({
    device: stray.device,
    switch: stray.switch,
    atOnce: prover.pairs().flatMap(({ slot, sound }) => (breaksAtOnce(prover, stray, slot, sound) ? [sound.id] : [])),
    after: prover.pairs().flatMap(({ slot, sound }) => {
      const isAlreadyWrong = prover.judge(slot, sound, 2).verdict === 'does-not';
      return !isAlreadyWrong && prover.judgeAfterStray(stray.index, slot, sound) === 'does-not' ? [sound.id] : [];
    }),
  }));
}

/**
 * On the simulated rig: all up, the slot pressed, and where its sound is right then, whether the foot makes it wrong.
 * Where that turns on contents that nobody entered, it is not said.
 */
function breaksAtOnce(
  prover: Prover,
  stray: { readonly device: string; readonly switch: string },
  { slot }: ModelSlot,
  sound: Sound,
): boolean {
  const choices = new ChoiceSequence();
  choices.begin();
  const rig = new SimulatedRig(prover.model, choices);
  const isRight = () =>
    prover.comparison.judge((variable) => rig.store.get(variable), prover.targetOf(sound), {
      obey: true,
      pins: rig.store.pins,
    }).is !== 'wrong';
  try {
    if (!rig.comeUp({ needs: [] }) || !rig.happen({ kind: 'press', slot: slot.id }) || !isRight()) return false;
    return !rig.happen({ kind: 'foot', device: stray.device, switch: stray.switch, stray: true }) || !isRight();
  } catch (reason) {
    if (reason instanceof NeedPin) return false;
    throw reason;
  }
}
